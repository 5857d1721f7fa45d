package pyrite.core.view;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Predicate;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.TraceGraph;

/**
 * What a requirement without a verdict still needs to get one.
 *
 * @param things what is missing, in words; empty if only a run is missing
 * @param runnable the runnable cases that verify it
 */
public record VerdictPrerequisites(List<String> things, List<Element> runnable) {
    public VerdictPrerequisites {
        things = List.copyOf(things);
        runnable = List.copyOf(runnable);
    }

    /** @param isRunnable tells of a case whether it is a run */
    public static VerdictPrerequisites of(Model model, Element requirement, Predicate<Element> isRunnable) {
        List<Element> cases = ends(model, requirement, LinkKind.VERIFY);
        List<String> things = new ArrayList<>();
        if (ends(model, requirement, LinkKind.SATISFY).isEmpty()) {
            things.add("a part that satisfies it");
        }
        if (FeatureSheet.of(model, requirement).equations().isEmpty()) {
            things.add("a constraint");
        }
        if (cases.isEmpty()) {
            things.add("a case that verifies it");
        }
        return new VerdictPrerequisites(
                things, cases.stream().filter(isRunnable).toList());
    }

    private static List<Element> ends(Model model, Element requirement, LinkKind kind) {
        return TraceGraph.of(model).of(requirement.id()).stream()
                .filter(link -> link.kind().equals(kind))
                .map(link -> model.get(link.other(requirement.id())))
                .distinct()
                .toList();
    }

    /** One sentence for whoever looks for the verdict. */
    public String sentence() {
        if (things.isEmpty()) {
            return runnable.isEmpty()
                    ? "No verdict yet: the case that verifies it cannot be run; type it by SimulatedCheck."
                    : "No verdict yet: nothing that verifies it has run.";
        }
        int last = things.size() - 1;
        return "No verdict yet. It needs " + (last == 0 ? "" : String.join(", ", things.subList(0, last)) + " and ")
                + things.get(last) + ".";
    }
}
