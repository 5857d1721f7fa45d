package pyrite.core.story;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * How a use case is told: the main way first, then each way that leaves another one. At a decide node the main way goes
 * on with {@code else}, or else with the first branch that has no condition; every other branch is an alternative.
 *
 * @param ways the main way, then the others in the order in which they are met; a way comes behind the one it leaves
 */
public record Story(Element useCase, List<Way> ways) {
    /** What a way is to the one that it leaves. */
    public enum Kind {
        MAIN("main story"),
        ALTERNATIVE("alternative"),
        /** What goes wrong: an alternative marked with {@code Stories::RainyDay}. */
        RAINY("rainy day"),
        /** An event that cuts a stretch of steps short, whenever in it it occurs. */
        INTERRUPTION("cuts short");

        private final String title;

        Kind(String title) {
            this.title = title;
        }

        public String title() {
            return title;
        }
    }

    /**
     * A step of a way.
     *
     * @param label its number, such as 3, 3B1 (of several at the same time) or 2a1 (of an alternative)
     * @param text its documentation, else its notation or name
     */
    public record Line(String label, Element step, String text) {}

    /** How a way goes on behind its last step. */
    public sealed interface Ending {
        /** Nothing is told of it. */
        record Open() implements Ending {}

        /** The story ends. */
        record Ends() implements Ending {}

        /** It goes on with a step that is told elsewhere. */
        record GoesOn(ElementId step, String label) implements Ending {}
    }

    /**
     * @param label the number of the step at which it leaves, and a letter; empty for the main way
     * @param carrier the succession that leads into it, or the event that cuts short; null for the main way
     * @param leaves the step in whose place it comes, or behind which if it comes behind the last; null for the main
     *     way
     * @param isBehind whether that step has been taken when this way is
     * @param from the label of the way that it leaves
     * @param condition when it is taken, in words; empty if nothing is told of it
     */
    public record Way(
            String label,
            Kind kind,
            @Nullable Element carrier,
            @Nullable ElementId leaves,
            boolean isBehind,
            String from,
            String condition,
            List<Line> lines,
            Ending ending) {
        public Way {
            lines = List.copyOf(lines);
        }
    }

    public Story {
        ways = List.copyOf(ways);
    }

    public static Story of(Model model, Element useCase) {
        return new Telling(model, useCase).tell();
    }

    /** Whether such an element has a story. */
    public static boolean isToldOf(ElementKind kind) {
        return kind == ElementKind.USE_CASE_DEFINITION || kind == ElementKind.USE_CASE;
    }

    public Way main() {
        return ways.getFirst();
    }

    public Optional<Way> way(String label) {
        return ways.stream().filter(way -> way.label().equals(label)).findFirst();
    }

    /** All steps that are told, in the order of the ways. */
    public List<Line> lines() {
        return ways.stream().flatMap(way -> way.lines().stream()).toList();
    }

    /**
     * One telling from the start to the end: what comes before a way, the way itself, and what it goes on with. A step
     * that comes again ends it.
     */
    public List<Line> path(Way way) {
        List<Line> path = new ArrayList<>(before(way));
        Set<ElementId> taken =
                path.stream().map(line -> line.step().id()).collect(Collectors.toCollection(HashSet::new));
        Way at = way;
        int next = 0;
        while (at != null) {
            for (Line line : at.lines().subList(next, at.lines().size())) {
                if (!taken.add(line.step().id())) {
                    return path;
                }
                path.add(line);
            }
            if (!(at.ending() instanceof Ending.GoesOn(ElementId step, var _))) {
                return path;
            }
            at = wayOf(step).orElse(null);
            next = at == null ? 0 : place(at, step);
        }
        return path;
    }

    private List<Line> before(Way way) {
        Way left = way.leaves() == null ? null : way(way.from()).orElse(null);
        if (left == null) {
            return List.of();
        }
        List<Line> path = new ArrayList<>(before(left));
        int place = place(left, Objects.requireNonNull(way.leaves()));
        path.addAll(left.lines().subList(0, place + (way.isBehind() ? 1 : 0)));
        return path;
    }

    private static int place(Way way, ElementId step) {
        for (int i = 0; i < way.lines().size(); i++) {
            if (way.lines().get(i).step().id().equals(step)) {
                return i;
            }
        }
        throw new IllegalArgumentException("the step is told in another way");
    }

    public Optional<Way> wayOf(ElementId step) {
        return ways.stream()
                .filter(way ->
                        way.lines().stream().anyMatch(line -> line.step().id().equals(step)))
                .findFirst();
    }
}
