package pyrite.core.story;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import pyrite.core.behavior.StepGraph;
import pyrite.core.behavior.StepGraph.Succession;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.story.Story.Ending;
import pyrite.core.story.Story.Way;

/** What is missing in a story. A use case without steps is not told yet, and nothing is missing in it. */
public final class StoryChecks {
    private final Model model;
    private final Element useCase;
    private final Story story;
    private final List<Gap> gaps = new ArrayList<>();

    /** What kind of thing is missing. */
    public enum Kind {
        UNREACHED,
        UNTOLD,
        ENDLESS,
        IDLE
    }

    /** @param element the step, condition or actor it is about */
    public record Gap(Kind kind, Element element, String sentence) {}

    private StoryChecks(Model model, Element useCase) {
        this.model = model;
        this.useCase = useCase;
        this.story = Story.of(model, useCase);
    }

    public static List<Gap> of(Model model, Element useCase) {
        StoryChecks checks = new StoryChecks(model, useCase);
        if (!StepGraph.of(model, useCase).steps().isEmpty()) {
            checks.unreached(useCase, new HashSet<>());
            checks.story.ways().forEach(checks::way);
            checks.idle();
        }
        return List.copyOf(checks.gaps);
    }

    private void unreached(Element behavior, Set<ElementId> seen) {
        if (!seen.add(behavior.id())) {
            return;
        }
        StepGraph graph = StepGraph.of(model, behavior);
        Set<ElementId> reached = graph.reachedFrom(graph.first());
        for (Element step : graph.steps()) {
            if (!reached.contains(step.id())) {
                add(Kind.UNREACHED, step, "No way leads to step '" + name(step) + "'");
            }
            decisions(graph, step);
            if (step.kind() == ElementKind.ACTION) {
                unreached(step, seen);
            }
        }
    }

    private void decisions(StepGraph graph, Element step) {
        if (step.kind() != ElementKind.DECIDE) {
            return;
        }
        List<Succession> out = graph.from(step.id());
        boolean isComplete = out.stream().anyMatch(each -> each.isElse() || each.guard() == null);
        if (!isComplete) {
            add(
                    Kind.UNTOLD,
                    step,
                    out.isEmpty()
                            ? "A decision has no branches"
                            : "A decision does not say what happens otherwise; give it a branch with 'else'");
        }
    }

    private void way(Way way) {
        String which = way.label().isEmpty() ? "The main story" : "Alternative " + way.label();
        Element at = way.carrier() == null ? useCase : way.carrier();
        boolean isAlternative = way.kind() == Story.Kind.ALTERNATIVE || way.kind() == Story.Kind.RAINY;
        if (isAlternative && way.condition().isBlank()) {
            add(Kind.UNTOLD, at, which + " does not say when it is taken");
        }
        if (way.lines().isEmpty() && !(way.ending() instanceof Ending.GoesOn)) {
            add(Kind.UNTOLD, at, which + " has no steps");
        } else if (way.ending() instanceof Ending.Open) {
            add(
                    Kind.ENDLESS,
                    way.lines().getLast().step(),
                    which + " does not say how it goes on behind step "
                            + way.lines().getLast().label());
        } else if (way.label().isEmpty() && way.ending() instanceof Ending.GoesOn(var _, String label)) {
            add(
                    Kind.ENDLESS,
                    way.lines().getLast().step(),
                    "The main story goes back to step " + label + " and has no end");
        }
    }

    /** Actors that no step names. */
    private void idle() {
        Actors actors = Actors.of(model, useCase);
        Set<ElementId> busy = new HashSet<>();
        story.ways().forEach(way -> actors.in(way.condition()).forEach(actor -> busy.add(actor.id())));
        story.lines().forEach(line -> {
            actors.in(line.text()).forEach(actor -> busy.add(actor.id()));
            actors.of(line).ifPresent(actor -> busy.add(actor.id()));
        });
        Actors.all(model, useCase).stream()
                .filter(actor -> !busy.contains(actor.id()))
                .forEach(actor -> add(Kind.IDLE, actor, "Actor '" + name(actor) + "' does nothing in the story"));
    }

    private void add(Kind kind, Element element, String sentence) {
        gaps.add(new Gap(kind, element, sentence));
    }

    private String name(Element element) {
        return Objects.requireNonNullElse(
                model.names().effectiveName(element), element.kind().title());
    }
}
