package pyrite.core.notation;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import org.apache.commons.text.similarity.LevenshteinDistance;

/** Suggests which known name was meant by one that cannot be resolved. */
public final class SimilarNames {
    /** So many names are looked at; who has more of them in one place is told without a proposal. */
    private static final int MOST = 20_000;

    private SimilarNames() {}

    /** "; did you mean 'level'?" where a name is near enough to have been meant. */
    public static String to(String requested, Collection<String> names) {
        if (requested.length() < 2 || names.size() > MOST) {
            return "";
        }
        LevenshteinDistance distance =
                new LevenshteinDistance(requested.length() < 4 ? 1 : Math.max(2, requested.length() / 3));
        List<String> candidates = new ArrayList<>();
        names.forEach(name -> {
            if (!name.equals(requested) && distance.apply(requested, name) >= 0) {
                candidates.add(name);
            }
        });
        return candidates.stream()
                .min(Comparator.comparing(name -> distance.apply(requested, name)))
                .map(name -> "; did you mean '" + name + "'?")
                .orElse("");
    }
}
