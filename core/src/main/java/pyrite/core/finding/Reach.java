package pyrite.core.finding;

import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.ItemUse;
import pyrite.core.model.Difference;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * The elements whose findings an edit may alter: what changed, what inherits from it, what carries it, what is joined
 * to it, and what contains it.
 */
final class Reach {
    private final Model model;
    private final int most;
    private final Set<ElementId> reached = new LinkedHashSet<>();
    private final Set<ElementId> spread = new HashSet<>();
    private final Set<ElementId> told = new HashSet<>();
    /** What is, or was, joined to something, with what redefines it. */
    private final Set<ElementId> joined = new HashSet<>();

    private final Deque<ElementId> open = new ArrayDeque<>();

    private Reach(Model model, int most) {
        this.model = model;
        this.most = most;
    }

    /** @param most ends the search when more are found */
    static Set<ElementId> of(Model after, List<Difference> edits, int most) {
        Reach reach = new Reach(after, most);
        edits.stream().flatMap(edit -> edit.changes().stream()).forEach(change -> {
            if (isOnlyOfValue(change)) {
                reach.reached.add(change.id());
                return;
            }
            Stream.of(change.before(), change.after()).filter(Objects::nonNull).forEach(reach::changed);
            reach.moved(change);
        });
        reach.follow();
        return reach.reached;
    }

    /** Another value of an attribute whose type is stated joins nothing otherwise. */
    private static boolean isOnlyOfValue(ElementChange change) {
        Element before = change.before();
        Element after = change.after();
        return before != null
                && after != null
                && after.kind() == ElementKind.ATTRIBUTE
                && !after.references(Property.TYPES).isEmpty()
                && after.equals(
                        before.with(Property.VALUE, after.get(Property.VALUE).orElse(null)));
    }

    private void changed(Element element) {
        told(element);
        exchanged(element);
        if (element.kind().family() == ElementKind.Family.ANNOTATION) {
            return;
        }
        spreads(element.id());
        ElementId owner = element.owner();
        if (owner != null && model.has(owner)) {
            spreads(owner);
        }
        // What it refers to, or did, is used otherwise now.
        element.outgoing().forEach(this::withRedefinitions);
    }

    /** The definitions of items that are sent or accepted otherwise now. */
    private void exchanged(Element element) {
        reached.addAll(ItemUse.concerned(model, element));
        if (ItemUse.isOfAnything(element)) {
            model.ownElements(ElementKind.ITEM_DEFINITION)
                    .limit(most)
                    .map(Element::id)
                    .forEach(reached::add);
        }
    }

    /** The behaviours in which an element is read: those it stands in, and those whose successions lead there. */
    private void told(Element element) {
        ledTo(element.id());
        climb(element.owner());
    }

    private void climb(@Nullable ElementId id) {
        for (Element at = id == null ? null : model.find(id).orElse(null);
                at != null;
                at = at.owner() == null ? null : model.get(at.owner())) {
            if (at.kind().tellsWhatHappens()) {
                spreads(at.id());
            }
            ledTo(at.id());
        }
    }

    /** Successions may lead to what stands elsewhere, and conditions name what is told elsewhere. */
    private void ledTo(ElementId id) {
        if (told.add(id)) {
            model.referrers(id).stream()
                    .map(model::get)
                    .filter(user -> user.kind() == ElementKind.SUCCESSION)
                    .forEach(user -> climb(user.owner()));
        }
    }

    /** What is joined to a part is joined to what redefines it. */
    private void withRedefinitions(ElementId id) {
        reached.add(id);
        if (joined.add(id) && reached.size() <= most) {
            model.referrers(id).stream()
                    .map(model::get)
                    .filter(user -> user.references(Property.REDEFINES).stream()
                            .anyMatch(redefined -> redefined.target().equals(id)))
                    .forEach(user -> withRedefinitions(user.id()));
        }
    }

    /** What stands in something that is moved stands elsewhere, and uses what it uses from there. */
    private void moved(ElementChange change) {
        if (change.before() != null
                && change.after() != null
                && !Objects.equals(change.before().owner(), change.after().owner())) {
            model.subtree(change.id()).forEach(element -> {
                reached.add(element.id());
                reached.addAll(element.outgoing());
            });
        }
    }

    private void spreads(ElementId id) {
        reached.add(id);
        if (spread.add(id)) {
            open.add(id);
        }
    }

    private void follow() {
        while (!open.isEmpty() && reached.size() <= most) {
            ElementId id = open.poll();
            model.find(id).ifPresent(element -> {
                exchanged(element);
                ElementId owner = element.owner();
                if (owner != null && model.has(owner) && isPartOf(element, model.get(owner))) {
                    spreads(owner);
                }
                model.referrers(id).stream().map(model::get).forEach(user -> used(id, user));
                // A way by what it redefines leads to it, too.
                model.inheritance()
                        .redefined(element)
                        .forEach(old -> model.referrers(old.id()).stream()
                                .map(model::get)
                                .forEach(this::joins));
            });
        }
    }

    private void used(ElementId id, Element user) {
        if (model.generals(user).contains(id) || hasTypeOfValue(user)) {
            spreads(user.id());
        }
        joins(user);
    }

    private void joins(Element user) {
        if ((user.kind() == ElementKind.CONNECTOR_END || user.kind() == ElementKind.TRANSITION)
                && user.owner() != null) {
            reached.add(user.owner());
        } else if (user.kind() == ElementKind.BINDING
                || user.kind().isFlow()
                || user.kind() == ElementKind.SATISFACTION) {
            reached.add(user.id());
        }
    }

    /** An attribute without a type has that of what its value names. */
    private static boolean hasTypeOfValue(Element user) {
        return user.kind() == ElementKind.ATTRIBUTE
                && user.references(Property.TYPES).isEmpty();
    }

    /**
     * Whether what owns an element is something else with another member: a port carries it, a part contains it, a
     * behaviour goes on with it.
     */
    private static boolean isPartOf(Element member, Element owner) {
        return switch (owner.kind()) {
            case PORT, PORT_DEFINITION, INTERFACE_DEFINITION, CONNECTION_DEFINITION -> true;
            case PART, PART_DEFINITION -> member.kind() == ElementKind.PART;
            default -> owner.kind().tellsWhatHappens();
        };
    }
}
