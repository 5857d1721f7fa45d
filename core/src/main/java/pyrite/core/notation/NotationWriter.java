package pyrite.core.notation;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Name;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * Writes elements in canonical text: indented by four spaces, one declaration per line, each name as short as it can be
 * at its place. Reading the text gives the same model.
 */
public final class NotationWriter {
    private static final String STEP = "    ";
    private static final int LINE = 110;

    private final Model model;
    private final Spelling spelling;
    private final StringBuilder out = new StringBuilder();

    private NotationWriter(Model model) {
        this.model = model;
        this.spelling = new Spelling(model);
    }

    /** The text of elements with all they own. */
    public static String write(Model model, Collection<Element> elements) {
        NotationWriter writer = new NotationWriter(model);
        writer.members(List.copyOf(elements), "");
        return writer.out.toString();
    }

    /** An expression as it would be written in {@code scope}. */
    public static String expression(Model model, Expression expression, @Nullable ElementId scope) {
        return new Spelling(model).text(expression, scope);
    }

    /** An element's declaration without its body: {@code part gate : SurgeGate}. */
    public static String head(Model model, Element element) {
        if (element.kind() == ElementKind.TRANSITION) {
            NotationWriter writer = new NotationWriter(model);
            writer.transition(
                    element,
                    "",
                    model.children(element.id()).stream()
                            .filter(HeadWriter::isEffect)
                            .toList(),
                    new HeadWriter(model, writer.spelling));
            return writer.out.substring(0, writer.out.length() - 1);
        }
        return new HeadWriter(model, new Spelling(model)).head(element);
    }

    /** What stands before the ends of a transition or succession: {@code transition :>> halt}; may be empty. */
    public static String opening(Model model, Element element) {
        return new HeadWriter(model, new Spelling(model)).opening(element).strip();
    }

    /**
     * What a transition says between its ends: {@code accept Stop if x > 0 do assign x := 0}.
     *
     * @param accepting the element whose trigger it has, itself or what it redefines
     * @param guarded the same of its condition
     * @param effect what it does on the way
     */
    public static String betweenEnds(
            Model model, @Nullable Element accepting, @Nullable Element guarded, @Nullable Element effect) {
        NotationWriter writer = new NotationWriter(model);
        HeadWriter heads = new HeadWriter(model, writer.spelling);
        writer.out.append(accepting == null ? "" : heads.trigger(accepting));
        writer.out.append(guarded == null ? "" : heads.guard(guarded));
        if (effect != null) {
            writer.effect(effect, "", heads);
        }
        return writer.out.toString().strip();
    }

    /** An element with its own text and expression, but without the members it owns. */
    public static String declaration(Model model, Element element) {
        NotationWriter writer = new NotationWriter(model);
        writer.declaration(element, "", List.of());
        return writer.out.toString().strip();
    }

    private void element(Element element, String indent) {
        declaration(element, indent, model.children(element.id()));
    }

    private void declaration(Element element, String indent, List<Element> children) {
        element.get(Property.NOTES).ifPresent(notes -> notes.lines().forEach(line -> line(indent, note(line))));
        out.append(indent)
                .append(element.get(Property.VISIBILITY).map(v -> v + " ").orElse(""));
        written(element, indent, children);
        trailing(element, indent);
    }

    /** The declaration with its body, its end included, without the notes around it. */
    private void written(Element element, String indent, List<Element> children) {
        HeadWriter heads = new HeadWriter(model, spelling);
        switch (element.kind()) {
            case DOCUMENTATION, COMMENT, REPRESENTATION ->
                out.append(heads.annotation(element))
                        .append(BlockText.write(element.get(Property.TEXT).orElse(""), indent));
            case FILTER -> out.append(heads.head(element)).append(';');
            case IF, WHILE, FOR -> branches(element, indent, children, heads);
            case TRANSITION -> transition(element, indent, children, heads);
            default -> {
                out.append(heads.head(element));
                body(
                        element,
                        indent,
                        children.stream()
                                .filter(child -> !child.kind().standsInHead())
                                .toList());
            }
        }
    }

    private void trailing(Element element, String indent) {
        List<String> notes =
                element.get(Property.TRAILING_NOTE).map(n -> n.lines().toList()).orElse(List.of());
        out.append(notes.isEmpty() ? "" : "  " + note(notes.getFirst())).append('\n');
        notes.stream().skip(1).forEach(line -> line(indent, note(line)));
    }

    private static String note(String line) {
        return line.isEmpty() ? "//" : "// " + line;
    }

    private void line(String indent, String text) {
        out.append(indent).append(text).append('\n');
    }

    private void body(Element element, String indent, List<Element> children) {
        Optional<Expression> result = element.get(Property.RESULT);
        if (children.isEmpty() && result.isEmpty()) {
            out.append(';');
            return;
        }
        String only = result.map(r -> spelling.text(element, r)).orElse("");
        int used = out.length() - out.lastIndexOf("\n") - 1;
        if (children.isEmpty() && used + only.length() + 5 <= LINE) {
            out.append(" { ").append(only).append(" }");
            return;
        }
        block(indent, children, only);
    }

    private void block(String indent, List<Element> children, String result) {
        out.append(" {\n");
        members(children, indent + STEP);
        if (!result.isEmpty()) {
            line(indent + STEP, result);
        }
        out.append(indent).append('}');
    }

    /** Members one below the other, with an empty line around each that takes several and behind the imports. */
    private void members(List<Element> members, String indent) {
        int before = -1;
        for (int i = 0; i < members.size(); i++) {
            int start = out.length();
            element(members.get(i), indent);
            int lines = lines(start);
            boolean importsEnd = i > 0
                    && members.get(i - 1).kind() == ElementKind.IMPORT
                    && members.get(i).kind() != ElementKind.IMPORT;
            if (before > 0 && (lines > 1 || before > 1 || importsEnd)) {
                out.insert(start, '\n');
            }
            before = lines;
        }
    }

    private int lines(int from) {
        int lines = 0;
        for (int i = from; i < out.length(); i++) {
            lines += out.charAt(i) == '\n' ? 1 : 0;
        }
        return lines;
    }

    /** {@code if condition { … } else { … }} and the loops: their blocks stand one behind the other. */
    private void branches(Element element, String indent, List<Element> children, HeadWriter heads) {
        out.append(heads.head(element));
        boolean first = true;
        for (Element child : children) {
            if (child.kind() == ElementKind.BLOCK) {
                out.append(first ? "" : " else").append(heads.block(child));
                block(indent, model.children(child.id()), "");
                first = false;
            } else if (child.kind() == ElementKind.IF) {
                out.append(" else ");
                branches(child, indent, model.children(child.id()), heads);
            }
        }
        element.get(Property.UNTIL)
                .ifPresent(until -> out.append(" until ")
                        .append(spelling.text(element, until))
                        .append(';'));
    }

    /** {@code transition … do effect then target}: the effect may have a body of its own. */
    private void transition(Element element, String indent, List<Element> children, HeadWriter heads) {
        out.append(heads.head(element));
        List<Element> effects = children.stream().filter(HeadWriter::isEffect).toList();
        effects.forEach(effect -> effect(effect, indent, heads));
        out.append(heads.target(element));
        body(
                element,
                indent,
                children.stream()
                        .filter(child -> !child.kind().standsInHead() && !effects.contains(child))
                        .toList());
    }

    private void effect(Element effect, String indent, HeadWriter heads) {
        boolean isApart = out.isEmpty() || out.charAt(out.length() - 1) == ' ';
        out.append(isApart ? "" : " ").append(heads.head(effect));
        List<Element> inside = model.children(effect.id()).stream()
                .filter(child -> !child.kind().standsInHead())
                .toList();
        if (!inside.isEmpty()) {
            block(indent, inside, "");
        }
    }

    static String joined(Collection<String> parts) {
        return parts.stream().collect(Collectors.joining(", "));
    }

    static String quoted(@Nullable String name) {
        return name == null ? "" : Name.quoted(name);
    }

    static String first(Element element, Property<Reference> property, Spelling spelling) {
        return element.get(property)
                .map(reference -> spelling.reference(element, reference))
                .orElse("?");
    }
}
