package pyrite.core.model;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * Inheritance in one snapshot: generals, effective features, redefinitions. Results are remembered. Cycles in a faulty
 * model end the search; {@link WellFormedness} reports them.
 */
public final class Inheritance {
    private final Model model;
    private final Map<ElementId, List<Element>> features = new ConcurrentHashMap<>();
    /** By the element and the inherited feature, what counts in its place; only where one does. */
    private final Map<ElementId, Map<ElementId, Element>> overruled = new ConcurrentHashMap<>();

    private final Map<ElementId, List<Element>> generals = new ConcurrentHashMap<>();
    private final Map<ElementId, Map<ElementId, Element>> effective = new ConcurrentHashMap<>();

    Inheritance(Model model) {
        this.model = model;
    }

    /** The element itself and everything it inherits from, nearest first. */
    public List<Element> generals(Element element) {
        if (model.isLibrary(element.id())) {
            return model.library().inheritance().generals(element);
        }
        if (element.properties().isEmpty() && element.kind() != ElementKind.ENUMERATION) {
            return List.of(element);
        }
        List<Element> known = generals.get(element.id());
        if (known == null || known.getFirst() != element) {
            known = closure(element, model::generals);
            generals.put(element.id(), known);
        }
        return known;
    }

    /** The element itself and everything it redefines, nearest first. */
    public List<Element> redefined(Element element) {
        return closure(element, model::redefined);
    }

    private List<Element> closure(Element start, java.util.function.Function<Element, List<ElementId>> step) {
        List<ElementId> first = step.apply(start);
        if (first.isEmpty()) {
            return List.of(start);
        }
        List<Element> reached = new ArrayList<>(4);
        Visited seen = new Visited();
        reached.add(start);
        seen.add(start.id());
        reach(first, reached, seen);
        // What was reached last is gone through in its turn, so that what is nearer comes first.
        for (int next = 1; next < reached.size(); next++) {
            reach(step.apply(reached.get(next)), reached, seen);
        }
        return List.copyOf(reached);
    }

    private void reach(List<ElementId> ids, List<Element> reached, Visited seen) {
        for (ElementId id : ids) {
            Element element = seen.add(id) ? model.find(id).orElse(null) : null;
            if (element != null) {
                reached.add(element);
            }
        }
    }

    public boolean isA(Element element, ElementId general) {
        return generals(element).stream().anyMatch(each -> each.id().equals(general));
    }

    /**
     * The usages an element has, own ones first, then inherited ones. One that is redefined gives way to the one that
     * redefines it, and one that redefines something to a nearer one that redefines the same (KerML 1.0, 8.3.3.1.10,
     * removeRedefinedFeatures).
     */
    public List<Element> features(Element element) {
        if (model.isLibrary(element.id())) {
            return model.library().inheritance().features(element);
        }
        List<Element> known = features.get(element.id());
        if (known == null) {
            known = compute(element);
            features.put(element.id(), known);
        }
        return known;
    }

    private List<Element> compute(Element element) {
        Set<Element> all = new LinkedHashSet<>();
        Set<ElementId> hidden = new HashSet<>();
        for (Element general : generals(element)) {
            List<Element> own = new ArrayList<>();
            for (Element child : model.children(general.id())) {
                if (child.kind().isUsage()) {
                    own.add(child);
                    if (replacement(child, all).isPresent()) {
                        hidden.add(child.id());
                    }
                }
            }
            all.addAll(own);
        }
        for (Element feature : all) {
            List<Element> old = redefined(feature);
            for (int i = 1; i < old.size(); i++) {
                hidden.add(old.get(i).id());
            }
        }
        Map<ElementId, Element> giveWay = overruled(all, hidden);
        if (!giveWay.isEmpty()) {
            overruled.put(element.id(), giveWay);
        }
        return all.stream()
                .filter(feature -> !hidden.contains(feature.id()) && !giveWay.containsKey(feature.id()))
                .toList();
    }

    /** Features that redefine what a nearer one redefines, with that one. */
    private Map<ElementId, Element> overruled(Collection<Element> nearestFirst, Set<ElementId> hidden) {
        Map<ElementId, Element> giveWay = new HashMap<>();
        Map<ElementId, List<Element>> redefining = new HashMap<>();
        for (Element feature : nearestFirst) {
            if (hidden.contains(feature.id())) {
                continue;
            }
            List<Element> old = redefined(feature);
            for (int i = 1; i < old.size(); i++) {
                List<Element> nearer = redefining.computeIfAbsent(old.get(i).id(), _ -> new ArrayList<>(1));
                nearer.stream()
                        .filter(near -> isOfSpecial(near, feature))
                        .findFirst()
                        .ifPresent(near -> giveWay.putIfAbsent(feature.id(), near));
                nearer.add(feature);
            }
        }
        return giveWay;
    }

    /** Whether a feature stands in something more special than another does. */
    private boolean isOfSpecial(Element feature, Element other) {
        return feature.owner() != null
                && other.owner() != null
                && !feature.owner().equals(other.owner())
                && isA(model.get(feature.owner()), other.owner());
    }

    /**
     * A feature nearer by that takes the place of an inherited one without saying so: the one subject or objective, and
     * parameters and ends of the same name (SysML 2.0, 8.4.12 and 8.4.15; KerML 7.4.7.2).
     */
    private Optional<Element> replacement(Element inherited, Collection<Element> nearer) {
        if (!mayGiveWay(inherited)) {
            return Optional.empty();
        }
        return nearer.stream()
                .filter(near -> !Objects.equals(near.owner(), inherited.owner()))
                .filter(near -> near.kind() == inherited.kind() && isSingle(near)
                        || Objects.equals(near.name(), inherited.name())
                                && (isParameter(near) && isParameter(inherited) || isEnd(near) && isEnd(inherited)))
                .findFirst();
    }

    /** The inherited feature that an element takes the place of without saying so. */
    Optional<Element> replacedBy(Element near) {
        Element owner = near.owner() == null
                        || !mayGiveWay(near)
                        || !near.get(Property.REDEFINES).isEmpty()
                ? null
                : model.find(near.owner()).orElse(null);
        return owner == null
                ? Optional.empty()
                : generals(owner).stream()
                        .flatMap(general -> model.children(general.id()).stream())
                        .filter(child -> child.kind().isUsage()
                                && replacement(child, List.of(near)).isPresent())
                        .findFirst();
    }

    private static boolean mayGiveWay(Element element) {
        return isSingle(element) || isParameter(element) || isEnd(element);
    }

    private static boolean isParameter(Element element) {
        return element.get(Property.DIRECTION).isPresent();
    }

    private static boolean isEnd(Element element) {
        return element.get(Property.END).orElse(false);
    }

    private static boolean isSingle(Element element) {
        return element.kind() == ElementKind.SUBJECT || element.kind() == ElementKind.OBJECTIVE;
    }

    /** Whether an element has a feature from the library only because of its kind. */
    boolean implies(Element owner, Element feature) {
        ElementId general = ImpliedGenerals.of(owner.kind());
        return general != null
                && model.isLibrary(feature.id())
                && model.find(general)
                        .filter(base -> generals(base).stream()
                                .anyMatch(each -> each.id().equals(feature.owner())))
                        .isPresent();
    }

    /** What takes the place of {@code feature} in {@code owner}: the feature itself, or the one that redefines it. */
    public Optional<Element> effective(Element owner, ElementId feature) {
        Element found = effectiveIn(owner).get(feature);
        if (found != null) {
            return Optional.of(found);
        }
        Element old = model.find(feature).orElse(null);
        if (old != null && implies(owner, old)) {
            return Optional.of(old);
        }
        return old == null || !mayGiveWay(old) ? Optional.empty() : replacement(old, features(owner));
    }

    /** Every feature of an element by its own id and by the ids of what it redefines. */
    private Map<ElementId, Element> effectiveIn(Element owner) {
        Map<ElementId, Element> known = effective.get(owner.id());
        if (known == null) {
            Map<ElementId, Element> found = new HashMap<>();
            features(owner).forEach(feature -> redefined(feature).forEach(old -> found.putIfAbsent(old.id(), feature)));
            found.putAll(overruled.getOrDefault(owner.id(), Map.of()));
            effective.put(owner.id(), found);
            known = found;
        }
        return known;
    }

    /** The value a feature has, its own or the nearest inherited one. */
    public Optional<FeatureValue> value(Element feature) {
        return nearest(feature, Property.VALUE);
    }

    /** The number of instances, its own or the nearest inherited; one if none is declared. */
    public Multiplicity multiplicity(Element feature) {
        return nearest(feature, Property.MULTIPLICITY).orElse(Multiplicity.ONE);
    }

    /** The element a value comes from, so that a page can say so. */
    public Optional<Element> owning(Element feature, Property<?> property) {
        return generals(feature).stream()
                .filter(each -> each.get(property).isPresent())
                .findFirst();
    }

    public <T> Optional<T> nearest(Element feature, Property<T> property) {
        return generals(feature).stream()
                .flatMap(each -> each.get(property).stream())
                .findFirst();
    }

    /**
     * The documentation of an element itself, else of the nearest general that has any; empty if none. What the library
     * says of its own is not said of what is made from it.
     */
    public String documentation(Element element) {
        return generals(element).stream()
                .filter(each -> each.equals(element) || !model.isLibrary(each.id()))
                .flatMap(each -> documentationOf(each).stream())
                .findFirst()
                .flatMap(doc -> doc.get(Property.TEXT))
                .orElse("");
    }

    /** The element's own documentation. */
    public Optional<Element> documentationOf(Element element) {
        return model.children(element.id()).stream()
                .filter(e -> e.kind() == ElementKind.DOCUMENTATION)
                .findFirst();
    }
}
