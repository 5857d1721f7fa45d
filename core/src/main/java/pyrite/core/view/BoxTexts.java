package pyrite.core.view;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.notation.NotationWriter;
import pyrite.core.structure.PortFace;

/** The texts in and on a box of a diagram: keyword, title, compartments and the names of its ports. */
final class BoxTexts {
    private static final int MOST_LINES = 9;
    private static final int LONGEST_TEXT = 150;

    private final Model model;

    BoxTexts(Model model) {
        this.model = model;
    }

    static String keyword(Element element) {
        String prefix = element.get(Property.ABSTRACT).orElse(false)
                ? "abstract "
                : element.get(Property.VARIATION).orElse(false) ? "variation " : "";
        String ref = element.kind() == ElementKind.PART
                        && element.get(Property.REFERENTIAL).orElse(false)
                ? "ref "
                : "";
        return prefix + ref + element.kind().keyword() + (element.kind().isDefinition() ? " def" : "");
    }

    String title(Element element) {
        String id = element.shortName() == null ? "" : "<" + element.shortName() + "> ";
        Element type = element.kind().isUsage() ? type(element) : null;
        return id
                + (element.kind().isUsage() ? label(element) : name(element))
                + (type == null || model.isLibrary(type.id()) ? "" : " : " + name(type));
    }

    /** The name of a usage with its multiplicity. */
    String label(Element feature) {
        Multiplicity multiplicity = model.inheritance().multiplicity(feature);
        return name(feature) + (multiplicity.equals(Multiplicity.ONE) ? "" : " [" + multiplicity + "]");
    }

    String name(Element element) {
        return model.names().nameOrKind(element);
    }

    /** The first definition a usage is typed by; null if there is none. */
    @Nullable
    Element type(Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(general -> general.kind().isDefinition())
                .findFirst()
                .orElse(null);
    }

    /** @param parts features that have no boxes of their own and are listed as parts */
    List<Diagram.Compartment> compartments(Element element, List<Element> parts) {
        Map<String, List<Diagram.Line>> lines = new LinkedHashMap<>();
        if (element.kind().isPackage()) {
            int count = (int) model.children(element.id()).stream()
                    .filter(child -> child.kind().hasBox())
                    .count();
            return List.of(new Diagram.Compartment(
                    "", List.of(new Diagram.Line(element.id(), count + (count == 1 ? " member" : " members"), true))));
        }
        if (element.kind().family() == ElementKind.Family.REQUIREMENT) {
            paragraph(model.inheritance().documentation(element))
                    .forEach(line -> lines.computeIfAbsent("", _ -> new ArrayList<>())
                            .add(new Diagram.Line(element.id(), line, true)));
        }
        for (Element member : model.children(element.id())) {
            String title = member.kind().compartment();
            if (title != null) {
                lines.computeIfAbsent(title, _ -> new ArrayList<>())
                        .add(new Diagram.Line(member.id(), line(member), false));
            }
        }
        parts.forEach(part -> lines.computeIfAbsent("parts", _ -> new ArrayList<>())
                .add(new Diagram.Line(part.id(), title(part), false)));
        return lines.entrySet().stream()
                .map(entry -> new Diagram.Compartment(entry.getKey(), shortened(entry.getValue(), element)))
                .toList();
    }

    /** The first lines, and how many more there are. */
    private static List<Diagram.Line> shortened(List<Diagram.Line> lines, Element owner) {
        if (lines.size() <= MOST_LINES) {
            return lines;
        }
        List<Diagram.Line> all = new ArrayList<>(lines.subList(0, MOST_LINES - 1));
        all.add(new Diagram.Line(owner.id(), "and " + (lines.size() - MOST_LINES + 1) + " more", true));
        return all;
    }

    private String line(Element member) {
        String result = member.get(Property.RESULT)
                .map(expression -> NotationWriter.expression(model, expression, member.id()))
                .orElse(null);
        if (result != null) {
            return member.name() == null ? result : member.name() + " { " + result + " }";
        }
        return declaration(member);
    }

    /** A usage as in the notation, without its keyword. */
    private String declaration(Element usage) {
        String head = NotationWriter.head(model, usage);
        String keyword = usage.kind().keyword() + " ";
        return head.startsWith(keyword) ? head.substring(keyword.length()) : head;
    }

    /** A text in lines of some forty characters, the first few of it. */
    static List<String> paragraph(String text) {
        String rest = text.replaceAll("\\s+", " ").strip();
        rest = rest.length() > LONGEST_TEXT ? rest.substring(0, LONGEST_TEXT) + "…" : rest;
        List<String> lines = new ArrayList<>();
        StringBuilder line = new StringBuilder();
        for (String word : rest.split(" ")) {
            if (!line.isEmpty() && line.length() + word.length() > 42) {
                lines.add(line.toString());
                line.setLength(0);
            }
            line.append(line.isEmpty() ? "" : " ").append(word);
        }
        if (!line.isEmpty()) {
            lines.add(line.toString());
        }
        return lines;
    }

    /** The ports of a box, own ones first. */
    List<Diagram.Port> ports(String key, Element element) {
        return model.inheritance().features(element).stream()
                .filter(feature -> feature.kind() == ElementKind.PORT && !model.isLibrary(feature.id()))
                .map(port -> new Diagram.Port(
                        key + "." + port.id(),
                        port,
                        label(port),
                        declaration(port),
                        PortFace.of(model, port).way()))
                .toList();
    }
}
