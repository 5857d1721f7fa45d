package pyrite.core.view;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.notation.NotationWriter;

/**
 * The General view of a package, definition or usage (SysML 2.0, 9.2.20): boxes with features in compartments, and
 * specialisation, typing, composition and satisfaction between them. An open box shows its parts as boxes of their own,
 * inherited ones included.
 */
public final class GeneralView {
    private static final int MOST_NODES = 120;
    private static final int MOST_LINES = 9;
    private static final int LONGEST_TEXT = 150;
    private final Model model;
    private final Element root;
    private final Set<String> open;
    private final Map<String, Diagram.Node> nodes = new LinkedHashMap<>();
    private final List<Diagram.Edge> edges = new ArrayList<>();
    private final Map<ElementId, String> keys = new HashMap<>();
    private int left;

    private GeneralView(Model model, Element root, Set<String> open) {
        this.model = model;
        this.root = root;
        this.open = open;
    }

    /**
     * @param open the keys of the nodes that show their parts as boxes; a definition or usage at the root always does
     */
    public static Diagram of(Model model, Element root, Set<String> open) {
        return new GeneralView(model, root, open).build();
    }

    private Diagram build() {
        if (root.kind().isPackage()) {
            List<Element> shown =
                    model.children(root.id()).stream().filter(this::isTopBox).toList();
            left = Math.max(0, shown.size() - MOST_NODES);
            shown.stream()
                    .limit(MOST_NODES)
                    .forEach(element -> keys.put(element.id(), element.id().toString()));
            shown.stream()
                    .limit(MOST_NODES)
                    .forEach(element -> add(element, element.id().toString(), false));
        } else {
            keys.put(root.id(), root.id().toString());
            add(root, root.id().toString(), true);
        }
        Set<Element> owners = new LinkedHashSet<>(List.of(root));
        nodes.values().forEach(node -> owners.add(node.element()));
        nodes.values().forEach(this::generalizations);
        owners.forEach(this::relations);
        return new Diagram(List.copyOf(nodes.values()), edges, left);
    }

    private boolean isTopBox(Element element) {
        return element.kind().hasBox();
    }

    private void add(Element element, String key, boolean always) {
        boolean opened = always || open.contains(key);
        List<Element> parts = element.kind().isPackage() ? List.of() : parts(element);
        List<Element> lines = new ArrayList<>();
        List<Element> boxes = new ArrayList<>();
        for (Element part : parts) {
            String type = typeKey(part);
            if (opened && nodes.size() + boxes.size() < MOST_NODES) {
                boxes.add(part);
            } else if (element.kind().isDefinition() && !element.id().equals(part.owner())) {
                // A closed definition shows what it adds; the rest stands in the box it specialises.
                continue;
            } else if (type != null && element.kind().isDefinition()) {
                edges.add(new Diagram.Edge(key, type, relation(part), label(part)));
            } else {
                lines.add(part);
            }
        }
        nodes.put(
                key,
                new Diagram.Node(
                        key,
                        element,
                        keyword(element),
                        title(element),
                        compartments(element, lines),
                        !parts.isEmpty() && !always,
                        opened));
        for (Element part : boxes) {
            String partKey = key + "." + part.id();
            keys.putIfAbsent(part.id(), partKey);
            add(part, partKey, false);
            edges.add(new Diagram.Edge(key, partKey, relation(part), ""));
        }
    }

    /** The features that may be boxes: of a definition or usage all it has, own ones first. */
    private List<Element> parts(Element element) {
        return model.inheritance().features(element).stream()
                .filter(feature ->
                        feature.kind().isUsage() && feature.kind().hasBox() && !model.isLibrary(feature.id()))
                .toList();
    }

    private @Nullable String typeKey(Element feature) {
        return type(feature) == null
                ? null
                : keys.get(Objects.requireNonNull(type(feature)).id());
    }

    private @Nullable Element type(Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(general -> general.kind().isDefinition())
                .findFirst()
                .orElse(null);
    }

    private Diagram.Relation relation(Element feature) {
        return feature.get(Property.REFERENTIAL).orElse(false)
                ? Diagram.Relation.REFERENCE
                : Diagram.Relation.COMPOSITION;
    }

    private String label(Element feature) {
        Multiplicity multiplicity = model.inheritance().multiplicity(feature);
        return name(feature) + (multiplicity.equals(Multiplicity.ONE) ? "" : " [" + multiplicity + "]");
    }

    private String title(Element element) {
        String id = element.shortName() == null ? "" : "<" + element.shortName() + "> ";
        Element type = element.kind().isUsage() ? type(element) : null;
        return id
                + (element.kind().isUsage() ? label(element) : name(element))
                + (type == null || model.isLibrary(type.id()) ? "" : " : " + name(type));
    }

    private static String keyword(Element element) {
        String prefix = element.get(Property.ABSTRACT).orElse(false)
                ? "abstract "
                : element.get(Property.VARIATION).orElse(false) ? "variation " : "";
        return prefix + element.kind().keyword() + (element.kind().isDefinition() ? " def" : "");
    }

    private String name(Element element) {
        return Objects.requireNonNullElseGet(
                model.names().effectiveName(element), () -> "‹" + element.kind().title() + "›");
    }

    private List<Diagram.Compartment> compartments(Element element, List<Element> parts) {
        Map<String, List<Diagram.Line>> lines = new LinkedHashMap<>();
        if (element.kind().isPackage()) {
            int count = (int)
                    model.children(element.id()).stream().filter(this::isTopBox).count();
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
        String head = NotationWriter.head(model, member);
        String keyword = member.kind().keyword() + " ";
        return head.startsWith(keyword) ? head.substring(keyword.length()) : head;
    }

    /** A text in lines of some forty characters, the first few of it. */
    private static List<String> paragraph(String text) {
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

    private void generalizations(Diagram.Node node) {
        for (var reference : node.element().references(Property.SPECIALIZES)) {
            edge(node.key(), keys.get(reference.target()), Diagram.Relation.SPECIALIZATION, "");
        }
        for (var reference : node.element().references(Property.TYPES)) {
            edge(node.key(), keys.get(reference.target()), Diagram.Relation.TYPING, "");
        }
    }

    /** Relations that stand among the members of a shown element and join two that are shown. */
    private void relations(Element owner) {
        for (Element member : model.children(owner.id())) {
            if (member.kind() == ElementKind.SATISFACTION) {
                @Nullable
                String by = member.get(Property.BY)
                        .map(reference -> keys.get(reference.target()))
                        .orElse(keys.get(owner.id()));
                edge(
                        by,
                        member.get(Property.TARGET)
                                .map(reference -> keys.get(reference.target()))
                                .orElse(null),
                        Diagram.Relation.SATISFACTION,
                        "«satisfy»");
            } else if (member.kind() == ElementKind.DEPENDENCY) {
                member.references(Property.CLIENTS)
                        .forEach(client -> member.references(Property.SUPPLIERS)
                                .forEach(supplier -> edge(
                                        keys.get(client.target()),
                                        keys.get(supplier.target()),
                                        Diagram.Relation.DEPENDENCY,
                                        "«dependency»")));
            }
        }
    }

    private void edge(@Nullable String from, @Nullable String to, Diagram.Relation relation, String label) {
        if (from != null && to != null && !from.equals(to)) {
            edges.add(new Diagram.Edge(from, to, relation, label));
        }
    }
}
