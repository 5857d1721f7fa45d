package pyrite.core.notation;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import org.apache.commons.text.similarity.LevenshteinDistance;

/** Finds what somebody may have meant who wrote a name that is not there. */
final class Nearest {
    /** So many names are looked at; who has more of them in one place is told without a proposal. */
    private static final int MOST = 20_000;

    private Nearest() {}

    /** "; did you mean 'level'?" where a name is near enough to have been meant. */
    static String to(String wanted, Collection<String> names) {
        if (wanted.length() < 2 || names.size() > MOST) {
            return "";
        }
        LevenshteinDistance distance =
                new LevenshteinDistance(wanted.length() < 4 ? 1 : Math.max(2, wanted.length() / 3));
        List<String> candidates = new ArrayList<>();
        names.forEach(name -> {
            if (distance.apply(wanted, name) >= 0) {
                candidates.add(name);
            }
        });
        return candidates.stream()
                .min(Comparator.comparing(name -> distance.apply(wanted, name)))
                .map(name -> "; did you mean '" + name + "'?")
                .orElse("");
    }
}
