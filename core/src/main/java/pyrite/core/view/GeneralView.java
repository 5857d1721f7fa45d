package pyrite.core.view;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.function.FunctionPaths;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * The General view of a package, definition or usage (SysML 2.0, 9.2.20): boxes with features in compartments, and
 * specialisation, typing, composition and satisfaction between them. An open box shows its parts as boxes of their own,
 * inherited ones included.
 */
public final class GeneralView {
    private static final int MOST_NODES = 500;

    private final Model model;
    private final BoxTexts texts;
    private final List<Element> exposed;
    private final Set<String> open;
    private final Set<String> hidden;
    private final Map<String, Diagram.Node> nodes = new LinkedHashMap<>();
    private final List<Diagram.Edge> edges = new ArrayList<>();
    private final Map<ElementId, String> keys = new HashMap<>();
    private int left;

    private GeneralView(Model model, List<Element> exposed, Set<String> open, Set<String> hidden) {
        this.model = model;
        this.texts = new BoxTexts(model);
        this.exposed = exposed;
        this.open = open;
        this.hidden = hidden;
    }

    /**
     * @param open the keys of the nodes that show their parts as boxes; a definition or usage that stands alone always
     *     does
     */
    public static Diagram of(Model model, ShownView view, Set<String> open) {
        return new GeneralView(model, view.exposed(), open, view.placement().hidden()).build();
    }

    private Diagram build() {
        List<Element> shown = exposed.stream()
                .filter(element -> !hidden.contains(element.id().toString()))
                .toList();
        boolean isAlone = exposed.size() == 1 && !exposed.getFirst().kind().isPackage();
        left = Math.max(0, shown.size() - MOST_NODES);
        shown.stream()
                .limit(MOST_NODES)
                .forEach(element -> keys.put(element.id(), element.id().toString()));
        shown.stream()
                .limit(MOST_NODES)
                .forEach(element -> add(element, element.id().toString(), isAlone));
        Set<ElementId> owners = new LinkedHashSet<>();
        nodes.values().forEach(node -> {
            owners.add(node.element().id());
            if (node.element().owner() != null) {
                owners.add(node.element().owner());
            }
        });
        nodes.values().forEach(this::generalizations);
        owners.forEach(this::relations);
        return new Diagram(List.copyOf(nodes.values()), edges, left);
    }

    private void add(Element element, String key, boolean always) {
        boolean opened = always || open.contains(key);
        List<Element> parts = element.kind().isPackage() ? List.of() : parts(element);
        List<Element> lines = new ArrayList<>();
        List<Element> boxes = new ArrayList<>();
        for (Element part : parts) {
            String type = typeKey(part);
            if (hidden.contains(key + "." + part.id())) {
                continue;
            }
            if (opened && nodes.size() + boxes.size() < MOST_NODES) {
                boxes.add(part);
            } else if (element.kind().isDefinition() && !element.id().equals(part.owner())) {
                // A closed definition shows what it adds; the rest stands in the box it specialises.
                continue;
            } else if (type != null && element.kind().isDefinition()) {
                edges.add(Diagram.Edge.of(key, type, relation(part), texts.label(part), part.id()));
            } else {
                lines.add(part);
            }
        }
        nodes.put(
                key,
                new Diagram.Node(
                        key,
                        "",
                        element,
                        BoxTexts.keyword(element),
                        texts.title(element),
                        texts.compartments(element, lines),
                        List.of(),
                        !parts.isEmpty() && !always,
                        opened,
                        false));
        for (Element part : boxes) {
            String partKey = key + "." + part.id();
            keys.putIfAbsent(part.id(), partKey);
            add(part, partKey, false);
            edges.add(Diagram.Edge.of(key, partKey, relation(part), "", part.id()));
        }
    }

    /**
     * The features that may be boxes: of a definition or usage all it has, own ones first. A function path is drawn by
     * what it leads through.
     */
    private List<Element> parts(Element element) {
        return model.inheritance().features(element).stream()
                .filter(feature -> feature.kind().isUsage()
                        && feature.kind().hasBox()
                        && !model.isLibrary(feature.id())
                        && !FunctionPaths.isPath(model, feature))
                .toList();
    }

    private @Nullable String typeKey(Element feature) {
        Element type = texts.type(feature);
        return type == null ? null : keys.get(type.id());
    }

    private Diagram.Relation relation(Element feature) {
        return feature.get(Property.REFERENTIAL).orElse(false)
                ? Diagram.Relation.REFERENCE
                : Diagram.Relation.COMPOSITION;
    }

    private void generalizations(Diagram.Node node) {
        boolean isUsage = node.element().kind().isUsage();
        generalizations(
                node, Property.SPECIALIZES, isUsage ? Diagram.Relation.SUBSETTING : Diagram.Relation.SPECIALIZATION);
        generalizations(node, Property.TYPES, Diagram.Relation.TYPING);
        generalizations(node, Property.REDEFINES, Diagram.Relation.REDEFINITION);
    }

    private void generalizations(Diagram.Node node, Property<List<Reference>> property, Diagram.Relation relation) {
        node.element()
                .references(property)
                .forEach(reference -> edge(node.key(), keys.get(reference.target()), relation, "", null));
    }

    /** Relations that stand among the members of a shown element and join two that are shown. */
    private void relations(ElementId owner) {
        for (Element member : model.children(owner)) {
            if (member.kind() == ElementKind.SATISFACTION) {
                @Nullable
                String by = member.get(Property.BY)
                        .map(reference -> keys.get(reference.target()))
                        .orElse(keys.get(owner));
                edge(
                        by,
                        member.get(Property.TARGET)
                                .map(reference -> keys.get(reference.target()))
                                .orElse(null),
                        Diagram.Relation.SATISFACTION,
                        "«satisfy»",
                        member.id());
            } else if (member.kind() == ElementKind.DEPENDENCY) {
                member.references(Property.CLIENTS)
                        .forEach(client -> member.references(Property.SUPPLIERS)
                                .forEach(supplier -> edge(
                                        keys.get(client.target()),
                                        keys.get(supplier.target()),
                                        Diagram.Relation.DEPENDENCY,
                                        "«dependency»",
                                        member.id())));
            }
        }
    }

    private void edge(
            @Nullable String from,
            @Nullable String to,
            Diagram.Relation relation,
            String label,
            @Nullable ElementId element) {
        if (from != null && to != null && !from.equals(to)) {
            edges.add(Diagram.Edge.of(from, to, relation, label, element));
        }
    }
}
