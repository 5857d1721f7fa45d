package pyrite.core.story;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.LongRange;
import org.jspecify.annotations.Nullable;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.story.Story.Ending;

/**
 * Whatever is done to a story in whatever order, it tells what a plain list of steps with lists of alternatives does to
 * which the same was done; and its text, read again, tells the same.
 */
class StoryEditingLawTest {
    /** An alternative in the plain list: its steps, and the step that it goes on with. */
    private static final class Other {
        private final List<String> steps = new ArrayList<>();
        private @Nullable String next;
        private boolean isOpen = true;
    }

    private final List<String> main = new ArrayList<>();
    private final Map<String, List<Other>> others = new HashMap<>();
    private Model model = Models.of("use case def U;");
    private int number;

    @Property(tries = 60)
    void aStoryIsWhatAPlainListBecomes(@ForAll @LongRange(min = 0, max = 1_000_000) long seed) {
        main.clear();
        others.clear();
        model = Models.of("use case def U;");
        number = 0;
        Random random = new Random(seed);
        for (int i = 0; i < 25; i++) {
            act(random);
            assertThat(told(model)).as("seed %d, act %d", seed, i).isEqualTo(expected());
        }
        String text = NotationWriter.write(model, model.ownRoots());
        assertThat(told(Models.read(text))).as(text).isEqualTo(expected());
    }

    private void act(Random random) {
        switch (main.isEmpty() ? 0 : random.nextInt(7)) {
            case 0, 1 -> add(random);
            case 2 -> remove(random);
            case 3 -> move(random);
            case 4 -> branch(random);
            case 5 -> lengthen(random);
            default -> goOn(random);
        }
    }

    private void add(Random random) {
        int at = random.nextInt(main.size() + 1);
        String name = "s" + number++;
        apply(editing().add(at == 0 ? null : step(main.get(at - 1)).id(), name));
        main.add(at, name);
    }

    private void remove(Random random) {
        String name = main.get(random.nextInt(main.size()));
        if (main.size() > 1 && isPlain(name)) {
            apply(editing().remove(step(name).id()));
            main.remove(name);
        }
    }

    /** Whether nothing leaves at it or comes back to it. */
    private boolean isPlain(String name) {
        return !others.containsKey(name)
                && others.values().stream().flatMap(List::stream).noneMatch(other -> name.equals(other.next));
    }

    private void move(Random random) {
        String name = main.get(random.nextInt(main.size()));
        int at = random.nextInt(main.size());
        if (isPlain(name) && main.indexOf(name) != at) {
            main.remove(name);
            apply(editing()
                    .move(
                            step(name).id(),
                            at == 0 ? null : step(main.get(at - 1)).id()));
            main.add(at, name);
        }
    }

    private void branch(Random random) {
        String at = main.get(random.nextInt(main.size()));
        String name = "s" + number++;
        apply(editing().alternative(step(at).id(), "when " + name, name, random.nextBoolean()));
        Other other = new Other();
        other.steps.add(name);
        others.computeIfAbsent(at, _ -> new ArrayList<>()).add(other);
    }

    private @Nullable Other any(Random random) {
        List<Other> all = others.entrySet().stream()
                .sorted(Map.Entry.comparingByKey())
                .flatMap(each -> each.getValue().stream())
                .toList();
        return all.isEmpty() ? null : all.get(random.nextInt(all.size()));
    }

    private void lengthen(Random random) {
        Other other = any(random);
        if (other != null) {
            int at = random.nextInt(other.steps.size());
            String name = "s" + number++;
            apply(editing().add(step(other.steps.get(at)).id(), name));
            other.steps.add(at + 1, name);
        }
    }

    private void goOn(Random random) {
        Other other = any(random);
        if (other != null) {
            int what = random.nextInt(3);
            String next = what == 0 ? main.get(random.nextInt(main.size())) : null;
            apply(editing()
                    .goOn(
                            step(other.steps.getLast()).id(),
                            next == null ? null : step(next).id(),
                            what == 1));
            other.next = next;
            other.isOpen = what == 2;
        }
    }

    private StoryEditing editing() {
        return new StoryEditing(model, Models.element(model, "Test::U"));
    }

    private Element step(String name) {
        return Models.element(model, "Test::U::" + name);
    }

    private void apply(StoryEditing.Told told) {
        switch (model.apply(told.edit())) {
            case EditResult.Applied(Model next, var _) -> model = next;
            case EditResult.Refused(var problems) -> throw new AssertionError(problems.toString());
        }
    }

    /** The steps and ending of each way, in no particular order. */
    private List<String> expected() {
        List<String> all = new ArrayList<>();
        all.add(main + (main.isEmpty() ? " open" : " ends"));
        others.forEach((at, each) -> each.forEach(other -> all.add(at + ": " + other.steps + " "
                + (other.next == null ? other.isOpen ? "open" : "ends" : "goes on with " + other.next))));
        return all.stream().sorted().toList();
    }

    private static List<String> told(Model model) {
        return Story.of(model, Models.element(model, "Test::U")).ways().stream()
                .map(way -> (way.leaves() == null ? "" : model.get(way.leaves()).name() + ": ")
                        + way.lines().stream()
                                .map(line -> line.step().name())
                                .collect(Collectors.joining(", ", "[", "]"))
                        + switch (way.ending()) {
                            case Ending.Open _ -> " open";
                            case Ending.Ends _ -> " ends";
                            case Ending.GoesOn(var step, var _) ->
                                " goes on with " + model.get(step).name();
                        })
                .sorted()
                .toList();
    }
}
