package pyrite.core.model;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * Keeps redefinitions at what is nearest. Where a feature is redefined between a definition and a special one that
 * redefines it already, the special one redefines the new redefinition, as it would if its text were read now: so what
 * is said in between reaches it, too. The same holds for what stands in an element that becomes a special one of
 * something else; and where what was redefined is removed, or inherited no more, what that redefined takes its place.
 */
public final class Redefinitions {
    private final Model before;
    private final Edit edit;
    private final Set<ElementId> put = new HashSet<>();
    /** With what the edit changes and what is led already. */
    private Model after;

    private Redefinitions(Model before, Edit edit) {
        this.before = before;
        this.edit = edit;
        edit.put().forEach(element -> put.add(element.id()));
        this.after = before.replay(before.difference(edit));
    }

    /** The edit, and with it what leads other redefinitions to those that are nearest after it. */
    public static Edit nearest(Model model, Edit edit) {
        Set<ElementId> redefined = new LinkedHashSet<>();
        edit.put().forEach(element -> redefined.addAll(newTargets(model, element)));
        edit.remove().stream()
                .flatMap(top -> model.subtree(top).stream())
                .filter(element -> !targets(element).isEmpty())
                .forEach(element -> redefined.add(element.id()));
        Set<ElementId> users = new LinkedHashSet<>();
        redefined.forEach(target -> users.addAll(model.referrers(target)));
        edit.put().forEach(element -> users.remove(element.id()));
        List<Element> turned = edit.put().stream()
                .filter(element -> model.find(element.id())
                        .filter(before -> !model.generals(before).equals(model.generals(element)))
                        .isPresent())
                .toList();
        return users.isEmpty() && turned.isEmpty() ? edit : new Redefinitions(model, edit).led(users, turned);
    }

    private static Set<ElementId> newTargets(Model model, Element element) {
        Set<ElementId> targets = targets(element);
        model.find(element.id()).ifPresent(before -> targets.removeAll(targets(before)));
        return targets;
    }

    private static Set<ElementId> targets(Element element) {
        Set<ElementId> targets = new HashSet<>();
        element.references(Property.REDEFINES).forEach(reference -> targets.add(reference.target()));
        return targets;
    }

    private Edit led(Set<ElementId> users, List<Element> turned) {
        Set<ElementId> candidates = new LinkedHashSet<>(users);
        turned.forEach(element ->
                special(element.id()).forEach(id -> after.subtree(id).forEach(inner -> candidates.add(inner.id()))));
        Map<ElementId, Element> led = new LinkedHashMap<>();
        // Where something is led to decides what it inherits, and so where what stands in it is led to.
        outermostFirst(candidates).forEach(level -> {
            Map<ElementId, Element> here = new HashMap<>();
            level.forEach(element -> {
                Element nearest = toNearest(element);
                if (!nearest.equals(element)) {
                    here.put(element.id(), nearest);
                }
            });
            if (!here.isEmpty()) {
                led.putAll(here);
                after = after.with(here.values());
            }
        });
        return led.isEmpty() ? edit : Edit.joined(List.of(edit, new Edit(List.copyOf(led.values()), edit.remove())));
    }

    /** An element and whatever inherits from it. */
    private Set<ElementId> special(ElementId general) {
        Set<ElementId> reached = new LinkedHashSet<>(Set.of(general));
        List<ElementId> open = new ArrayList<>(List.of(general));
        while (!open.isEmpty()) {
            ElementId at = open.removeLast();
            after.referrers(at).stream()
                    .filter(id -> after.generals(after.get(id)).contains(at))
                    .filter(reached::add)
                    .forEach(open::add);
        }
        return reached;
    }

    private Iterable<List<Element>> outermostFirst(Set<ElementId> candidates) {
        Map<Integer, List<Element>> levels = new TreeMap<>();
        candidates.stream()
                .filter(id -> !put.contains(id))
                .flatMap(id -> after.find(id).stream())
                .filter(element -> !element.references(Property.REDEFINES).isEmpty() && !after.isLibrary(element.id()))
                .forEach(element -> levels.computeIfAbsent(after.owners(element).size(), _ -> new ArrayList<>())
                        .add(element));
        return levels.values();
    }

    private Element toNearest(Element element) {
        Element owner =
                element.owner() == null ? null : after.find(element.owner()).orElse(null);
        if (owner == null) {
            return element;
        }
        List<Reference> references = element.references(Property.REDEFINES).stream()
                .map(reference -> {
                    ElementId nearest = nearest(element, owner, stillInherited(owner, reference.target()));
                    return nearest.equals(reference.target()) ? reference : Reference.to(nearest);
                })
                .distinct()
                .toList();
        return element.with(Property.REDEFINES, references);
    }

    /** A feature, or the nearest that it redefined where it is not inherited any more. */
    private ElementId stillInherited(Element owner, ElementId target) {
        Element was = before.find(target).orElse(null);
        return was == null || after.isLibrary(target)
                ? target
                : before.inheritance().redefined(was).stream()
                        .filter(old -> after.find(old.id())
                                .filter(now -> now.owner() != null && isInherited(owner, now.owner()))
                                .isPresent())
                        .map(Element::id)
                        .findFirst()
                        .orElse(target);
    }

    private boolean isInherited(Element owner, ElementId from) {
        return !owner.id().equals(from) && after.inheritance().isA(owner, from);
    }

    /** What a feature is in an element before this says something of it. */
    private ElementId nearest(Element element, Element owner, ElementId target) {
        return after.inheritance().generals(owner).stream()
                .skip(1)
                .flatMap(general -> after.children(general.id()).stream())
                .filter(child -> !child.id().equals(element.id())
                        && !child.references(Property.REDEFINES).isEmpty())
                .filter(child -> after.inheritance().redefined(child).stream()
                        .anyMatch(old -> old.id().equals(target)))
                .map(Element::id)
                .findFirst()
                .orElse(target);
    }
}
