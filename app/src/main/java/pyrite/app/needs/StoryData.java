package pyrite.app.needs;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.app.workspace.Labels;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.story.Actors;
import pyrite.core.story.StepRequirements;
import pyrite.core.story.Story;
import pyrite.core.story.Story.Ending;
import pyrite.core.story.StoryChecks;
import pyrite.core.story.StoryFlows;
import pyrite.core.story.Turning;

/**
 * A story as its page shows it.
 *
 * @param uncovered the number of steps without a requirement
 * @param toTurn the number of plain steps that are not turned yet
 * @param flows the number of flows between turned steps that are not made yet
 * @param gaps what is missing in the story
 */
record StoryData(int revision, List<Told> ways, int uncovered, int toTurn, int flows, List<Gap> gaps) {
    /**
     * @param leaves the id of the step in whose place, or behind which, the way is taken
     * @param isBehind whether that step has been taken before
     * @param from the label of the way that it leaves
     * @param condition when it is taken
     * @param path the ids of the steps of one telling from the start through this way to its end
     */
    record Told(
            String label,
            String kind,
            String title,
            @Nullable String carrier,
            @Nullable String leaves,
            boolean isBehind,
            String from,
            String condition,
            List<Step> steps,
            End end,
            List<String> path) {}

    /**
     * @param kind action for a plain step, else what it has become
     * @param own whether it stands in this use case and not in a general one
     */
    record Step(
            String id,
            String label,
            String text,
            String who,
            String kind,
            String became,
            boolean own,
            List<Linked> requirements) {}

    /** @param doubted whether the link needs recheck */
    record Linked(String id, String label, boolean doubted) {}

    /** @param how open, ends or goes */
    record End(String how, @Nullable String step, String label) {}

    record Gap(String element, String sentence) {}

    static StoryData of(int revision, Model model, Element useCase, Map<ElementId, Set<ElementId>> doubted) {
        Story story = Story.of(model, useCase);
        Actors actors = Actors.of(model, useCase);
        StepRequirements requirements = new StepRequirements(model);
        List<Told> ways = story.ways().stream()
                .map(way -> told(
                        story,
                        way,
                        way.lines().stream()
                                .map(line -> step(model, useCase, line, actors, requirements, doubted))
                                .toList()))
                .toList();
        int uncovered = (int) ways.stream()
                .flatMap(way -> way.steps().stream())
                .filter(step -> step.requirements().isEmpty())
                .count();
        return new StoryData(
                revision,
                ways,
                uncovered,
                (int) story.lines().stream()
                        .filter(line -> line.step().kind() == ElementKind.ACTION
                                && Turning.became(model, line.step()).isEmpty())
                        .count(),
                new StoryFlows(model, useCase).proposals().size(),
                StoryChecks.of(model, useCase).stream()
                        .map(gap -> new Gap(gap.element().id().toString(), gap.sentence()))
                        .toList());
    }

    private static Told told(Story story, Story.Way way, List<Step> steps) {
        return new Told(
                way.label(),
                way.kind().name().toLowerCase(Locale.ROOT),
                way.kind().title(),
                way.carrier() == null ? null : way.carrier().id().toString(),
                way.leaves() == null ? null : way.leaves().toString(),
                way.isBehind(),
                way.from(),
                way.condition(),
                steps,
                switch (way.ending()) {
                    case Ending.Open _ -> new End("open", null, "");
                    case Ending.Ends _ -> new End("ends", null, "");
                    case Ending.GoesOn(ElementId step, String label) -> new End("goes", step.toString(), label);
                },
                story.path(way).stream()
                        .map(line -> line.step().id().toString())
                        .toList());
    }

    private static Step step(
            Model model,
            Element useCase,
            Story.Line line,
            Actors actors,
            StepRequirements requirements,
            Map<ElementId, Set<ElementId>> doubted) {
        Element step = line.step();
        Set<ElementId> inDoubt = doubted.getOrDefault(step.id(), Set.of());
        return new Step(
                step.id().toString(),
                line.label(),
                line.text(),
                actors.of(line)
                        .map(actor -> Actors.spaced(new Labels(model).name(actor)))
                        .orElse(""),
                step.kind().name().toLowerCase(Locale.ROOT),
                Turning.inWords(model, step),
                model.owners(step).contains(useCase),
                requirements.of(step).stream()
                        .map(requirement -> new Linked(
                                requirement.id().toString(),
                                label(model, requirement),
                                inDoubt.contains(requirement.id())))
                        .toList());
    }

    private static String label(Model model, Element requirement) {
        String id = RequirementIds.of(model, requirement);
        return id.isEmpty() ? Objects.requireNonNullElse(requirement.name(), "requirement") : id;
    }
}
