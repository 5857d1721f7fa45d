package pyrite.core.function;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.StepGraph;
import pyrite.core.expression.Expression;
import pyrite.core.function.FunctionTree.Use;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * What goes from which function to which in a tree of functions: flows, bindings and values of parameters, followed
 * through control nodes and through the borders of functions that are made of others.
 */
final class FlowWays {
    private static final int MOST_WAYS = 100_000;

    private final Model model;
    private final Map<List<ElementId>, Use> uses = new HashMap<>();
    private final Map<List<ElementId>, List<Hop>> out = new LinkedHashMap<>();
    private final Set<List<ElementId>> entered = new HashSet<>();

    /** One flow, binding or value, from a parameter or node to another; each is named by its way from the top. */
    private record Hop(List<ElementId> from, List<ElementId> to, Element carrier) {}

    /**
     * What goes from one function to another.
     *
     * @param sent the parameter that it comes from
     * @param received the parameter that it goes to
     * @param item the type of what goes; null if nothing is said of it
     * @param carriers the flows, bindings and parameters with values on the way
     */
    record Way(
            Use from,
            Element sent,
            Use to,
            Element received,
            @Nullable Element item,
            List<Element> carriers) {}

    private FlowWays(Model model, FunctionTree tree) {
        this.model = model;
        tree.uses().forEach(use -> uses.put(use.way(), use));
        tree.uses().forEach(this::hops);
    }

    static List<Way> of(Model model, FunctionTree tree) {
        return new FlowWays(model, tree).ways();
    }

    private void hops(Use use) {
        for (Element feature : model.inheritance().features(use.function())) {
            if (feature.kind().isFlow() && !model.isLibrary(feature.id())) {
                place(use, feature.get(Property.SOURCE))
                        .ifPresent(from ->
                                place(use, feature.get(Property.TARGET)).ifPresent(to -> hop(from, to, feature)));
            }
        }
        model.inheritance().generals(use.function()).stream()
                .flatMap(general -> model.children(general.id()).stream())
                .filter(child -> child.kind() == ElementKind.BINDING)
                .forEach(binding -> bound(use, binding));
        use.inside().forEach(inner -> values(use, inner));
    }

    private void hop(List<ElementId> from, List<ElementId> to, Element carrier) {
        out.computeIfAbsent(from, _ -> new ArrayList<>()).add(new Hop(from, to, carrier));
        entered.add(to);
    }

    /** The way from the top to what an end within a function names; what redefines a step of it stands for it. */
    private Optional<List<ElementId>> place(Use use, Optional<Reference> end) {
        return end.map(reference -> {
            List<ElementId> way = new ArrayList<>(use.way());
            Element at = use.function();
            for (ElementId step : reference.chain()) {
                Element next = model.inheritance()
                        .effective(at, step)
                        .or(() -> model.find(step))
                        .orElse(null);
                if (next == null) {
                    return null;
                }
                way.add(next.id());
                at = next;
            }
            return List.copyOf(way);
        });
    }

    /** A binding leads from what gives to what takes: inward from a parameter {@code in}, else from one {@code out}. */
    private void bound(Use use, Element binding) {
        List<ElementId> left = place(use, binding.get(Property.LEFT)).orElse(null);
        List<ElementId> right = place(use, binding.get(Property.RIGHT)).orElse(null);
        if (left == null || right == null) {
            return;
        }
        if (gives(use, left) || !gives(use, right) && takes(use, right)) {
            hop(left, right, binding);
        } else {
            hop(right, left, binding);
        }
    }

    private boolean gives(Use use, List<ElementId> place) {
        return direction(place).equals(isBorder(use, place) ? "in" : "out");
    }

    private boolean takes(Use use, List<ElementId> place) {
        return direction(place).equals(isBorder(use, place) ? "out" : "in");
    }

    private static boolean isBorder(Use use, List<ElementId> place) {
        return place.size() == use.way().size() + 1;
    }

    private String direction(List<ElementId> place) {
        return model.inheritance()
                .nearest(model.get(place.getLast()), Property.DIRECTION)
                .orElse("");
    }

    /** {@code in item level = watch.level}. */
    private void values(Use use, Use inner) {
        for (Element parameter : model.inheritance().features(inner.function())) {
            Expression value = parameter.get(Property.DIRECTION).isEmpty()
                    ? null
                    : model.inheritance()
                            .value(parameter)
                            .map(FeatureValue::expression)
                            .orElse(null);
            if (value instanceof Expression.FeatureReference reference
                    && reference.chain().stream().allMatch(ElementId.class::isInstance)) {
                List<ElementId> chain =
                        reference.chain().stream().map(ElementId.class::cast).toList();
                List<ElementId> to = new ArrayList<>(inner.way());
                to.add(parameter.id());
                place(use, Optional.of(new Reference(chain)))
                        .filter(from -> owner(from) != null)
                        .ifPresent(from -> hop(from, List.copyOf(to), parameter));
            }
        }
    }

    private List<Way> ways() {
        List<Way> ways = new ArrayList<>();
        out.keySet().stream()
                .filter(place -> !entered.contains(place) && isEnd(place))
                .forEach(origin -> follow(origin, ways));
        return ways;
    }

    /** Where several ways lead from one parameter to another, it is one with all that carries it. */
    private void follow(List<ElementId> origin, List<Way> ways) {
        Map<List<ElementId>, Set<Element>> carriers = new LinkedHashMap<>();
        List<List<ElementId>> open = new ArrayList<>(List.of(origin));
        carriers.put(origin, new LinkedHashSet<>());
        while (!open.isEmpty()) {
            List<ElementId> at = open.removeLast();
            for (Hop hop : out.getOrDefault(at, List.of())) {
                boolean isNew = !carriers.containsKey(hop.to());
                Set<Element> so = carriers.computeIfAbsent(hop.to(), _ -> new LinkedHashSet<>());
                so.addAll(Objects.requireNonNull(carriers.get(at)));
                so.add(hop.carrier());
                if (isNew) {
                    open.add(hop.to());
                }
            }
        }
        carriers.forEach((place, so) -> {
            if (!place.equals(origin) && !out.containsKey(place) && isEnd(place) && ways.size() < MOST_WAYS) {
                Use from = Objects.requireNonNull(owner(origin));
                Use to = Objects.requireNonNull(owner(place));
                ways.add(new Way(
                        from,
                        model.get(origin.getLast()),
                        to,
                        model.get(place.getLast()),
                        item(so, origin, place),
                        List.copyOf(so)));
            }
        });
    }

    /** The function that a parameter or node stands in. */
    private @Nullable Use owner(List<ElementId> place) {
        for (int length = place.size(); length >= 0; length--) {
            Use use = uses.get(place.subList(0, length));
            if (use != null) {
                return use;
            }
        }
        return null;
    }

    /**
     * Whether a way may end there: at a parameter of a function or, where a flow names none, at the function itself.
     */
    private boolean isEnd(List<ElementId> place) {
        Use owner = owner(place);
        return owner != null
                && !owner.way().isEmpty()
                && (uses.containsKey(place)
                        || !StepGraph.isStep(model.get(place.getLast()).kind()));
    }

    private @Nullable Element item(Set<Element> carriers, List<ElementId> origin, List<ElementId> place) {
        return carriers.stream()
                .filter(carrier -> carrier.kind().isFlow())
                .flatMap(flow -> model.children(flow.id()).stream())
                .filter(child -> child.kind() == ElementKind.PAYLOAD)
                .flatMap(payload -> type(payload).stream())
                .findFirst()
                .or(() -> type(model.get(origin.getLast())))
                .or(() -> type(model.get(place.getLast())))
                .orElse(null);
    }

    private Optional<Element> type(Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(general -> general.kind().isDefinition() && !isBase(general))
                .findFirst();
    }

    /** The general definitions of the library say nothing of what goes. */
    private boolean isBase(Element definition) {
        return model.isLibrary(definition.id())
                && definition.owner() != null
                && Set.of("Base", "Items", "Parts", "Occurrences", "Actions", "Flows", "Attributes")
                        .contains(String.valueOf(model.get(definition.owner()).name()));
    }
}
