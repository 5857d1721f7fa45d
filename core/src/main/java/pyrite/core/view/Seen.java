package pyrite.core.view;

import java.util.Map;
import java.util.Set;
import pyrite.core.view.Placement.Place;

/**
 * What a page shows of a drawing when it asks for it anew.
 *
 * @param places where boxes and ports stand
 * @param resized the keys of boxes that get a new size, because they, or boxes in them, are opened or closed
 */
public record Seen(Map<String, Place> places, Set<String> resized) {
    public static final Seen NOTHING = new Seen(Map.of(), Set.of());

    public Seen {
        places = Map.copyOf(places);
        resized = Set.copyOf(resized);
    }
}
