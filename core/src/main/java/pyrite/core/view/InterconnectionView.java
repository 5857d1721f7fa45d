package pyrite.core.view;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.BiPredicate;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Referent;
import pyrite.core.function.FunctionPaths;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Reference;
import pyrite.core.structure.ConnectorEnds;
import pyrite.core.structure.Fit;
import pyrite.core.structure.InterfaceTable;

/**
 * The Interconnection view of a part (SysML 2.0, 9.2.20): its parts within it, with their ports, and the connections,
 * interfaces, bindings and flows between them. An open part shows its own inside in the same way.
 */
public final class InterconnectionView {
    private static final int MOST_NODES = 500;
    private static final int DEEPEST = 12;
    /** What stands as a box inside another. */
    private static final Set<ElementKind> INNER =
            EnumSet.of(ElementKind.PART, ElementKind.ITEM, ElementKind.OCCURRENCE);

    private final Model model;
    private final BoxTexts texts;
    private final Set<String> open;
    private final Set<String> hidden;
    private final BiPredicate<Element, Element> isShown;
    private final Map<String, Diagram.Node> nodes = new LinkedHashMap<>();
    private final Map<String, Diagram.Port> ports = new HashMap<>();
    private final List<Diagram.Edge> edges = new ArrayList<>();
    private int left;

    private InterconnectionView(
            Model model, Set<String> open, Set<String> hidden, BiPredicate<Element, Element> isShown) {
        this.model = model;
        this.isShown = isShown;
        this.texts = new BoxTexts(model);
        this.open = open;
        this.hidden = hidden;
    }

    /** @param open the keys of the parts that show their inside; what stands at the top always does */
    public static Diagram of(Model model, ShownView view, Set<String> open) {
        return of(model, view, open, (_, _) -> true);
    }

    /** @param isShown whether a whole shows one of its parts */
    static Diagram of(Model model, ShownView view, Set<String> open, BiPredicate<Element, Element> isShown) {
        return new InterconnectionView(model, open, view.placement().hidden(), isShown).build(view.exposed());
    }

    private Diagram build(List<Element> exposed) {
        for (Element element : exposed) {
            String key = element.id().toString();
            if (!hidden.contains(key)) {
                add(key, "", element, true, 0);
            }
        }
        nodes.values().stream().filter(Diagram.Node::open).forEach(this::connections);
        unite();
        return new Diagram(List.copyOf(nodes.values()), edges, left);
    }

    private void add(String key, String parent, Element element, boolean isOpen, int depth) {
        List<Element> inside = inside(element);
        List<Diagram.Port> shown = texts.ports(key, element).stream()
                .filter(port -> !hidden.contains(port.key()))
                .toList();
        shown.forEach(port -> ports.put(port.key(), port));
        boolean opened = isOpen && !inside.isEmpty() && depth < DEEPEST;
        nodes.put(
                key,
                new Diagram.Node(
                        key,
                        parent,
                        element,
                        BoxTexts.keyword(element),
                        texts.title(element),
                        List.of(),
                        shown,
                        !inside.isEmpty() && !parent.isEmpty(),
                        opened,
                        isInherited(parent, element)));
        if (!opened) {
            return;
        }
        for (Element part : inside) {
            String partKey = key + "." + part.id();
            if (hidden.contains(partKey)) {
                continue;
            }
            if (nodes.size() >= MOST_NODES) {
                left++;
                continue;
            }
            add(partKey, key, part, open.contains(partKey), depth + 1);
        }
    }

    /** Whether the box around it has it from a definition and not of its own. */
    private boolean isInherited(String parent, Element element) {
        Diagram.Node around = nodes.get(parent);
        return around != null && !around.element().id().equals(element.owner());
    }

    private List<Element> inside(Element element) {
        return model.inheritance().features(element).stream()
                .filter(feature -> INNER.contains(feature.kind())
                        && !model.isLibrary(feature.id())
                        && !FunctionPaths.isPath(model, feature)
                        && model.inheritance().multiplicity(feature).upper() != 0)
                .filter(feature -> isShown.test(element, feature))
                .toList();
    }

    private void connections(Diagram.Node holder) {
        Stream.concat(
                        model.inheritance().features(holder.element()).stream(),
                        model.inheritance().generals(holder.element()).stream()
                                .flatMap(general -> model.children(general.id()).stream())
                                .filter(child -> child.kind() == ElementKind.BINDING))
                .distinct()
                .forEach(member -> connection(holder, member));
    }

    private void connection(Diagram.Node holder, Element member) {
        Diagram.Relation relation = relation(member.kind());
        List<Reference> targets = ConnectorEnds.of(model, member);
        if (relation == null || targets.size() != 2) {
            return;
        }
        End one = end(holder, targets.getFirst());
        End other = end(holder, targets.getLast());
        if (one == null || other == null || one.key().equals(other.key())) {
            return;
        }
        String problem =
                Fit.of(model, member).stream().map(Fit.Misfit::sentence).collect(Collectors.joining("; "));
        edges.add(Diagram.Edge.of(one.key(), other.key(), relation, label(member, one, other), member.id())
                .withProblem(problem));
    }

    private static Diagram.@Nullable Relation relation(ElementKind kind) {
        return switch (kind) {
            case CONNECTION -> Diagram.Relation.CONNECTION;
            case INTERFACE -> Diagram.Relation.INTERFACE;
            case BINDING -> Diagram.Relation.BINDING;
            case FLOW, SUCCESSION_FLOW -> Diagram.Relation.FLOW;
            default -> null;
        };
    }

    /** @param rest what follows on the way behind what is shown */
    private record End(String key, String rest) {}

    /** The port or, where none is shown, the innermost shown box on the way; null where that is the holder itself. */
    private @Nullable End end(Diagram.Node holder, Reference target) {
        String key = holder.key();
        Element at = holder.element();
        List<ElementId> chain = target.chain();
        for (int i = 0; i < chain.size(); i++) {
            ElementId step = chain.get(i);
            Optional<Element> next = model.inheritance().effective(at, step).or(() -> model.find(step));
            if (next.isEmpty()) {
                return null;
            }
            String nextKey = key + "." + next.get().id();
            if (ports.containsKey(nextKey)) {
                return new End(nextKey, path(chain.subList(i + 1, chain.size())));
            }
            if (!nodes.containsKey(nextKey)) {
                return key.equals(holder.key()) ? null : new End(key, path(chain.subList(i, chain.size())));
            }
            key = nextKey;
            at = next.get();
        }
        return new End(key, "");
    }

    private String path(List<ElementId> chain) {
        return chain.stream()
                .map(id -> model.environment().nameOf((Referent) id))
                .collect(Collectors.joining("."));
    }

    /** Its name and what it carries; of a binding what is equal. */
    private String label(Element member, End one, End other) {
        if (member.kind() == ElementKind.BINDING) {
            return one.rest().isEmpty() && other.rest().isEmpty() ? "=" : one.rest() + " = " + other.rest();
        }
        String name = Optional.ofNullable(member.name()).orElse("");
        String carried = InterfaceTable.carried(model, member).stream()
                .map(InterfaceTable.Carried::name)
                .collect(Collectors.joining(", "));
        return name.isEmpty() || carried.isEmpty() ? name + carried : name + ": " + carried;
    }

    /** Several bindings of attributes between the same two boxes are one line with all their labels. */
    private void unite() {
        Map<Set<String>, Integer> places = new HashMap<>();
        List<Diagram.Edge> all = List.copyOf(edges);
        edges.clear();
        for (Diagram.Edge edge : all) {
            boolean bindsBoxes = edge.relation() == Diagram.Relation.BINDING
                    && nodes.containsKey(edge.from())
                    && nodes.containsKey(edge.to());
            Integer place = bindsBoxes ? places.putIfAbsent(Set.of(edge.from(), edge.to()), edges.size()) : null;
            if (place == null) {
                edges.add(edge);
            } else {
                edges.set(place, united(edges.get(place), edge));
            }
        }
    }

    private static Diagram.Edge united(Diagram.Edge kept, Diagram.Edge more) {
        String[] sides = more.label().split(" = ", 2);
        boolean turned = !kept.from().equals(more.from()) && sides.length == 2;
        String label = turned ? sides[1] + " = " + sides[0] : more.label();
        return new Diagram.Edge(
                kept.key(),
                kept.element(),
                kept.from(),
                kept.to(),
                kept.relation(),
                kept.label() + ", " + label,
                kept.problem());
    }
}
