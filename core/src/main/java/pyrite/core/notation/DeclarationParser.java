package pyrite.core.notation;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Name;
import pyrite.core.expression.Operator;
import pyrite.core.model.ElementKind;
import pyrite.core.model.ElementKind.Body;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;

/**
 * Parses declarations of definitions and usages: prefixes, keyword, names, specialisations, multiplicity, value and
 * body. The keyword and the table {@link ElementKind} give the kind.
 */
final class DeclarationParser {
    static final String MULTIPLICITY_FORM =
            "a multiplicity is written with whole numbers, lower first, as in [2] or [0..*]";
    private static final Map<String, ElementKind> BY_SHORT_KEYWORD = new HashMap<>();
    /** The keywords of several words, by the first. */
    private static final Map<String, List<List<String>>> PHRASES = new HashMap<>();

    static {
        for (ElementKind kind : ElementKind.values()) {
            if (kind.shortKeyword() != null) {
                BY_SHORT_KEYWORD.put(kind.shortKeyword(), kind);
            }
            if (kind.keyword().indexOf(' ') > 0) {
                List<String> words = List.of(kind.keyword().split(" "));
                PHRASES.computeIfAbsent(words.getFirst(), _ -> new ArrayList<>())
                        .add(words);
            }
        }
    }

    private final Cursor cursor;
    private final ExpressionParser expressions;
    private final MemberParser members;

    DeclarationParser(Cursor cursor, ExpressionParser expressions, MemberParser members) {
        this.cursor = cursor;
        this.expressions = expressions;
        this.members = members;
    }

    /** A declaration with prefixes and body. */
    Draft declaration(Draft owner, StepParser steps, RelationParser relations) {
        int first = cursor.at();
        Draft draft = new Draft(ElementKind.REFERENCE, owner);
        boolean ref = prefixes(draft);
        if (relations.isRelation()) {
            relations.relation(draft, first);
            return draft;
        }
        if (steps.isStep()) {
            draft.kind = ElementKind.ACTION;
            if (ref) {
                draft.set(Property.REFERENTIAL, true);
            }
            steps.step(draft);
            return draft;
        }
        boolean refers = keyword(draft, ref);
        int named = cursor.at();
        if (refers) {
            members.reference(draft, Property.TARGET);
        } else if (draft.kind == ElementKind.REFERENCE && draft.has(Property.VARIANT)) {
            members.reference(draft, Property.REFERS);
        } else {
            identification(draft);
        }
        draft.head = cursor.at() > named ? cursor.spanFrom(named) : cursor.spanFrom(first);
        clauses(draft);
        value(draft);
        if (draft.kind == ElementKind.ACTION && steps.isStep()) {
            steps.step(draft);
            return draft;
        }
        relations.tail(draft);
        members.ending(draft);
        return draft;
    }

    /**
     * {@code @name : Type about a, b { … }} or the same behind {@code metadata}; the name may be left away with its
     * colon.
     */
    void metadata(Draft draft) {
        int first = cursor.at();
        cursor.take();
        boolean named = cursor.sees("<")
                || cursor.seesName()
                        && (cursor.sees(1, ":")
                                || cursor.tokens().text(cursor.at() + 1).equals("defined"));
        if (named) {
            identification(draft);
            clauses(draft);
        } else {
            members.reference(draft, Property.TYPES);
        }
        draft.head = cursor.spanFrom(first);
        about(draft);
        members.ending(draft);
    }

    void about(Draft draft) {
        if (cursor.takes("about")) {
            members.references(draft, Property.ABOUT);
        }
    }

    /** Takes prefixes in any order; whether {@code ref} was among them. */
    private boolean prefixes(Draft draft) {
        boolean ref = false;
        for (; ; ) {
            if (cursor.type() != Tokens.Type.KEYWORD && !cursor.sees("#")) {
                return ref;
            }
            switch (cursor.text()) {
                case "abstract" -> draft.set(Property.ABSTRACT, true);
                case "variation" -> draft.set(Property.VARIATION, true);
                case "variant" -> draft.set(Property.VARIANT, true);
                case "derived" -> draft.set(Property.DERIVED, true);
                case "constant", "readonly" -> draft.set(Property.CONSTANT, cursor.text());
                case "end" -> {
                    cursor.take();
                    draft.set(Property.END, true);
                    crossMultiplicity(draft);
                    continue;
                }
                case "individual" -> draft.set(Property.INDIVIDUAL, true);
                case "snapshot", "timeslice" -> draft.set(Property.PORTION, cursor.text());
                case "in", "out", "inout", "return" -> draft.set(Property.DIRECTION, cursor.text());
                case "ref" -> ref = true;
                case "#" -> {
                    cursor.take();
                    int mark = cursor.at();
                    draft.refer(Property.MARKS, List.of(cursor.requireQualifiedName()), cursor.spanFrom(mark));
                    continue;
                }
                default -> {
                    return ref;
                }
            }
            cursor.take();
        }
    }

    /**
     * {@code [1]} between {@code end} and the keyword or the name. Where neither follows, it is the multiplicity of the
     * end itself: {@code end [1] : Part}.
     */
    private void crossMultiplicity(Draft draft) {
        int first = cursor.at();
        if (!cursor.takes("[")) {
            return;
        }
        multiplicity(draft, first);
        if (seesClause() || cursor.sees(";") || cursor.sees("{") || cursor.sees("=")) {
            return;
        }
        Multiplicity numbers = draft.remove(Property.MULTIPLICITY);
        if (numbers == null) {
            members.problem(cursor.spanFrom(first), MULTIPLICITY_FORM);
        } else {
            draft.set(Property.CROSS_MULTIPLICITY, numbers);
        }
        draft.formulas = new ArrayList<>(draft.formulas);
        draft.formulas.removeIf(formula -> formula.property() == Property.BOUNDS);
    }

    /** Takes the keyword and {@code def}; whether a mere reference follows instead of a declaration. */
    private boolean keyword(Draft draft, boolean ref) {
        boolean negated = cursor.sees("not") && cursor.sees(1, "satisfy") && cursor.takes("not");
        if (cursor.sees("assert")
                && (cursor.sees(1, "satisfy") || cursor.sees(1, "not") && cursor.sees(2, "satisfy"))) {
            cursor.take();
            negated = cursor.takes("not");
        }
        int first = cursor.at();
        String word = cursor.type() == Tokens.Type.KEYWORD ? cursor.text() : "";
        ElementKind kind = word.isEmpty() ? null : kindOf(draft, word);
        if (kind == null) {
            unmarked(draft, ref, word);
            return false;
        }
        if (negated) {
            draft.set(Property.NEGATED, true);
        }
        boolean shortened = kind.shortKeyword() != null
                && cursor.at() == first + 1 + (draft.has(Property.NEGATED) && kind != ElementKind.SATISFACTION ? 1 : 0);
        if (cursor.takes("def")) {
            ElementKind definition =
                    ElementKind.declaredBy(kind.keyword(), true).orElse(null);
            if (definition == null) {
                members.problem(cursor.spanFrom(first), "there is no definition of kind '" + kind.keyword() + "'");
            }
            kind = definition == null ? kind : definition;
        } else if (ElementKind.declaredBy(kind.keyword(), false).isEmpty()) {
            members.problem(cursor.spanFrom(first), "'" + kind.keyword() + "' is followed by 'def' here");
        }
        draft.kind = kind;
        if (ref && kind.isUsage()) {
            draft.set(Property.REFERENTIAL, true);
        }
        return shortened && cursor.seesName();
    }

    private @Nullable ElementKind kindOf(Draft draft, String word) {
        boolean not = word.equals("assert") && cursor.sees(1, "not");
        ElementKind several = phrase(word, not);
        if (several == null && BY_SHORT_KEYWORD.containsKey(word)) {
            several = BY_SHORT_KEYWORD.get(word);
            take(not ? 2 : 1);
        }
        if (several != null) {
            if (not) {
                draft.set(Property.NEGATED, true);
            }
            return several;
        }
        ElementKind kind = ElementKind.declaredBy(word, false)
                .or(() -> ElementKind.declaredBy(word, true))
                .orElse(null);
        if (kind != null) {
            cursor.take();
        }
        return kind;
    }

    /** Takes a keyword of several words, behind the first of which {@code not} may stand. */
    private @Nullable ElementKind phrase(String first, boolean not) {
        int skipped = not ? 1 : 0;
        for (List<String> words : PHRASES.getOrDefault(first, List.of())) {
            boolean there = true;
            for (int i = 1; i < words.size(); i++) {
                there &= cursor.sees(i + skipped, words.get(i));
            }
            // A package is declared elsewhere, though its keyword has two words.
            ElementKind kind = ElementKind.declaredBy(String.join(" ", words), false)
                    .or(() -> ElementKind.declaredBy(String.join(" ", words), true))
                    .orElse(null);
            if (there && kind != null) {
                take(words.size() + skipped);
                return kind;
            }
        }
        return null;
    }

    private void take(int count) {
        for (int i = 0; i < count; i++) {
            cursor.take();
        }
    }

    /**
     * Without a keyword it is a reference, an occurrence if it is said to be an individual or a portion, or a value of
     * an enumeration.
     */
    private void unmarked(Draft draft, boolean ref, String word) {
        boolean occurrence = draft.has(Property.INDIVIDUAL) || draft.has(Property.PORTION);
        if (cursor.takes("def")) {
            if (!occurrence && !draft.has(Property.MARKS)) {
                throw cursor.expected("a keyword such as 'part' before 'def'");
            }
            draft.kind = occurrence ? ElementKind.OCCURRENCE_DEFINITION : ElementKind.MARKED_DEFINITION;
            return;
        }
        boolean goesOn = cursor.seesName()
                || cursor.sees("<")
                || seesClause()
                || cursor.sees("=")
                || cursor.sees(":=")
                || !draft.properties().isEmpty() && (cursor.sees(";") || cursor.sees("{"));
        if (!goesOn && !ref) {
            throw cursor.expected(word.isEmpty() ? "a declaration such as 'part' or 'attribute'" : "a declaration");
        }
        draft.kind = draft.owner != null && draft.owner.kind.body() == Body.ENUMERATION
                ? ElementKind.ENUMERATION
                : occurrence ? ElementKind.OCCURRENCE : ElementKind.REFERENCE;
    }

    /** {@code <short> name}; either may be left away. In metadata a name alone redefines. */
    void identification(Draft draft) {
        int first = cursor.at();
        if (cursor.takes("<")) {
            draft.shortName = cursor.requireName();
            requireEndOfShortName(first);
        }
        if (cursor.seesName() && !cursor.seesWord("defined")) {
            String name = cursor.take();
            boolean redefines = draft.kind == ElementKind.REFERENCE
                    && draft.owner != null
                    && draft.owner.kind == ElementKind.METADATA;
            if (redefines) {
                draft.refer(Property.REDEFINES, List.of(Name.of(name)), cursor.spanFrom(first));
            } else {
                draft.name = name;
            }
        }
        if (cursor.at() > first) {
            draft.head = cursor.spanFrom(first);
        }
    }

    private void requireEndOfShortName(int first) {
        int last = cursor.at();
        while (!cursor.tokens().text(last).equals(">")
                && last < first + 10
                && last < cursor.tokens().last()) {
            last++;
        }
        if (!cursor.sees(">") && cursor.tokens().text(last).equals(">")) {
            StringBuilder whole = new StringBuilder();
            for (int i = first + 1; i < last; i++) {
                whole.append(cursor.tokens().text(i));
            }
            throw new Cursor.SyntaxFault(
                    cursor.spanFrom(first),
                    "a name with other characters than letters, digits and '_' is written in quotes: <"
                            + Name.quoted(whole.toString()) + ">");
        }
        cursor.require(">");
    }

    private boolean seesClause() {
        return switch (cursor.text()) {
            case ":",
                    ":>",
                    ":>>",
                    "::>",
                    "=>",
                    "[",
                    "subsets",
                    "specializes",
                    "redefines",
                    "references",
                    "crosses",
                    "ordered",
                    "nonunique" -> cursor.type() == Tokens.Type.SIGN || cursor.type() == Tokens.Type.KEYWORD;
            case "defined" -> cursor.tokens().text(cursor.at() + 1).equals("by");
            default -> false;
        };
    }

    /** Typing, specialisation, multiplicity, in any order. */
    void clauses(Draft draft) {
        while (seesClause()) {
            int first = cursor.at();
            switch (cursor.take()) {
                case ":" -> typed(draft);
                case "defined" -> {
                    cursor.require("by");
                    typed(draft);
                }
                case ":>", "subsets", "specializes" -> members.references(draft, Property.SPECIALIZES);
                case ":>>", "redefines" -> members.references(draft, Property.REDEFINES);
                case "::>", "references" -> members.references(draft, Property.REFERS);
                case "=>", "crosses" -> members.references(draft, Property.CROSSES);
                case "ordered" -> draft.set(Property.ORDERED, true);
                case "nonunique" -> draft.set(Property.NONUNIQUE, true);
                default -> multiplicity(draft, first);
            }
        }
    }

    private void typed(Draft draft) {
        boolean first = cursor.takes("~");
        members.reference(draft, Property.TYPES);
        List<Draft.Pending> conjugates = new ArrayList<>(first ? draft.pending(Property.TYPES) : List.of());
        boolean all = first;
        while (cursor.takes(",")) {
            boolean conjugated = cursor.takes("~");
            members.reference(draft, Property.TYPES);
            if (conjugated) {
                conjugates.add(draft.references.getLast());
            }
            all &= conjugated;
        }
        if (all) {
            draft.set(Property.CONJUGATED, true);
        } else {
            conjugates.forEach(type -> draft.refer(Property.CONJUGATES, type.chain(), type.span()));
        }
    }

    /** The rest of {@code [lower..upper]}, behind the bracket. */
    void multiplicity(Draft draft, int first) {
        Expression bounds = expressions.expression();
        cursor.require("]");
        boolean range = bounds instanceof Binary b && b.operator() == Operator.RANGE;
        Expression low = range ? ((Binary) bounds).left() : bounds;
        Expression high = range ? ((Binary) bounds).right() : bounds;
        if (isNegative(low) || isNegative(high)) {
            members.problem(cursor.spanFrom(first), MULTIPLICITY_FORM);
            return;
        }
        if (!isBound(low) || !isBound(high)) {
            draft.formula(Property.BOUNDS, bounds);
            return;
        }
        try {
            int upper = bound(high);
            draft.set(
                    Property.MULTIPLICITY,
                    new Multiplicity(!range && upper == Multiplicity.MANY ? 0 : bound(low), upper));
        } catch (IllegalArgumentException _) {
            members.problem(cursor.spanFrom(first), MULTIPLICITY_FORM);
        }
    }

    private static boolean isNegative(Expression expression) {
        return expression instanceof Expression.Unary unary && unary.operand() instanceof NumberLiteral;
    }

    private static boolean isBound(Expression expression) {
        return expression instanceof NumberLiteral || expression instanceof Expression.Unbounded;
    }

    private static int bound(Expression bound) {
        return bound instanceof NumberLiteral number ? Integer.parseInt(number.spelling()) : Multiplicity.MANY;
    }

    /** {@code = e}, {@code := e} or {@code default e}. */
    void value(Draft draft) {
        boolean usual = cursor.takes("default");
        FeatureValue.Kind kind;
        if (cursor.takes(":=")) {
            kind = usual ? FeatureValue.Kind.DEFAULT_INITIAL : FeatureValue.Kind.INITIAL;
        } else if (cursor.takes("=") || usual) {
            kind = usual ? FeatureValue.Kind.DEFAULT : FeatureValue.Kind.FIXED;
        } else {
            return;
        }
        draft.valueKind = kind;
        draft.formula(Property.VALUE, expressions.expression());
    }
}
