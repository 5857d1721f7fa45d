package pyrite.core.notation;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.ExpressionText;
import pyrite.core.expression.Name;
import pyrite.core.expression.Referent;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Names;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * Writes elements in canonical text: four blanks a level, one declaration a line, names as short as they can be where
 * they stand. Reading it back gives the same model.
 */
public final class NotationWriter {
    private static final String STEP = "    ";
    private static final int LINE = 110;

    private final Model model;
    private final Names names;
    private final StringBuilder out = new StringBuilder();

    private NotationWriter(Model model) {
        this.model = model;
        this.names = model.names();
    }

    /** The text of elements with all they own. */
    public static String write(Model model, Collection<Element> elements) {
        NotationWriter writer = new NotationWriter(model);
        for (Element element : elements) {
            if (!writer.out.isEmpty()) {
                writer.out.append('\n');
            }
            writer.element(element, "");
        }
        return writer.out.toString();
    }

    /** An expression as it would be written in {@code scope}. */
    public static String expression(Model model, Expression expression, @Nullable ElementId scope) {
        return new NotationWriter(model).text(expression, scope);
    }

    /** An element's declaration without its body: {@code part gate : SurgeGate}. */
    public static String head(Model model, Element element) {
        return new NotationWriter(model).head(element);
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
        out.append(indent).append(visibility(element));
        switch (element.kind()) {
            case DOCUMENTATION, COMMENT -> out.append(annotation(element, indent));
            case IMPORT -> out.append("import ").append(imported(element)).append(reach(element)).append(';');
            case BINDING -> out.append("bind ").append(target(element, Property.LEFT)).append(" = ")
                    .append(target(element, Property.RIGHT)).append(';');
            case SATISFACTION -> out.append("satisfy ").append(target(element, Property.TARGET))
                    .append(element.get(Property.BY).map(_ -> " by " + target(element, Property.BY)).orElse("")).append(';');
            case VERIFIED_REQUIREMENT -> out.append("verify ").append(target(element, Property.TARGET)).append(';');
            default -> {
                out.append(head(element));
                body(element, indent, children);
            }
        }
        trailing(element, indent);
    }

    private void trailing(Element element, String indent) {
        List<String> notes = element.get(Property.TRAILING_NOTE).map(n -> n.lines().toList()).orElse(List.of());
        out.append(notes.isEmpty() ? "" : "  " + note(notes.getFirst())).append('\n');
        notes.stream().skip(1).forEach(line -> line(indent, note(line)));
    }

    private static String note(String line) {
        return line.isEmpty() ? "//" : "// " + line;
    }

    private void line(String indent, String text) {
        out.append(indent).append(text).append('\n');
    }

    private static String visibility(Element element) {
        return element.get(Property.VISIBILITY).map(v -> v + " ").orElse("");
    }

    private String annotation(Element element, String indent) {
        String keyword = element.kind() == ElementKind.COMMENT && element.name() == null && element.shortName() == null
                ? "" : element.kind().keyword() + identification(element) + " ";
        return keyword + BlockText.write(element.get(Property.TEXT).orElse(""), indent);
    }

    /** The name as it is found without the imports beside it. */
    private String imported(Element element) {
        ElementId around = element.owner() == null ? null : model.get(element.owner()).owner();
        return element.get(Property.TARGET).map(reference -> name(reference.target(), around)).orElse("?");
    }

    private static String reach(Element element) {
        return switch (element.get(Property.REACH).orElse("one")) {
            case "members" -> "::*";
            case "all" -> "::**";
            default -> "";
        };
    }

    private String head(Element element) {
        StringBuilder head = new StringBuilder();
        if (element.get(Property.ABSTRACT).orElse(false)) {
            head.append("abstract ");
        }
        element.get(Property.DIRECTION).ifPresent(direction -> head.append(direction).append(' '));
        head.append(keyword(element));
        if (element.kind().isDefinition()) {
            head.append(" def");
        }
        head.append(keyword(element).isEmpty() ? identification(element).stripLeading() : identification(element));
        element.get(Property.MULTIPLICITY).ifPresent(m -> head.append('[').append(m).append(']'));
        references(head, element, Property.TYPES, " : ");
        references(head, element, Property.SPECIALIZES, " :> ");
        references(head, element, Property.REDEFINES, " :>> ");
        element.get(Property.VALUE).ifPresent(value -> head.append(' ').append(value.kind().sign()).append(' ')
                .append(text(value.expression(), names.valueScope(element))));
        return head.toString().strip();
    }

    /** A parameter needs no keyword, and neither does a reference that only redefines. */
    private static String keyword(Element element) {
        boolean plain = element.kind() == ElementKind.REFERENCE && element.get(Property.DIRECTION).isPresent();
        return plain ? "" : element.kind().keyword();
    }

    private static String identification(Element element) {
        String shortName = element.shortName() == null ? "" : " <" + Name.quoted(element.shortName()) + ">";
        return shortName + (element.name() == null ? "" : " " + Name.quoted(element.name()));
    }

    private void references(StringBuilder head, Element element, Property<List<Reference>> property, String sign) {
        List<Reference> references = element.references(property);
        if (!references.isEmpty()) {
            head.append(sign).append(references.stream().map(r -> general(element, property, r))
                    .collect(Collectors.joining(", ")));
        }
    }

    private String general(Element element, Property<?> property, Reference reference) {
        Element target = model.get(reference.target());
        String name = names.effectiveName(target);
        boolean inherited = property == Property.REDEFINES && element.owner() != null && name != null
                && names.resolveInherited(Name.of(name), element.owner()).filter(target.id()::equals).isPresent();
        return inherited ? Name.quoted(name) : reference(reference, element.owner());
    }

    private void body(Element element, String indent, List<Element> children) {
        Optional<Expression> result = element.get(Property.RESULT);
        if (children.isEmpty() && result.isEmpty()) {
            out.append(';');
            return;
        }
        String only = result.map(r -> text(r, element.id())).orElse("");
        if (children.isEmpty() && indent.length() + head(element).length() + only.length() + 5 <= LINE) {
            out.append(" { ").append(only).append(" }");
            return;
        }
        out.append(" {\n");
        members(children, indent + STEP);
        result.ifPresent(_ -> line(indent + STEP, only));
        out.append(indent).append('}');
    }

    /** Members one below the other, with an empty line around each that takes several and behind the imports. */
    private void members(List<Element> members, String indent) {
        int before = -1;
        for (int i = 0; i < members.size(); i++) {
            int start = out.length();
            element(members.get(i), indent);
            int lines = (int) out.substring(start).lines().count();
            boolean importsEnd = i > 0 && members.get(i - 1).kind() == ElementKind.IMPORT
                    && members.get(i).kind() != ElementKind.IMPORT;
            if (before > 0 && (lines > 1 || before > 1 || importsEnd)) {
                out.insert(start, '\n');
            }
            before = lines;
        }
    }

    private String target(Element element, Property<Reference> property) {
        return element.get(property).map(reference -> reference(reference, element.owner())).orElse("?");
    }

    private String reference(Reference reference, @Nullable ElementId scope) {
        return chain(reference.chain(), scope);
    }

    private String chain(List<? extends Referent> chain, @Nullable ElementId scope) {
        return name(chain.getFirst(), scope) + chain.stream().skip(1).map(step -> "." + step(step)).collect(Collectors.joining());
    }

    private String name(Referent referent, @Nullable ElementId scope) {
        return referent instanceof ElementId id
                ? names.shortest(model.get(id), scope).map(Name::toString).orElse(names.qualifiedName(model.get(id)))
                : referent.toString();
    }

    private String step(Referent referent) {
        String name = referent instanceof ElementId id ? names.effectiveName(model.get(id)) : ((Name) referent).last();
        return Name.quoted(name == null ? "?" : name);
    }

    private String text(Expression expression, @Nullable ElementId scope) {
        return ExpressionText.of(expression, new ExpressionText.Naming() {
            @Override
            public String chain(FeatureReference reference) {
                return NotationWriter.this.chain(reference.chain(), scope);
            }

            @Override
            public String name(String prefix, Referent referent) {
                return unitOrFunction(prefix, referent, scope);
            }
        });
    }

    /** Units go by their symbol where that means them, everything else by its shortest name. */
    private String unitOrFunction(String prefix, Referent referent, @Nullable ElementId scope) {
        if (referent instanceof ElementId id && model.get(id).shortName() instanceof String symbol) {
            boolean clear = !prefix.isEmpty()
                    || names.resolve(Name.of(symbol), scope).filter(id::equals).isPresent();
            if (clear) {
                return Name.quoted(prefix + symbol);
            }
        }
        return name(referent, scope);
    }
}
