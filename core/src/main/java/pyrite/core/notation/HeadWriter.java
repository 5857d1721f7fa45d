package pyrite.core.notation;

import static pyrite.core.notation.NotationWriter.joined;
import static pyrite.core.notation.NotationWriter.quoted;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Name;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.model.SpelledNames;

/**
 * Writes the part of a declaration before its body, in the order of the standard: prefixes, keyword, names, clauses,
 * value.
 */
final class HeadWriter {
    private final Model model;
    private final Spelling spelling;

    HeadWriter(Model model, Spelling spelling) {
        this.model = model;
        this.spelling = spelling;
    }

    String head(Element element) {
        String head = switch (element.kind()) {
            case IMPORT, EXPOSURE -> imported(element);
            case ALIAS -> "alias" + identification(element) + " for " + target(element, Property.TARGET);
            case FILTER -> "filter " + expression(element, Property.RESULT);
            case DOCUMENTATION, COMMENT, REPRESENTATION -> annotation(element).strip();
            case DEPENDENCY -> dependency(element);
            case PACKAGE, LIBRARY_PACKAGE ->
                marks(element)
                        + flag(element, Property.STANDARD, "standard ")
                        + element.kind().keyword()
                        + identification(element);
            case METADATA -> "@" + metadata(element);
            case CONNECTOR_END -> end(element);
            case BLOCK -> "action" + identification(element);
            case LOOP_VARIABLE -> identification(element).strip() + clauses(element);
            case TRANSITION -> transition(element);
            default -> declaration(element);
        };
        return head.strip();
    }

    private String imported(Element element) {
        String name = element.get(Property.TARGET)
                .map(reference -> spelling.imported(element, reference))
                .orElse("?");
        String filter = element.get(Property.FILTER)
                .map(f -> "[" + spelling.text(element, f) + "]")
                .orElse("");
        return element.kind().keyword() + flag(element, Property.ALL, " all") + " " + name
                + switch (element.get(Property.REACH).orElse("one")) {
                    case "members" -> "::*";
                    case "self" -> "::**";
                    case "all" -> "::*::**";
                    default -> "";
                }
                + filter;
    }

    /** What stands before the text of documentation, of a comment or of a textual representation. */
    String annotation(Element element) {
        String locale =
                element.get(Property.LOCALE).map(l -> "locale " + text(l) + " ").orElse("");
        if (element.kind() == ElementKind.REPRESENTATION) {
            boolean named = element.name() != null || element.shortName() != null;
            return (named ? "rep" + identification(element) + " " : "") + "language "
                    + text(element.get(Property.LANGUAGE).orElse("")) + " ";
        }
        String about = list(element, Property.ABOUT, " about ");
        boolean bare = element.kind() == ElementKind.COMMENT
                && element.name() == null
                && element.shortName() == null
                && about.isEmpty();
        return (bare ? "" : element.kind().keyword() + identification(element) + about + " ") + locale;
    }

    private static String text(String text) {
        return "\"" + text.replace("\\", "\\\\").replace("\"", "\\\"") + "\"";
    }

    private String dependency(Element element) {
        boolean named = element.name() != null || element.shortName() != null;
        return marks(element) + "dependency" + (named ? identification(element) + " from" : "")
                + list(element, Property.CLIENTS, " ") + list(element, Property.SUPPLIERS, " to ");
    }

    private String metadata(Element element) {
        boolean named = element.name() != null || element.shortName() != null;
        String types = list(element, Property.TYPES, named ? " : " : "");
        return (named ? identification(element).strip() : "") + types + list(element, Property.ABOUT, " about ");
    }

    private String end(Element element) {
        return multiplicity(element)
                + (multiplicity(element).isEmpty() ? "" : " ")
                + (element.name() == null ? "" : quoted(element.name()) + " ::> ")
                + element.get(Property.TARGET)
                        .map(r -> spelling.reference(element, r, owner(element).owner()))
                        .orElse("?");
    }

    private Element owner(Element element) {
        return model.get(java.util.Objects.requireNonNull(element.owner()));
    }

    /** {@code status = draft} in metadata, where a name alone redefines. */
    private boolean isMetadataValue(Element element) {
        return element.kind() == ElementKind.REFERENCE
                && element.name() == null
                && element.shortName() == null
                && Set.of(Property.REDEFINES, Property.VALUE)
                        .equals(element.with(Property.SPELLINGS, null)
                                .properties()
                                .keySet())
                && element.references(Property.REDEFINES).size() == 1
                && owner(element).kind() == ElementKind.METADATA;
    }

    private String declaration(Element element) {
        if (isMetadataValue(element)) {
            return quoted(model.names().effectiveName(element)) + value(element);
        }
        StringBuilder head = new StringBuilder(prefixes(element));
        String keyword = keyword(element);
        head.append(keyword);
        if (element.kind().isDefinition()) {
            head.append(keyword.isEmpty() && !head.isEmpty() ? "def" : " def");
        }
        boolean refers = element.kind().shortKeyword() != null
                && element.get(Property.TARGET).isPresent();
        String called = refers ? " " + target(element, Property.TARGET) : identification(element);
        String rest = called + clauses(element) + value(element) + tail(element);
        return head.append(head.isEmpty() || head.charAt(head.length() - 1) == ' ' ? rest.stripLeading() : rest)
                .toString();
    }

    private String prefixes(Element element) {
        StringBuilder prefixes = new StringBuilder();
        prefixes.append(flag(element, Property.THEN, "then "));
        element.get(Property.ROLE).ifPresent(role -> prefixes.append(role).append(' '));
        prefixes.append(flag(element, Property.VARIANT, "variant "));
        element.get(Property.DIRECTION)
                .ifPresent(direction -> prefixes.append(direction).append(' '));
        prefixes.append(flag(element, Property.DERIVED, "derived "))
                .append(flag(element, Property.ABSTRACT, "abstract "))
                .append(flag(element, Property.VARIATION, "variation "));
        element.get(Property.CONSTANT)
                .ifPresent(constant -> prefixes.append(constant).append(' '));
        prefixes.append(flag(element, Property.END, "end "));
        element.get(Property.CROSS_MULTIPLICITY)
                .ifPresent(multiplicity ->
                        prefixes.append('[').append(multiplicity).append("] "));
        prefixes.append(flag(element, Property.REFERENTIAL, "ref "))
                .append(flag(element, Property.INDIVIDUAL, "individual "));
        element.get(Property.PORTION)
                .ifPresent(portion -> prefixes.append(portion).append(' '));
        return prefixes.append(marks(element)).toString();
    }

    private String marks(Element element) {
        return element.references(Property.MARKS).stream()
                .map(mark -> "#" + mark(element, mark) + " ")
                .collect(Collectors.joining());
    }

    /** Metadata is marked by its short name, if it has one: that is what it has it for. */
    private String mark(Element element, Reference mark) {
        String shortName = model.get(mark.target()).shortName();
        boolean means = shortName != null
                && SpelledNames.of(element).of(mark.target()) == null
                && model.names()
                        .resolve(Name.of(shortName), element.owner())
                        .filter(mark.target()::equals)
                        .isPresent();
        return means ? quoted(shortName) : spelling.reference(element, mark);
    }

    /** The keyword, left away where the prefixes or the ends say enough. */
    private String keyword(Element element) {
        boolean bare = element.name() == null
                && element.shortName() == null
                && clauses(element).isEmpty();
        return switch (element.kind()) {
            case REFERENCE ->
                element.get(Property.DIRECTION).isPresent()
                                || element.get(Property.END).orElse(false)
                                || element.get(Property.VARIANT).orElse(false)
                                || element.get(Property.REFERENTIAL).orElse(false)
                                || !element.references(Property.MARKS).isEmpty()
                        ? ""
                        : "ref";
            case OCCURRENCE, OCCURRENCE_DEFINITION ->
                element.get(Property.INDIVIDUAL).orElse(false)
                                || element.get(Property.PORTION).isPresent()
                        ? ""
                        : "occurrence";
            case CONNECTION, ALLOCATION ->
                bare && hasEnds(element) ? "" : element.kind().keyword();
            case BINDING -> bare ? "bind" : "binding";
            case SUCCESSION -> element.get(Property.SOURCE).isEmpty() || bare ? "" : "succession";
            case ACCEPT, SEND, ASSIGNMENT, TERMINATE, IF, WHILE, FOR -> bare ? "" : "action";
            case ACTION ->
                element.get(Property.ROLE).isPresent()
                                && bare
                                && model.children(element.id()).isEmpty()
                        ? ""
                        : "action";
            case PERFORM ->
                element.get(Property.TARGET).isEmpty()
                        ? "perform action"
                        : element.get(Property.ROLE).isPresent() ? "" : "perform";
            case PAYLOAD -> "";
            case SATISFACTION -> flag(element, Property.NEGATED, "not ") + shortOrLong(element);
            case ASSERTED_CONSTRAINT ->
                element.get(Property.NEGATED).orElse(false)
                        ? element.get(Property.TARGET).isPresent() ? "assert not" : "assert not constraint"
                        : shortOrLong(element);
            default -> shortOrLong(element);
        };
    }

    private static String shortOrLong(Element element) {
        String shortKeyword = element.kind().shortKeyword();
        return shortKeyword != null && element.get(Property.TARGET).isPresent()
                ? shortKeyword
                : element.kind().keyword();
    }

    private boolean hasEnds(Element element) {
        return model.children(element.id()).stream().anyMatch(child -> child.kind() == ElementKind.CONNECTOR_END);
    }

    private String clauses(Element element) {
        StringBuilder clauses = new StringBuilder(multiplicity(element));
        clauses.append(flag(element, Property.ORDERED, " ordered"))
                .append(flag(element, Property.NONUNIQUE, " nonunique"));
        generals(clauses, element, Property.TYPES, " : ");
        generals(clauses, element, Property.SPECIALIZES, " :> ");
        generals(clauses, element, Property.REDEFINES, " :>> ");
        boolean variant = element.get(Property.VARIANT).orElse(false) && element.kind() == ElementKind.REFERENCE;
        generals(clauses, element, Property.REFERS, variant ? "" : " ::> ");
        generals(clauses, element, Property.CROSSES, " => ");
        return clauses.toString();
    }

    private String multiplicity(Element element) {
        return element.get(Property.MULTIPLICITY)
                .map(m -> "[" + m + "]")
                .or(() -> element.get(Property.BOUNDS).map(b -> "[" + spelling.value(element, b) + "]"))
                .orElse("");
    }

    private void generals(StringBuilder into, Element element, Property<List<Reference>> property, String sign) {
        List<Reference> references = element.references(property);
        if (!references.isEmpty()) {
            into.append(sign)
                    .append(joined(references.stream()
                            .map(r -> conjugation(element, property, r) + spelling.general(element, property, r))
                            .toList()));
        }
    }

    private static String conjugation(Element element, Property<?> property, Reference type) {
        boolean conjugated = property == Property.TYPES
                && (element.get(Property.CONJUGATED).orElse(false)
                        || element.references(Property.CONJUGATES).contains(type));
        return conjugated ? "~" : "";
    }

    private String value(Element element) {
        return element.get(Property.VALUE)
                .map(value -> " " + value.kind().sign() + " " + spelling.value(element, value.expression()))
                .orElse("");
    }

    /** What stands behind the declaration and before the body. */
    private String tail(Element element) {
        return switch (element.kind()) {
            case CONNECTION, INTERFACE -> ends(element, "connect ");
            case ALLOCATION -> ends(element, "allocate ");
            case BINDING ->
                (keyword(element).equals("bind") ? " " : " bind ")
                        + count(element, Property.LEFT_MULTIPLICITY) + target(element, Property.LEFT) + " = "
                        + count(element, Property.RIGHT_MULTIPLICITY) + target(element, Property.RIGHT);
            case FLOW, SUCCESSION_FLOW, MESSAGE -> payload(element, " of ") + flowEnds(element);
            case SATISFACTION ->
                element.get(Property.BY)
                        .map(_ -> " by " + target(element, Property.BY))
                        .orElse("");
            case STATE, STATE_DEFINITION, EXHIBIT -> flag(element, Property.PARALLEL, " parallel");
            case SUCCESSION -> succession(element);
            case ACCEPT -> spaced(element) + trigger(element);
            case SEND ->
                spaced(element) + "send" + optional(element, Property.CONTENT, " ")
                        + optional(element, Property.VIA, " via ") + optional(element, Property.RECEIVER, " to ");
            case ASSIGNMENT ->
                spaced(element) + "assign " + target(element, Property.TARGET) + " := "
                        + expression(element, Property.CONTENT);
            case TERMINATE -> spaced(element) + "terminate" + optional(element, Property.CONTENT, " ");
            case IF -> spaced(element) + "if " + expression(element, Property.CONDITION);
            case WHILE ->
                spaced(element)
                        + (element.get(Property.CONDITION).isPresent()
                                ? "while " + expression(element, Property.CONDITION)
                                : "loop");
            case FOR ->
                spaced(element) + "for "
                        + model.children(element.id()).stream()
                                .filter(c -> c.kind() == ElementKind.LOOP_VARIABLE)
                                .findFirst()
                                .map(this::head)
                                .orElse("?")
                        + " in " + expression(element, Property.CONDITION);
            default -> "";
        };
    }

    private static String count(Element element, Property<Multiplicity> property) {
        return element.get(property).map(count -> "[" + count + "] ").orElse("");
    }

    /** A blank behind a declaration, where there is one. */
    private String spaced(Element element) {
        return keyword(element).isEmpty() ? "" : " ";
    }

    private String ends(Element element, String word) {
        List<String> ends = model.children(element.id()).stream()
                .filter(child -> child.kind() == ElementKind.CONNECTOR_END)
                .map(this::end)
                .toList();
        if (ends.isEmpty()) {
            return "";
        }
        String blank = keyword(element).isEmpty() ? "" : " ";
        return blank + word + (ends.size() == 2 ? ends.getFirst() + " to " + ends.getLast() : "(" + joined(ends) + ")");
    }

    private String payload(Element element, String word) {
        return model.children(element.id()).stream()
                .filter(child -> child.kind() == ElementKind.PAYLOAD)
                .findFirst()
                .map(payload -> {
                    boolean named = payload.name() != null || payload.shortName() != null;
                    String text = named
                            ? identification(payload).strip() + clauses(payload) + value(payload)
                            : typed(payload);
                    return text.isEmpty() ? "" : word + text;
                })
                .orElse("");
    }

    /** A payload without a name begins with its type. */
    private String typed(Element payload) {
        List<Reference> types = payload.references(Property.TYPES);
        String more = types.size() <= 1
                ? ""
                : joined(types.stream()
                        .skip(1)
                        .map(r -> spelling.general(payload, Property.TYPES, r))
                        .toList());
        return types.isEmpty()
                ? clauses(payload).strip()
                : spelling.general(payload, Property.TYPES, types.getFirst())
                        + (more.isEmpty() ? "" : " : " + more)
                        + multiplicity(payload)
                        + value(payload);
    }

    private String flowEnds(Element element) {
        if (element.get(Property.SOURCE).isEmpty()) {
            return "";
        }
        boolean bare = identification(element).isEmpty()
                && clauses(element).isEmpty()
                && payload(element, "").isEmpty()
                && element.get(Property.VALUE).isEmpty();
        return (bare ? " " : " from ") + target(element, Property.SOURCE) + " to " + target(element, Property.TARGET);
    }

    private String succession(Element element) {
        String guard = guard(element);
        String then = element.get(Property.TARGET)
                .map(_ -> " then " + target(element, Property.TARGET))
                .orElse("");
        if (element.get(Property.ELSE).orElse(false)) {
            return "else " + target(element, Property.TARGET);
        }
        if (element.get(Property.SOURCE).isEmpty()) {
            return (guard + then).strip();
        }
        return (keyword(element).isEmpty() ? "" : " ") + "first " + target(element, Property.SOURCE) + guard + then;
    }

    private String transition(Element element) {
        boolean accept = element.get(Property.TRIGGER).isPresent();
        boolean source = element.get(Property.SOURCE).isPresent();
        boolean named = element.name() != null
                || element.shortName() != null
                || !clauses(element).isEmpty();
        String start = source ? " first " + target(element, Property.SOURCE) : "";
        String begin = named || source || !accept && element.get(Property.GUARD).isEmpty()
                ? opening(element) + start
                : prefixes(element);
        return (begin + (accept ? " " + trigger(element) : "") + guard(element)).strip();
    }

    /** What stands before the ends of a transition or succession: {@code transition :>> halt}. */
    String opening(Element element) {
        String keyword = element.kind() == ElementKind.TRANSITION ? "transition" : keyword(element);
        return prefixes(element) + keyword + identification(element) + clauses(element);
    }

    /** The condition of a transition or succession, with a blank before; empty without one. */
    String guard(Element element) {
        return optional(element, Property.GUARD, " if ");
    }

    /** Where a transition leads, with the word before it. */
    String target(Element element) {
        return " then " + target(element, Property.TARGET);
    }

    /** Whether a child of a transition is what happens on the way. */
    static boolean isEffect(Element child) {
        return child.get(Property.ROLE).isPresent();
    }

    /** What a transition or accept action waits for: {@code accept Stop via desk}. */
    String trigger(Element element) {
        String via = optional(element, Property.VIA, " via ");
        String trigger = element.get(Property.TRIGGER).orElse("accept");
        return trigger.equals("accept")
                ? "accept" + payload(element, " ") + via
                : "accept " + trigger + " " + expression(element, Property.CONTENT) + via;
    }

    /** The name of a block with its keyword, where it has one. */
    String block(Element block) {
        return identification(block).isEmpty() ? "" : " action" + identification(block);
    }

    private static String identification(Element element) {
        String shortName = element.shortName() == null ? "" : " <" + quoted(element.shortName()) + ">";
        return shortName + (element.name() == null ? "" : " " + quoted(element.name()));
    }

    private static String flag(Element element, Property<Boolean> property, String word) {
        return element.get(property).orElse(false) ? word : "";
    }

    private String list(Element element, Property<List<Reference>> property, String word) {
        List<Reference> references = element.references(property);
        return references.isEmpty()
                ? ""
                : word
                        + joined(references.stream()
                                .map(r -> spelling.reference(element, r))
                                .toList());
    }

    private String target(Element element, Property<Reference> property) {
        return NotationWriter.first(element, property, spelling);
    }

    private String optional(Element element, Property<Expression> property, String word) {
        return element.get(property).map(e -> word + spelling.text(element, e)).orElse("");
    }

    private String expression(Element element, Property<Expression> property) {
        return element.get(property).map(e -> spelling.text(element, e)).orElse("?");
    }
}
