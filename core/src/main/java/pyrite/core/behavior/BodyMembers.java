package pyrite.core.behavior;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.StepGraph.Succession;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Names;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/**
 * The members of one behaviour in their order, with the changes made to them; {@link #edit} gives these as one edit.
 */
class BodyMembers {
    final Model model;
    final ElementId owner;
    final List<Element> members;
    final Map<ElementId, Element> put = new LinkedHashMap<>();
    private final Set<ElementId> removed = new HashSet<>();

    BodyMembers(Model model, Element behavior) {
        this.model = model;
        this.owner = behavior.id();
        this.members = new ArrayList<>(model.children(owner));
    }

    /** All that was done. A step that a succession names gets a name if it has none. */
    public final Edit edit() {
        Set<ElementId> named = new HashSet<>();
        members.stream()
                .filter(member -> member.kind() == ElementKind.SUCCESSION)
                .forEach(succession -> List.of(Property.SOURCE, Property.TARGET)
                        .forEach(end -> succession.get(end).ifPresent(reference -> named.add(reference.target()))));
        steps().stream()
                .filter(step -> named.contains(step.id()) && step.name() == null && step.shortName() == null)
                .forEach(step -> replace(step.withName(freeName(usualName(step.kind())))));
        return new Edit(List.copyOf(put.values()), removed);
    }

    private static String usualName(ElementKind kind) {
        return switch (kind) {
            case DECIDE -> "choice";
            case FORK -> "split";
            case JOIN -> "both";
            case MERGE -> "meeting";
            default -> "step";
        };
    }

    public final ElementId owner() {
        return owner;
    }

    public final boolean has(ElementId member) {
        return members.stream().anyMatch(each -> each.id().equals(member));
    }

    public final List<Element> steps() {
        return members.stream()
                .filter(member -> StepGraph.isStep(member.kind()))
                .toList();
    }

    public final Element get(ElementId member) {
        return members.get(place(member));
    }

    final int place(ElementId member) {
        for (int i = 0; i < members.size(); i++) {
            if (members.get(i).id().equals(member)) {
                return i;
            }
        }
        throw new IllegalArgumentException("the step stands in another behaviour");
    }

    public final List<Succession> from(ElementId step) {
        return successions().stream()
                .filter(succession -> succession.from().equals(step))
                .toList();
    }

    public final List<Succession> to(ElementId step) {
        return successions().stream()
                .filter(succession -> succession.to().equals(step))
                .toList();
    }

    final List<Succession> successions() {
        return StepGraph.written(members, UnaryOperator.identity());
    }

    /** A new member of this body, which has no place in it yet. */
    public final Element fresh(ElementKind kind, @Nullable String name) {
        return Element.of(kind, owner, Rank.between(null, null), name);
    }

    /** {@code then target;}, or {@code if guard then target;}. */
    final Element leading(ElementId target) {
        return fresh(ElementKind.SUCCESSION, null).with(Property.TARGET, Reference.to(target));
    }

    /** Puts an element that is owned by something else than this body. */
    public final void also(Element element) {
        put.put(element.id(), element);
    }

    public final void replace(Element member) {
        members.set(place(member.id()), member);
        put.put(member.id(), member);
    }

    final void insert(int place, Element member) {
        Rank before = place == 0 ? null : members.get(place - 1).rank();
        Rank after = place == members.size() ? null : members.get(place).rank();
        Element placed = member.withOwner(owner, Rank.between(before, after));
        members.add(place, placed);
        put.put(placed.id(), placed);
        removed.remove(placed.id());
    }

    final void remove(Element member) {
        members.remove(place(member.id()));
        put.remove(member.id());
        if (model.has(member.id())) {
            removed.add(member.id());
        }
    }

    static Element following(Element step, boolean follows) {
        return step.with(Property.THEN, follows ? true : null);
    }

    static boolean follows(Element step) {
        return step.get(Property.THEN).orElse(false);
    }

    /** Puts a member before the first step or succession, such as an attribute that conditions name. */
    public final void insertBeforeSteps(Element member) {
        int place = 0;
        while (place < members.size()
                && members.get(place).kind() != ElementKind.SUCCESSION
                && !StepGraph.isStep(members.get(place).kind())) {
            place++;
        }
        insert(place, member);
    }

    /** At the end, with nothing leading to it. */
    public final void append(Element step) {
        insert(members.size(), following(step, false));
    }

    /** A name that nothing in this body has. */
    public final String freeName(String wished) {
        Set<String> taken = new HashSet<>(model.names().membersOf(owner));
        members.forEach(member -> taken.add(Objects.requireNonNullElse(member.name(), "")));
        return Names.free(taken, wished);
    }
}
