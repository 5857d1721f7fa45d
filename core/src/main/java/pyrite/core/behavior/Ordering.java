package pyrite.core.behavior;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.structure.Detaching;
import pyrite.core.trace.Removal;

/**
 * What gestures on a drawing of steps do to their order: a line from one step to another, and steps taken away.
 *
 * <p>Each method throws an {@link IllegalArgumentException} with the reason if it cannot be done.
 */
public final class Ordering {
    private Ordering() {}

    /** Whether all of some elements are steps of behaviours. */
    public static boolean areSteps(Model model, List<Element> elements) {
        return elements.stream()
                .allMatch(element -> StepGraph.isStep(element.kind())
                        && element.owner() != null
                        && isOrdering(model.get(element.owner()).kind()));
    }

    /** What a state machine has inside is led by transitions, not put in an order. */
    private static boolean isOrdering(ElementKind owner) {
        return owner.tellsWhatHappens() && owner != ElementKind.STATE_DEFINITION && !StateGraph.isState(owner);
    }

    /** One step comes behind another; where others lead to it already, they come together at a merge node. */
    public static Edit connect(Model model, Element from, Element to) {
        if (!Objects.equals(from.owner(), to.owner())) {
            throw new IllegalArgumentException(
                    "these steps stand in different behaviours; a succession joins steps of one");
        }
        StepBody body = new StepBody(model, model.get(Objects.requireNonNull(from.owner())));
        if (body.from(from.id()).stream().anyMatch(each -> each.to().equals(to.id()))) {
            throw new IllegalArgumentException(
                    "'" + name(model, to) + "' comes behind '" + name(model, from) + "' already");
        }
        boolean parts = from.kind() == ElementKind.DECIDE || from.kind() == ElementKind.FORK;
        if (!parts && !body.from(from.id()).isEmpty()) {
            throw new IllegalArgumentException(
                    "something comes behind '" + name(model, from) + "' already; a decide or fork node parts the ways");
        }
        boolean joins = to.kind() == ElementKind.MERGE || to.kind() == ElementKind.JOIN;
        body.lead(from.id(), joins || body.to(to.id()).isEmpty() ? to.id() : body.meeting(to.id()));
        return body.edit();
    }

    /** Takes steps away; what led to one leads to what followed it. */
    public static Edit remove(Model model, List<Element> steps) {
        Map<ElementId, StepBody> bodies = new LinkedHashMap<>();
        for (Element step : steps) {
            Element owner = model.get(Objects.requireNonNull(step.owner()));
            bodies.computeIfAbsent(owner.id(), _ -> new StepBody(model, owner)).takeOut(step.id());
        }
        List<Element> put = new ArrayList<>();
        Set<ElementId> removed = new LinkedHashSet<>();
        bodies.values().forEach(body -> {
            body.tidy();
            put.addAll(body.edit().put());
            removed.addAll(body.edit().remove());
        });
        return withWhatLeadsThere(model, new Edit(put, removed));
    }

    /** The same edit; with what it removes go the flows and links that lead there from elsewhere. */
    public static Edit withWhatLeadsThere(Model model, Edit edit) {
        List<Element> gone =
                edit.remove().stream().flatMap(id -> model.find(id).stream()).toList();
        Edit cut = Removal.of(model, Detaching.of(model, gone).tops()).edit();
        return Edit.joined(List.of(cut, edit));
    }

    private static String name(Model model, Element step) {
        return Objects.requireNonNullElse(
                model.names().effectiveName(step), step.kind().title());
    }
}
