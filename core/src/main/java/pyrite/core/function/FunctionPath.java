package pyrite.core.function;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.function.ExchangeTable.Row;
import pyrite.core.function.FunctionTree.Use;
import pyrite.core.function.PartTree.Part;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;

/**
 * A way through functions and the parts that perform them, and whether what it says still holds: that the functions are
 * there, that the parts perform them, that something goes from each to the next, and that it is carried.
 *
 * @param path the occurrence that says it
 * @param whole what the parts are parts of
 * @param function the function that those of the path are part of; null if there is none
 * @param combined the attributes of the path
 */
public record FunctionPath(
        Element path,
        Element whole,
        @Nullable Element function,
        List<Stage> stages,
        List<Step> steps,
        List<Combined> combined) {
    /**
     * A function on the way.
     *
     * @param element what says it in the path
     * @param definition the function; null if none is said
     * @param uses where it is used in the whole function, as far as they lie on the way
     * @param part who performs it; null if none is said
     * @param fault why it does not hold; empty if it does
     */
    public record Stage(
            Element element,
            @Nullable Element definition,
            Set<Use> uses,
            @Nullable Part part,
            String fault) {}

    /**
     * From a stage to the next.
     *
     * @param rows what goes
     * @param fault why it does not hold; empty if it does
     */
    public record Step(List<Row> rows, String fault) {}

    /**
     * An attribute of the path that combines those of its stages.
     *
     * @param left names of stages that have such an attribute and are left out of it
     */
    public record Combined(Element attribute, List<String> left) {}

    public FunctionPath {
        stages = List.copyOf(stages);
        steps = List.copyOf(steps);
        combined = List.copyOf(combined);
    }

    /** All that is broken, a sentence each. */
    public List<String> faults() {
        List<String> faults = new ArrayList<>();
        for (int i = 0; i < stages.size(); i++) {
            faults.add(stages.get(i).fault());
            faults.add(i < steps.size() ? steps.get(i).fault() : "");
        }
        combined.stream()
                .filter(each -> !each.left().isEmpty())
                .forEach(each ->
                        faults.add("'" + each.attribute().name() + "' leaves out " + String.join(", ", each.left())));
        return faults.stream().filter(fault -> !fault.isEmpty()).toList();
    }

    public boolean isBroken() {
        return !faults().isEmpty();
    }

    /** What a drawing of functions or parts marks: functions, parts, flows and connections of the path. */
    public Set<ElementId> marked() {
        Set<ElementId> marked = stages.stream()
                .flatMap(stage -> stage.uses().stream())
                .map(use -> use.function().id())
                .collect(Collectors.toSet());
        stages.stream()
                .map(Stage::part)
                .filter(Objects::nonNull)
                .forEach(part -> part.way().forEach(marked::add));
        steps.stream().flatMap(step -> step.rows().stream()).forEach(row -> {
            row.flows().forEach(flow -> marked.add(flow.id()));
            row.carriedBy().forEach(carrier -> marked.add(carrier.id()));
        });
        return marked;
    }
}
