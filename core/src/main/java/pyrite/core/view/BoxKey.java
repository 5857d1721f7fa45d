package pyrite.core.view;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.structure.UseInContext;

/** The key of a box or port in a drawing: the ids on the way to it from the outermost box, joined by dots. */
public final class BoxKey {
    private BoxKey() {}

    public static String of(List<ElementId> way) {
        return way.stream().map(ElementId::toString).collect(Collectors.joining("."));
    }

    /** The way that a key names; empty if it names none. */
    public static List<ElementId> way(String key) {
        List<Optional<ElementId>> ids =
                Arrays.stream(key.split("\\.")).map(ElementId::read).toList();
        return ids.stream().allMatch(Optional::isPresent)
                ? ids.stream().map(Optional::orElseThrow).toList()
                : List.of();
    }

    /** The key that a box has now: a feature on the way may have been redefined since. */
    public static String current(Model model, String key) {
        List<ElementId> way = way(key);
        return way.size() < 2 ? key : of(UseInContext.current(model, way));
    }
}
