package pyrite.core.notation;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiConsumer;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Name;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Span;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Property;
import pyrite.core.model.SpelledNames;

/**
 * Parses the members of packages and bodies (SysML 2.0, 8.2.2). After a syntax error the parser skips to the start of
 * the next member, so that one fault hides no other.
 */
final class MemberParser {
    private final Cursor cursor;
    private final ExpressionParser expressions;
    private final DeclarationParser declarations;
    private final StepParser steps;
    private final RelationParser relations;
    private final Notes notes;
    private final BiConsumer<Span, String> problems;

    MemberParser(Tokens tokens, BiConsumer<Span, String> problems) {
        this.cursor = new Cursor(tokens);
        this.expressions = new ExpressionParser(cursor);
        this.notes = new Notes(tokens);
        this.problems = problems;
        this.declarations = new DeclarationParser(cursor, expressions, this);
        this.relations = new RelationParser(cursor, expressions, declarations, this);
        this.steps = new StepParser(cursor, expressions, declarations, relations, this);
    }

    List<Cursor.Hint> hints() {
        return cursor.hints();
    }

    /** The whole text as members of {@code top}. */
    void file(Draft top) {
        while (!cursor.isAtEnd()) {
            if (cursor.sees("}")) {
                problem(cursor.expected("a declaration such as 'package' or 'part'"));
                cursor.take();
            }
            members(top);
        }
    }

    /** {@code ;}, or a body in braces. */
    void ending(Draft owner) {
        if (cursor.takes(";")) {
            return;
        }
        if (!cursor.sees("{")) {
            throw cursor.expected("';' or '{'");
        }
        body(owner);
    }

    void body(Draft owner) {
        cursor.require("{");
        cursor.enter();
        members(owner);
        cursor.leave();
        cursor.require("}");
    }

    private void members(Draft owner) {
        while (!cursor.isAtEnd() && !cursor.sees("}")) {
            int first = cursor.at();
            int depth = cursor.depth();
            int before = owner.children.size();
            try {
                member(owner);
            } catch (Cursor.SyntaxFault fault) {
                problem(fault);
                cursor.resetDepth(depth);
                recover(first);
            }
            if (owner.children.size() > before) {
                notes.put(owner.children.get(before), first, cursor.at() - 1);
            }
        }
    }

    private void problem(Cursor.SyntaxFault fault) {
        problems.accept(fault.span(), fault.getMessage());
    }

    void problem(Span span, String message) {
        problems.accept(span, message);
    }

    /** Goes on to behind the next {@code ;}, or to what looks like the beginning of another member. */
    private void recover(int first) {
        if (cursor.at() == first) {
            cursor.take();
        }
        int depth = 0;
        while (!cursor.isAtEnd()) {
            if (depth == 0 && (cursor.sees("}") || cursor.tokens().beginsLine(cursor.at()) && beginsMember())) {
                return;
            }
            depth += cursor.sees("{") ? 1 : cursor.sees("}") ? -1 : 0;
            boolean ends = depth == 0 && (cursor.sees(";") || cursor.sees("}"));
            cursor.take();
            if (ends) {
                return;
            }
        }
    }

    private boolean beginsMember() {
        return cursor.type() == Tokens.Type.KEYWORD
                && (ElementKind.declaredBy(cursor.text(), false).isPresent()
                        || MemberKeywords.FIRST.contains(cursor.text()));
    }

    private void member(Draft owner) {
        if (isResult(owner)) {
            result(owner);
            return;
        }
        @Nullable String visibility = null;
        if (cursor.sees("public") || cursor.sees("private") || cursor.sees("protected")) {
            visibility = cursor.take();
        }
        int before = owner.children.size();
        try {
            declared(owner);
        } finally {
            if (visibility != null && owner.children.size() > before) {
                owner.children.get(before).set(Property.VISIBILITY, visibility);
            }
        }
    }

    private void declared(Draft owner) {
        if (cursor.type() == Tokens.Type.BLOCK) {
            block(new Draft(ElementKind.COMMENT, owner), cursor.at());
            return;
        }
        if (cursor.type() == Tokens.Type.KEYWORD || cursor.type() == Tokens.Type.SIGN) {
            switch (cursor.text()) {
                case "package", "library", "standard" -> packaged(new Draft(ElementKind.PACKAGE, owner));
                case "import" -> imported(new Draft(ElementKind.IMPORT, owner));
                case "expose" -> imported(new Draft(ElementKind.EXPOSURE, owner));
                case "alias" -> alias(new Draft(ElementKind.ALIAS, owner));
                case "filter" -> filter(new Draft(ElementKind.FILTER, owner));
                case "doc" -> text(new Draft(ElementKind.DOCUMENTATION, owner));
                case "comment", "locale" -> comment(new Draft(ElementKind.COMMENT, owner));
                case "rep", "language" -> representation(new Draft(ElementKind.REPRESENTATION, owner));
                case "dependency" -> dependency(new Draft(ElementKind.DEPENDENCY, owner));
                case "metadata" -> {
                    if (cursor.sees(1, "def")) {
                        usage(owner);
                    } else {
                        declarations.metadata(new Draft(ElementKind.METADATA, owner));
                    }
                }
                case "#" -> marked(owner);
                case "@" -> declarations.metadata(new Draft(ElementKind.METADATA, owner));
                default -> usage(owner);
            }
            return;
        }
        usage(owner);
    }

    /** Marks may stand before a dependency too, which is no declaration of a feature. */
    private void marked(Draft owner) {
        int behind = 0;
        while (cursor.sees(behind, "#")) {
            behind += 2;
            while (cursor.sees(behind, "::")) {
                behind += 2;
            }
        }
        boolean isPackage =
                cursor.sees(behind, "package") || cursor.sees(behind, "library") || cursor.sees(behind, "standard");
        if (!cursor.sees(behind, "dependency") && !isPackage) {
            usage(owner);
            return;
        }
        Draft draft = new Draft(isPackage ? ElementKind.PACKAGE : ElementKind.DEPENDENCY, owner);
        while (cursor.takes("#")) {
            reference(draft, Property.MARKS);
        }
        if (isPackage) {
            packaged(draft);
        } else {
            dependency(draft);
        }
    }

    private void usage(Draft owner) {
        if (!steps.member(owner)) {
            declarations.declaration(owner, steps, relations);
        }
    }

    /**
     * Whether a bare expression comes, which a calculation or constraint comes to. A name alone could begin a
     * declaration too; what stands behind it tells.
     */
    private boolean isResult(Draft owner) {
        return switch (cursor.type()) {
            case NUMBER, STRING -> true;
            case NAME -> !isDeclaration(owner.kind.takes(Property.RESULT));
            case KEYWORD ->
                switch (cursor.text()) {
                    case "true", "false", "null", "new", "all" -> true;
                    case "not" -> !cursor.sees(1, "satisfy");
                    default -> false;
                };
            case SIGN ->
                switch (cursor.text()) {
                    case "(", "-", "+", "~" -> true;
                    default -> false;
                };
            default -> false;
        };
    }

    private boolean isDeclaration(boolean resultMayCome) {
        return switch (cursor.tokens().type(cursor.at() + 1)) {
            case SIGN ->
                switch (cursor.tokens().text(cursor.at() + 1)) {
                    case ":", ":>", ":>>", "::>", "=>", "=", ":=", "{" -> true;
                    case ";" ->
                        !resultMayCome || !cursor.tokens().text(cursor.at() + 2).equals("}");
                    case "[" -> !resultMayCome;
                    case "}" -> !resultMayCome;
                    default -> false;
                };
            case KEYWORD ->
                switch (cursor.tokens().text(cursor.at() + 1)) {
                    case "subsets",
                            "specializes",
                            "redefines",
                            "references",
                            "crosses",
                            "default",
                            "ordered",
                            "nonunique" -> true;
                    default -> !resultMayCome;
                };
            case NAME -> !resultMayCome || cursor.tokens().text(cursor.at() + 1).equals("defined");
            case END -> !resultMayCome;
            default -> false;
        };
    }

    private void result(Draft owner) {
        int first = cursor.at();
        result(owner, first, expressions.expression());
    }

    /** What a body comes to; nothing follows it. */
    void result(Draft owner, int first, Expression expression) {
        if (!owner.kind.takes(Property.RESULT)) {
            problem(
                    cursor.spanFrom(first),
                    "an expression cannot stand alone in a " + owner.kind.title()
                            + "; put it into a constraint: assert constraint { … }");
        } else if (owner.has(Property.RESULT)) {
            problem(
                    cursor.spanFrom(first),
                    "there is an expression already that this " + owner.kind.title()
                            + " comes to; join the two with 'and'");
        } else {
            owner.formula(Property.RESULT, expression);
        }
        if (!cursor.sees("}")) {
            throw cursor.expected("'}' behind the expression");
        }
    }

    private void packaged(Draft draft) {
        int first = cursor.at();
        if (cursor.takes("standard")) {
            draft.set(Property.STANDARD, true);
        }
        draft.kind = cursor.takes("library") ? ElementKind.LIBRARY_PACKAGE : ElementKind.PACKAGE;
        cursor.require("package");
        declarations.identification(draft);
        draft.head = cursor.spanFrom(first);
        ending(draft);
    }

    /** {@code import A::*}, {@code expose A::**[filter]}. */
    private void imported(Draft draft) {
        int first = cursor.at();
        cursor.take();
        if (cursor.takes("all")) {
            draft.set(Property.ALL, true);
        }
        int target = cursor.at();
        Name name = cursor.requireQualifiedName();
        draft.refer(Property.TARGET, List.of(name), cursor.spanFrom(target));
        draft.set(Property.SPELLINGS, SpelledNames.imported(Spelling.text(name)));
        draft.set(Property.REACH, reach());
        while (cursor.takes("[")) {
            Expression filter = expressions.expression();
            cursor.require("]");
            draft.formulas.stream()
                    .filter(f -> f.property() == Property.FILTER)
                    .findFirst()
                    .ifPresentOrElse(
                            other -> {
                                draft.formulas.remove(other);
                                draft.formula(
                                        Property.FILTER,
                                        new Expression.Binary(
                                                pyrite.core.expression.Operator.AND,
                                                other.expression(),
                                                filter,
                                                cursor.spanFrom(target)));
                            },
                            () -> draft.formula(Property.FILTER, filter));
        }
        draft.head = cursor.spanFrom(first);
        ending(draft);
    }

    private String reach() {
        if (!cursor.takes("::")) {
            return "one";
        }
        if (cursor.takes("**")) {
            return "self";
        }
        cursor.require("*");
        if (!cursor.sees("::") || !cursor.sees(1, "**")) {
            return "members";
        }
        cursor.take();
        cursor.take();
        return "all";
    }

    private void alias(Draft draft) {
        int first = cursor.at();
        cursor.require("alias");
        declarations.identification(draft);
        draft.head = cursor.spanFrom(first);
        cursor.require("for");
        int target = cursor.at();
        draft.refer(Property.TARGET, List.of(cursor.requireQualifiedName()), cursor.spanFrom(target));
        ending(draft);
    }

    private void filter(Draft draft) {
        int first = cursor.at();
        cursor.require("filter");
        draft.formula(Property.RESULT, expressions.expression());
        draft.head = cursor.spanFrom(first);
        cursor.require(";");
    }

    private void text(Draft draft) {
        int first = cursor.at();
        cursor.require("doc");
        declarations.identification(draft);
        locale(draft);
        block(draft, first);
    }

    private void comment(Draft draft) {
        int first = cursor.at();
        if (cursor.takes("comment")) {
            declarations.identification(draft);
            if (cursor.takes("about")) {
                references(draft, Property.ABOUT);
            }
        }
        locale(draft);
        block(draft, first);
    }

    private void representation(Draft draft) {
        int first = cursor.at();
        if (cursor.takes("rep")) {
            declarations.identification(draft);
        }
        cursor.require("language");
        if (cursor.type() != Tokens.Type.STRING) {
            throw cursor.expected("the language as a text in quotes");
        }
        draft.set(Property.LANGUAGE, cursor.take());
        block(draft, first);
    }

    private void locale(Draft draft) {
        if (cursor.takes("locale")) {
            if (cursor.type() != Tokens.Type.STRING) {
                throw cursor.expected("the locale as a text in quotes");
            }
            draft.set(Property.LOCALE, cursor.take());
        }
    }

    private void block(Draft draft, int first) {
        draft.head = cursor.tokens().span(first);
        if (cursor.type() != Tokens.Type.BLOCK) {
            throw cursor.expected("a comment /* … */");
        }
        draft.set(Property.TEXT, BlockText.read(cursor.take()));
    }

    /** {@code dependency name from a, b to c}; the name and {@code from} may be left away. */
    private void dependency(Draft draft) {
        int first = cursor.at();
        cursor.require("dependency");
        if (cursor.sees("<") || cursor.seesName() && cursor.sees(1, "from") || cursor.sees("from")) {
            declarations.identification(draft);
            cursor.require("from");
        }
        draft.head = cursor.spanFrom(first);
        references(draft, Property.CLIENTS);
        cursor.require("to");
        references(draft, Property.SUPPLIERS);
        ending(draft);
    }

    /** One or several chains of names, by commas. */
    void references(Draft draft, Property<?> property) {
        do {
            reference(draft, property);
        } while (cursor.takes(","));
    }

    /** A chain of names, {@code A::b.c}. */
    void reference(Draft draft, Property<?> property) {
        int first = cursor.at();
        List<Referent> chain = new ArrayList<>(1);
        chain.add(cursor.requireQualifiedName());
        while (cursor.sees(".") && cursor.seesName(1)) {
            cursor.take();
            chain.add(Name.of(cursor.take()));
        }
        draft.refer(property, chain, cursor.spanFrom(first));
    }
}
