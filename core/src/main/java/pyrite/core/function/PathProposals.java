package pyrite.core.function;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.function.ExchangeTable.Row;
import pyrite.core.function.FunctionTree.Use;
import pyrite.core.function.PartTree.Part;

/** Finds the ways that lead from one function to another along what is exchanged, the shortest first. */
public final class PathProposals {
    private static final int MOST = 12;
    private static final int MOST_TRIED = 20_000;
    private static final int LONGEST = 24;

    private final Map<Place, Set<Place>> next = new LinkedHashMap<>();

    /** A function and who performs it; null if nobody does, or several may. */
    public record Place(Use use, @Nullable Part part) {}

    private PathProposals(ExchangeTable table, int depth) {
        for (Row row : table.rows()) {
            Place from = place(row.from(), row.fromPart(), depth);
            Place to = place(row.to(), row.toPart(), depth);
            if (!from.equals(to)) {
                next.computeIfAbsent(from, _ -> new LinkedHashSet<>()).add(to);
                next.computeIfAbsent(to, _ -> new LinkedHashSet<>());
            }
        }
    }

    /** @param depth how deep functions are named; 1 for those that the whole function is made of */
    public static PathProposals of(ExchangeTable table, int depth) {
        return new PathProposals(table, depth);
    }

    /** Of a function that is made of others it is left open who performs it: several may. */
    private static Place place(Use use, @Nullable Part part, int depth) {
        Use at = use;
        while (at.way().size() > depth && at.within() != null) {
            at = at.within();
        }
        return new Place(at, at.equals(use) ? part : null);
    }

    /** What a way can begin or end at. */
    public List<Place> places() {
        return List.copyOf(next.keySet());
    }

    /** The ways between two functions that pass through no place twice. */
    public List<List<Place>> between(Use from, Use to) {
        List<List<Place>> found = new ArrayList<>();
        Deque<List<Place>> open = new ArrayDeque<>();
        next.keySet().stream().filter(place -> place.use().equals(from)).forEach(place -> open.add(List.of(place)));
        int tried = 0;
        while (!open.isEmpty() && found.size() < MOST && tried++ < MOST_TRIED) {
            List<Place> way = open.removeFirst();
            if (way.size() > 1 && way.getLast().use().equals(to)) {
                found.add(way);
            } else if (way.size() < LONGEST) {
                next.getOrDefault(way.getLast(), Set.of()).stream()
                        .filter(place -> !way.contains(place))
                        .forEach(place -> {
                            List<Place> longer = new ArrayList<>(way);
                            longer.add(place);
                            open.addLast(longer);
                        });
            }
        }
        return found;
    }
}
