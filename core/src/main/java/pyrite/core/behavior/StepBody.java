package pyrite.core.behavior;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.StepGraph.Succession;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * The body of one behaviour while its steps are rearranged. Where the order allows it, a succession is written as
 * {@code then}, and what others wrote stays as it is.
 */
public final class StepBody extends BodyMembers {
    private final Set<ElementId> needlessBefore = new HashSet<>();

    public StepBody(Model model, Element behavior) {
        super(model, behavior);
        steps().stream().filter(this::isNeedless).map(Element::id).forEach(needlessBefore::add);
    }

    /** The first step of the behaviour; everything that was first comes behind it. */
    public void insertFirst(Element step) {
        List<Succession> start = from(StepGraph.START);
        Element opening = members.stream()
                .filter(member -> member.kind() == ElementKind.SUCCESSION
                        && member.get(Property.TARGET).isEmpty())
                .findFirst()
                .orElse(null);
        if (opening != null) {
            insert(place(opening.id()) + 1, following(step, true));
        } else if (!start.isEmpty()) {
            insertOn(start.getFirst(), step);
        } else if (steps().isEmpty()) {
            insert(
                    members.size(),
                    fresh(ElementKind.SUCCESSION, null).with(Property.SOURCE, Reference.to(StepGraph.START)));
            insert(members.size(), following(step, true));
            insert(members.size(), leading(StepGraph.DONE));
        } else {
            Element first = steps().stream()
                    .filter(each -> to(each.id()).isEmpty())
                    .findFirst()
                    .orElse(steps().getFirst());
            insert(place(first.id()), following(step, false));
            replace(following(first, true));
        }
    }

    /** Behind a step: what followed it follows the new one. */
    public void insertAfter(ElementId step, Element added) {
        from(step).stream()
                .filter(Succession::hasSource)
                .forEach(succession -> replace(succession.carrier().with(Property.SOURCE, Reference.to(added.id()))));
        insert(place(step) + 1, following(added, true));
    }

    /** Before a step: what led to it leads to the new one. */
    public void insertBefore(ElementId step, Element added) {
        Element behind = get(step);
        to(step).stream()
                .filter(succession -> !succession.isThen())
                .forEach(succession -> replace(succession.carrier().with(Property.TARGET, Reference.to(added.id()))));
        insert(place(step), following(added, follows(behind)));
        replace(following(get(step), true));
    }

    /** Between the two ends of a succession. */
    public void insertOn(Succession succession, Element added) {
        ElementId target = succession.to();
        if (succession.isThen()) {
            insert(place(target), following(added, true));
            return;
        }
        replace(succession.carrier().with(Property.TARGET, Reference.to(added.id())));
        boolean isFree = has(target)
                && !follows(get(target))
                && StepGraph.isStep(get(target).kind());
        if (isFree) {
            insert(place(target), following(added, false));
            replace(following(get(target), true));
        } else {
            append(added);
            insert(members.size(), leading(target));
        }
    }

    /**
     * The merge node at which ways come together before a step, and before what decides about it: an action that
     * several successions lead to waits for all of them (SysML 2.0, 7.17.5).
     */
    public ElementId meeting(ElementId step) {
        ElementId at = step;
        Element before = onlyBefore(at);
        while (before != null
                && before.kind() == ElementKind.DECIDE
                && to(at).getFirst().guard() == null) {
            at = before.id();
            before = onlyBefore(at);
        }
        if (before != null && before.kind() == ElementKind.MERGE) {
            return before.id();
        }
        String name = Objects.requireNonNullElse(get(step).name(), "step");
        Element merge = fresh(
                ElementKind.MERGE,
                freeName("before" + name.substring(0, 1).toUpperCase(Locale.ROOT) + name.substring(1)));
        insertBefore(at, merge);
        return merge.id();
    }

    private @Nullable Element onlyBefore(ElementId step) {
        List<Succession> in = to(step);
        return in.size() == 1 && has(in.getFirst().from()) ? get(in.getFirst().from()) : null;
    }

    /** {@code then target;} behind a step. */
    public void lead(ElementId step, ElementId target) {
        insert(place(step) + 1, leading(target));
    }

    /** A branch of a decide or fork node that leads to a target, before its {@code else} if it has one. */
    public void branch(ElementId node, ElementId target, UnaryOperator<Element> guarded) {
        Element last = from(node).stream()
                .filter(succession -> !succession.isConditional() || succession.isElse())
                .map(Succession::carrier)
                .findFirst()
                .orElse(null);
        Element made = guarded.apply(leading(target));
        if (last == null || get(node).kind() != ElementKind.DECIDE) {
            insert(place(node) + 1, made);
        } else {
            boolean isNamed = last.kind() == ElementKind.SUCCESSION
                    && last.get(Property.SOURCE).isPresent();
            insert(place(last.id()), isNamed ? made.with(Property.SOURCE, Reference.to(node)) : made);
        }
    }

    /** Before a step a decide node whose {@code else} leads to the step. */
    public Element decideBefore(ElementId step) {
        Element node = fresh(ElementKind.DECIDE, null);
        insertBefore(step, node);
        replace(following(get(step), false));
        insert(place(step), leading(step).with(Property.ELSE, true));
        return get(node.id());
    }

    /** {@code then target;} for each of several targets, behind a fork node. */
    public void forkInto(ElementId fork, List<ElementId> targets) {
        for (ElementId target : targets) {
            if (has(target) && follows(get(target))) {
                replace(following(get(target), false));
            }
        }
        targets.reversed().forEach(target -> lead(fork, target));
    }

    /**
     * Beside a step another one that is taken at the same time: between the fork and join nodes that it has, or new
     * ones.
     */
    public void parallel(ElementId step, Element added) {
        Element fork = neighbour(to(step), ElementKind.FORK, true);
        Element join = neighbour(from(step), ElementKind.JOIN, false);
        if (fork == null || join == null) {
            fork = fresh(ElementKind.FORK, null);
            join = fresh(ElementKind.JOIN, freeName("both"));
            insertBefore(step, fork);
            forkInto(fork.id(), List.of(step));
            insertAfter(step, join);
        }
        lead(lastBranch(fork.id()), fork.id(), added.id());
        insert(place(join.id()), following(added, false));
        joinWith(join.id());
    }

    /** The only node of a kind that a step comes from or leads to. */
    private @Nullable Element neighbour(List<Succession> successions, ElementKind kind, boolean isBefore) {
        if (successions.size() != 1) {
            return null;
        }
        ElementId id = isBefore
                ? successions.getFirst().from()
                : successions.getFirst().to();
        return has(id) && get(id).kind() == kind ? get(id) : null;
    }

    private ElementId lastBranch(ElementId fork) {
        return from(fork).getLast().carrier().id();
    }

    private void lead(ElementId behindCarrier, ElementId fork, ElementId target) {
        Element carrier = get(behindCarrier);
        Element branch = leading(target);
        insert(
                place(behindCarrier) + 1,
                carrier.get(Property.SOURCE).isPresent() || StepGraph.isStep(carrier.kind())
                        ? branch.with(Property.SOURCE, Reference.to(fork))
                        : branch);
    }

    /** The step written before a join node leads to it by {@code then}; what did so before gets a succession. */
    private void joinWith(ElementId join) {
        int place = place(join);
        if (follows(get(join))) {
            insert(place - 1, leading(join));
        } else {
            replace(following(get(join), true));
        }
    }

    /** Takes a succession away. */
    public void drop(ElementId succession) {
        remove(get(succession));
    }

    /** Takes away all that leads from a step. */
    public void cut(ElementId step) {
        for (Succession succession : from(step)) {
            if (succession.isThen()) {
                replace(following(get(succession.to()), false));
            } else {
                remove(succession.carrier());
            }
        }
    }

    /**
     * Takes a step out; what led to it leads to what followed it. It can be put elsewhere, else it is removed.
     *
     * @throws IllegalArgumentException if several steps follow it
     */
    public Element takeOut(ElementId step) {
        List<Succession> out = from(step);
        if (out.size() > 1) {
            throw new IllegalArgumentException("several steps follow it; remove these first");
        }
        Element taken = get(step);
        List<Succession> in = to(step).stream()
                .filter(succession -> !succession.from().equals(step))
                .toList();
        ElementId before = in.stream()
                .filter(Succession::isThen)
                .map(Succession::from)
                .findFirst()
                .orElse(null);
        out.forEach(succession -> leave(succession, before));
        ElementId next = out.isEmpty() || out.getFirst().to().equals(step)
                ? null
                : out.getFirst().to();
        for (Succession succession : in) {
            if (!succession.isThen()) {
                if (next == null) {
                    remove(succession.carrier());
                } else {
                    replace(succession.carrier().with(Property.TARGET, Reference.to(next)));
                }
            }
        }
        remove(taken);
        return taken;
    }

    /**
     * What led from a step that is taken out leads from what stands before it by {@code then}, if anything does. A
     * condition goes with the node that it stood at.
     */
    private void leave(Succession succession, @Nullable ElementId before) {
        if (succession.isThen()) {
            if (before == null) {
                replace(following(get(succession.to()), false));
            }
        } else if (before == null || succession.to().equals(succession.from())) {
            remove(succession.carrier());
        } else if (isWrittenBefore(succession.carrier(), succession.to())) {
            remove(succession.carrier());
            replace(following(get(succession.to()), true));
        } else {
            Element plain = succession.carrier().with(Property.ELSE, null).with(Property.GUARD, null);
            replace(succession.hasSource() ? plain.with(Property.SOURCE, Reference.to(before)) : plain);
        }
    }

    private boolean isWrittenBefore(Element carrier, ElementId target) {
        int behind = place(carrier.id()) + 1;
        return behind < members.size()
                && members.get(behind).id().equals(target)
                && !follows(members.get(behind))
                && carrier.get(Property.SOURCE).isEmpty();
    }

    /**
     * Takes out the control nodes that nothing needs any more: a decide or fork node with one way out that has no
     * condition, a merge or join node with one way in. What was so before stays.
     */
    public void tidy() {
        successions().stream()
                .filter(this::isEmptyBranch)
                .map(Succession::carrier)
                .forEach(this::remove);
        boolean isDone = false;
        while (!isDone) {
            Element needless = steps().stream()
                    .filter(step -> !needlessBefore.contains(step.id()) && isNeedless(step))
                    .findFirst()
                    .orElse(null);
            isDone = needless == null;
            if (needless != null) {
                takeOut(needless.id());
            }
        }
    }

    /** A branch from a fork to a join node on which nothing happens. */
    private boolean isEmptyBranch(Succession succession) {
        return !succession.isThen()
                && has(succession.from())
                && has(succession.to())
                && get(succession.from()).kind() == ElementKind.FORK
                && get(succession.to()).kind() == ElementKind.JOIN;
    }

    private boolean isNeedless(Element node) {
        List<Succession> out = from(node.id());
        return switch (node.kind()) {
            case DECIDE -> out.isEmpty() || out.size() == 1 && (out.getFirst().guard() == null);
            case FORK -> out.size() <= 1;
            case MERGE, JOIN -> to(node.id()).size() <= 1 && out.size() <= 1;
            default -> false;
        };
    }

    /** Moves the members from one step to another into a new behaviour that stands in their place. */
    public void enclose(ElementId first, ElementId last, Element around) {
        int from = place(first);
        int to = place(last);
        if (from > to) {
            throw new IllegalArgumentException("the last step of the stretch comes before its first");
        }
        Set<ElementId> within = new HashSet<>();
        members.subList(from, to + 1).forEach(member -> within.add(member.id()));
        for (Succession succession : successions()) {
            boolean leaves = within.contains(succession.from()) && !within.contains(succession.to());
            boolean enters = !within.contains(succession.from()) && within.contains(succession.to());
            if (leaves && !succession.from().equals(last)
                    || enters && !succession.to().equals(first)) {
                throw new IllegalArgumentException(
                        "a way leads into or out of the middle of the stretch; choose steps that"
                                + " follow each other without alternatives between");
            }
            if (enters && !succession.isThen()) {
                replace(succession.carrier().with(Property.TARGET, Reference.to(around.id())));
            }
            if (leaves && succession.hasSource()) {
                replace(succession.carrier().with(Property.SOURCE, Reference.to(around.id())));
            }
        }
        List<Element> inner = new ArrayList<>(members.subList(from, to + 1));
        successions().stream()
                .filter(each -> within.contains(each.from()) && within.contains(each.to()))
                .map(Succession::carrier)
                .filter(carrier -> !within.contains(carrier.id()))
                .forEach(inner::add);
        boolean follows = follows(get(first));
        members.removeAll(inner);
        insert(from, following(around, follows));
        for (Element member : inner) {
            Element moved = member.withOwner(around.id(), member.rank());
            put.put(member.id(), member.id().equals(first) ? following(moved, false) : moved);
        }
    }
}
