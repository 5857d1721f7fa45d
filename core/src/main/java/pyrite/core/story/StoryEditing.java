package pyrite.core.story;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.Ordering;
import pyrite.core.behavior.StepBody;
import pyrite.core.behavior.StepGraph;
import pyrite.core.behavior.StepGraph.Succession;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Span;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.story.Story.Way;

/**
 * The edits by which a story is told. A step is an action with a text; a condition is a Boolean attribute of the use
 * case whose documentation says it in words. Ways come together again at merge nodes, because an action that several
 * successions lead to waits for all of them (SysML 2.0, 7.17.5).
 *
 * <p>Each method throws an {@link IllegalArgumentException} with the reason if it cannot be done.
 */
public final class StoryEditing {
    private static final String CONDITION = "condition";

    private final Model model;
    private final Element useCase;

    public StoryEditing(Model model, Element useCase) {
        this.model = model;
        this.useCase = useCase;
    }

    /** What is done, and the step that it is about. */
    public record Told(Edit edit, ElementId step, String summary) {}

    /** A step that comes behind another; before all others if {@code behind} is null. */
    public Told add(@Nullable ElementId behind, String text) {
        StepBody body = body(behind == null ? null : model.get(behind));
        Element step = fresh(body, text);
        if (behind == null) {
            body.insertFirst(step);
        } else {
            body.insertAfter(behind, step);
        }
        documented(body, step, text);
        return new Told(body.edit(), step.id(), "step " + step.name() + " added");
    }

    /** The first step of a way that is taken in the place of a step if a condition holds. */
    public Told alternative(ElementId insteadOf, String condition, String text, boolean isRainy) {
        StepBody body = body(model.get(insteadOf));
        Element step = fresh(body, text);
        body.append(step);
        documented(body, step, text);
        branch(body, insteadOf, step.id(), condition, isRainy);
        return new Told(body.edit(), step.id(), "alternative of " + name(insteadOf) + " added");
    }

    /** Makes a step, with what is told behind it on its way, an alternative of the step before it. */
    public Told asAlternative(ElementId id) {
        Element step = model.get(id);
        StepBody body = body(step);
        ElementId before = before(body, id);
        if (before == null) {
            throw new IllegalArgumentException("no step comes before this one; an alternative is one of another step");
        }
        Element taken = body.takeOut(id);
        body.append(taken);
        branch(body, before, id, "", false);
        body.tidy();
        return new Told(body.edit(), id, name(id) + " made an alternative of " + name(before));
    }

    /** Takes the step of an alternative back into the way that the alternative leaves, behind the step it is one of. */
    public Told asStep(ElementId id) {
        StepBody body = body(model.get(id));
        Story story = Story.of(model, useCase);
        Way way = story.wayOf(id).filter(each -> each.leaves() != null).orElse(null);
        if (way == null || way.leaves() == null || !body.has(way.leaves())) {
            throw new IllegalArgumentException("this step is not one of an alternative");
        }
        if (way.lines().size() > 1) {
            throw new IllegalArgumentException("the alternative has "
                    + way.lines().size() + " steps; only an alternative of one step can be moved back into its way");
        }
        Element taken = body.takeOut(id);
        Set<ElementId> needless = new HashSet<>();
        dropBranch(body, Objects.requireNonNull(way.carrier()), needless);
        body.insertAfter(way.leaves(), taken);
        body.tidy();
        return new Told(with(body.edit(), needless), id, name(id) + " moved back behind " + name(way.leaves()));
    }

    /** Removes a succession that leads into a way, and the condition that nothing else names. */
    private void dropBranch(StepBody body, Element carrier, Set<ElementId> needless) {
        if (body.has(carrier.id())) {
            body.drop(carrier.id());
        }
        carrier.get(Property.GUARD).ifPresent(guard -> unneeded(guard, carrier.id(), needless));
    }

    private void unneeded(Expression guard, ElementId user, Set<ElementId> needless) {
        if (guard instanceof Expression.FeatureReference feature
                && feature.chain().getFirst() instanceof ElementId id
                && model.find(id)
                        .filter(each -> useCase.id().equals(each.owner()))
                        .isPresent()
                && model.referrers(id).stream().allMatch(user::equals)) {
            needless.add(id);
        }
    }

    private static Edit with(Edit edit, Set<ElementId> alsoRemoved) {
        Set<ElementId> removed = new HashSet<>(edit.remove());
        removed.addAll(alsoRemoved);
        return new Edit(edit.put(), removed);
    }

    /** A step that is taken while another one is. */
    public Told meanwhile(ElementId while_, String text) {
        StepBody body = body(model.get(while_));
        Element step = fresh(body, text);
        body.parallel(while_, step);
        documented(body, step, text);
        return new Told(body.edit(), step.id(), "step " + step.name() + " added beside " + name(while_));
    }

    /** An event that cuts the steps from one to another short, whenever during these it occurs. */
    public Told cutShort(ElementId first, ElementId last, String event) {
        StepBody body = body(model.get(first));
        Element stretch = body.fresh(ElementKind.ACTION, body.freeName("stretch"));
        Element occurring = fresh(body, event);
        body.enclose(first, last, stretch);
        Element fork = body.fresh(ElementKind.FORK, null);
        body.insertBefore(stretch.id(), fork);
        body.forkInto(fork.id(), List.of(stretch.id(), occurring.id()));
        body.append(occurring);
        documented(body, occurring, event);
        Element end = body.fresh(ElementKind.TERMINATE, null)
                .with(Property.CONTENT, new Expression.FeatureReference(List.of(stretch.id()), Span.NONE));
        body.insertAfter(occurring.id(), end);
        return new Told(
                body.edit(), occurring.id(), "event " + occurring.name() + " cuts short what is from " + name(first));
    }

    /** The first step that is told behind an event that cuts short, or of another way that has none yet. */
    public Told addTo(Way way, String text) {
        Element carrier = Objects.requireNonNull(way.carrier(), "the main way is told from its start");
        if (way.kind() == Story.Kind.INTERRUPTION) {
            StepGraph graph = StepGraph.of(model, model.get(Objects.requireNonNull(carrier.owner())));
            Element end = carrier;
            while (end.kind() != ElementKind.TERMINATE) {
                end = model.get(graph.from(end.id()).getFirst().to());
            }
            return add(end.id(), text);
        }
        StepBody body = body(carrier);
        Element step = fresh(body, text);
        StepGraph graph = StepGraph.of(model, model.get(body.owner()));
        Succession entry = graph.successions().stream()
                .filter(each -> each.carrier().id().equals(carrier.id()))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("this way is no longer there"));
        body.insertOn(entry, step);
        documented(body, step, text);
        return new Told(body.edit(), step.id(), "step " + step.name() + " added");
    }

    /** How the way goes on behind its last step: nowhere yet, at the end, or with another step. */
    public Told goOn(ElementId last, @Nullable ElementId next, boolean ends) {
        StepBody body = body(model.get(last));
        if (next != null && !body.has(next)) {
            throw new IllegalArgumentException("a way goes on with a step of the same stretch");
        }
        body.cut(last);
        if (ends) {
            body.lead(last, StepGraph.DONE);
        } else if (next != null) {
            body.lead(last, body.meeting(next));
        }
        body.tidy();
        return new Told(
                body.edit(),
                last,
                ends
                        ? "the story ends with " + name(last)
                        : name(last) + (next == null ? " ends open" : " goes on with " + name(next)));
    }

    /** A new text of a step; a name that was proposed from the old one is proposed anew. */
    public Told reword(ElementId id, String text) {
        Element step = model.get(id);
        StepBody body = body(step);
        String old = model.inheritance().documentation(step);
        String name = Objects.requireNonNullElse(step.name(), "");
        boolean isProposed = name.replaceFirst("\\d+$", "").equals(ProposedNames.of(old, "step"));
        String proposed = ProposedNames.of(text, "step");
        if (isProposed && !name.equals(proposed)) {
            body.replace(step.withName(body.freeName(proposed)));
        }
        Documenting.with(model, step, text).forEach(body::also);
        return new Told(body.edit(), id, "text of step " + step.name() + " changed");
    }

    /** When a way is taken, in words; and whether it is a rainy day. */
    public Told condition(Way way, String text, boolean isRainy) {
        Element carrier = Objects.requireNonNull(way.carrier(), "the main way has no condition");
        if (way.kind() == Story.Kind.INTERRUPTION) {
            return reword(carrier.id(), text);
        }
        List<Element> put = new ArrayList<>();
        Expression guard = carrier.get(Property.GUARD).orElse(null);
        ElementId condition = guard instanceof Expression.FeatureReference feature
                        && feature.chain().size() == 1
                        && feature.chain().getFirst() instanceof ElementId id
                ? id
                : null;
        if (condition != null && model.has(condition)) {
            Element attribute = model.get(condition);
            if (isProposedCondition(attribute) || isNamedAfterItsText(attribute)) {
                StepBody body = new StepBody(model, useCase);
                String proposed = ProposedNames.of(text, CONDITION);
                put.add(proposed.equals(attribute.name()) ? attribute : attribute.withName(body.freeName(proposed)));
            }
            put.addAll(Documenting.with(model, attribute, text));
        } else if (!text.isBlank()) {
            throw new IllegalArgumentException("the condition is an expression; change it in the notation");
        }
        Edit marked = RainyDays.set(model, carrier, isRainy);
        put.addAll(marked.put());
        return new Told(
                new Edit(put, marked.remove()), carrier.id(), "condition of alternative " + way.label() + " changed");
    }

    private boolean isNamedAfterItsText(Element attribute) {
        return attribute.name() != null
                && attribute
                        .name()
                        .replaceFirst("\\d+$", "")
                        .equals(ProposedNames.of(model.inheritance().documentation(attribute), CONDITION));
    }

    /** Whether an attribute is a condition that nobody has told in words yet. */
    static boolean isProposedCondition(Element attribute) {
        return attribute.name() != null && attribute.name().matches(CONDITION + "\\d*");
    }

    /**
     * Removes a step; what led to it leads to what followed it. A condition that nothing needs any more goes with it.
     */
    public Told remove(ElementId id) {
        StepBody body = body(model.get(id));
        String summary = "step " + name(id) + " removed";
        body.takeOut(id);
        body.tidy();
        Set<ElementId> needless = new HashSet<>();
        body.edit().remove().stream()
                .map(model::find)
                .flatMap(java.util.Optional::stream)
                .forEach(gone -> gone.get(Property.GUARD).ifPresent(guard -> unneeded(guard, gone.id(), needless)));
        return new Told(Ordering.withWhatLeadsThere(model, with(body.edit(), needless)), id, summary);
    }

    /** Moves a step behind another one; before all others if {@code behind} is null. */
    public Told move(ElementId id, @Nullable ElementId behind) {
        StepBody body = body(model.get(id));
        if (id.equals(behind)) {
            throw new IllegalArgumentException("a step does not come behind itself");
        }
        if (behind != null && !body.has(behind)) {
            throw new IllegalArgumentException("a step is moved within the stretch that it stands in");
        }
        Element taken = body.takeOut(id);
        if (behind == null) {
            body.insertFirst(taken);
        } else {
            body.insertAfter(behind, taken);
        }
        body.tidy();
        return new Told(body.edit(), id, "step " + name(id) + " moved");
    }

    private void branch(StepBody body, ElementId insteadOf, ElementId entry, String condition, boolean isRainy) {
        StepBody own = body.owner().equals(useCase.id()) ? body : new StepBody(model, useCase);
        Element attribute = own.fresh(ElementKind.ATTRIBUTE, own.freeName(ProposedNames.of(condition, CONDITION)))
                .with(Property.TYPES, List.of(Reference.to(LibraryNames.id(LibraryNames.BOOLEAN))));
        own.insertBeforeSteps(attribute);
        documented(own, attribute, condition);
        if (own != body) {
            own.edit().put().forEach(body::also);
        }
        Expression guard = new Expression.FeatureReference(List.of(attribute.id()), Span.NONE);
        ElementId node = decision(body, insteadOf);
        body.branch(node, entry, succession -> {
            Element guarded = succession.with(Property.GUARD, guard);
            if (isRainy) {
                body.also(RainyDays.mark(guarded));
            }
            return guarded;
        });
    }

    /** The decide node before a step; a new one if there is none that the main way takes to it. */
    private static ElementId decision(StepBody body, ElementId step) {
        List<Succession> in = body.to(step);
        boolean isDecided = in.size() == 1
                && in.getFirst().guard() == null
                && body.has(in.getFirst().from())
                && body.get(in.getFirst().from()).kind() == ElementKind.DECIDE;
        return isDecided ? in.getFirst().from() : body.decideBefore(step).id();
    }

    /** The step that leads to another one, past merge nodes and decisions. */
    private static @Nullable ElementId before(StepBody body, ElementId step) {
        Set<ElementId> seen = new HashSet<>();
        ElementId at = step;
        while (seen.add(at)) {
            List<Succession> in = body.to(at);
            ElementId from = in.isEmpty() ? null : in.getFirst().from();
            if (from == null || !body.has(from)) {
                return null;
            }
            if (!Telling.isControl(body.get(from))) {
                return from;
            }
            at = from;
        }
        return null;
    }

    private StepBody body(@Nullable Element member) {
        Element behavior = member == null ? useCase : model.get(Objects.requireNonNull(member.owner()));
        if (!model.subtree(useCase.id()).contains(behavior)) {
            throw new IllegalArgumentException(
                    "'" + name(Objects.requireNonNull(member).id())
                            + "' comes from what this use case specialises or stands elsewhere; change it there");
        }
        return new StepBody(model, behavior);
    }

    private static Element fresh(StepBody body, String text) {
        return body.fresh(ElementKind.ACTION, body.freeName(ProposedNames.of(text, "step")));
    }

    private void documented(StepBody body, Element element, String text) {
        Documenting.with(model, element, text).forEach(body::also);
    }

    private String name(ElementId id) {
        return Objects.requireNonNullElse(
                model.names().effectiveName(model.get(id)), model.get(id).kind().title());
    }
}
