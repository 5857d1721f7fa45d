package pyrite.core.story;

import java.util.List;
import java.util.Optional;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/**
 * The steps of a use case in the order in which somebody told them while playing the system, beside the story: whether
 * one of its ways goes like that.
 *
 * @param way the way that goes with them the longest
 * @param same so many steps are the same from the beginning
 */
public record StoryComparison(Story story, Story.Way way, List<Story.Line> path, List<ElementId> told, int same) {
    /** @param told the steps in the order in which they were told; empty if they are of no story */
    public static Optional<StoryComparison> of(Model model, List<Element> told) {
        return told.stream()
                .findFirst()
                .flatMap(step -> useCase(model, step))
                .map(useCase -> of(
                        Story.of(model, useCase), told.stream().map(Element::id).toList()));
    }

    private static Optional<Element> useCase(Model model, Element step) {
        Element at = step;
        while (at != null && !Story.isToldOf(at.kind())) {
            at = at.owner() == null ? null : model.find(at.owner()).orElse(null);
        }
        return Optional.ofNullable(at);
    }

    /** The way that goes with them the longest; of several the whole one, then the first. */
    private static StoryComparison of(Story story, List<ElementId> told) {
        return story.ways().stream()
                .map(way -> {
                    List<Story.Line> path = story.path(way);
                    return new StoryComparison(story, way, path, told, same(path, told));
                })
                .reduce((best, next) -> next.isBetterThan(best) ? next : best)
                .orElseThrow();
    }

    private boolean isBetterThan(StoryComparison other) {
        return same > other.same || same == other.same && follows() && !other.follows();
    }

    public Element useCase() {
        return story.useCase();
    }

    private static int same(List<Story.Line> path, List<ElementId> told) {
        int same = 0;
        while (same < path.size()
                && same < told.size()
                && path.get(same).step().id().equals(told.get(same))) {
            same++;
        }
        return same;
    }

    /** Whether the whole way was told and nothing else. */
    public boolean follows() {
        return same == path.size() && same == told.size();
    }

    /** How it stands, with both sides of the first difference. */
    public String sentence() {
        String name = way.label().isEmpty() ? "the main story" : way.kind().title() + " " + way.label();
        if (follows()) {
            return "told as " + name + ", all " + same + " steps";
        }
        String expected = same < path.size()
                ? "step " + path.get(same).label() + " comes, "
                        + quoted(path.get(same).text())
                : "the story ends";
        String instead = same < told.size() ? "told was " + told(told.get(same)) : "nothing more was told";
        return "as " + name + " for " + same + (same == 1 ? " step" : " steps") + "; then " + expected + ", but "
                + instead;
    }

    private String told(ElementId step) {
        return story.lines().stream()
                .filter(line -> line.step().id().equals(step))
                .findFirst()
                .map(line -> "step " + line.label() + ", " + quoted(line.text()))
                .orElse("what is no step of it");
    }

    private static String quoted(String text) {
        return "'" + text + "'";
    }
}
