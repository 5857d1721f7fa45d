package pyrite.core.verification;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.hipparchus.distribution.continuous.BetaDistribution;

/**
 * Judges requirements over several runs with other random values: by the share of runs in which each holds, with the
 * confidence interval of Clopper and Pearson (Biometrika 26, 1934).
 */
final class Replications {
    private static final double CONFIDENCE = 0.95;

    private final double leastShare;
    private final Map<String, List<Judgement>> bySubject = new LinkedHashMap<>();

    /** @param leastShare the share of runs, from 0 to 1, in which a requirement must hold to be met */
    Replications(double leastShare) {
        this.leastShare = leastShare;
    }

    /** Takes what was found in one more run. */
    void add(List<Judgement> judgements) {
        judgements.forEach(judgement -> bySubject
                .computeIfAbsent(judgement.requirement() + " " + judgement.subject(), _ -> new ArrayList<>())
                .add(judgement));
    }

    List<Judgement> overall() {
        return bySubject.values().stream().map(this::overall).toList();
    }

    private Judgement overall(List<Judgement> runs) {
        Fingerprint rests = runs.stream().map(Judgement::fingerprint).reduce(Fingerprint.NONE, Fingerprint::and);
        Judgement worst = runs.stream()
                .min(Comparator.comparing((Judgement run) -> rank(run.verdict()))
                        .thenComparing(run -> run.margin() == null
                                ? Double.POSITIVE_INFINITY
                                : run.margin().shown()))
                .orElseThrow()
                .with(rests);
        if (worst.verdict() == VerdictKind.ERROR || worst.verdict() == VerdictKind.INCONCLUSIVE) {
            return worst;
        }
        int passes = (int)
                runs.stream().filter(run -> run.verdict() == VerdictKind.PASS).count();
        Interval share = Interval.of(passes, runs.size());
        return worst.with(
                verdict(passes, runs.size(), share),
                sentence(passes, runs.size(), share) + "; the worst: " + worst.reason());
    }

    private static int rank(VerdictKind kind) {
        return switch (kind) {
            case ERROR -> 0;
            case INCONCLUSIVE -> 1;
            case FAIL -> 2;
            case PASS -> 3;
        };
    }

    /** Where the interval has the least share inside, more runs are needed; all of them passing is enough for all. */
    private VerdictKind verdict(int passes, int runs, Interval share) {
        if (leastShare >= 1) {
            return passes == runs ? VerdictKind.PASS : VerdictKind.FAIL;
        }
        return share.low() >= leastShare
                ? VerdictKind.PASS
                : share.high() < leastShare ? VerdictKind.FAIL : VerdictKind.INCONCLUSIVE;
    }

    private String sentence(int passes, int runs, Interval share) {
        String found = String.format(
                Locale.ROOT,
                "holds in %d of %d runs, %.1f %% (with 95 %% confidence %.1f to %.1f %%)",
                passes,
                runs,
                100.0 * passes / runs,
                100 * share.low(),
                100 * share.high());
        return leastShare >= 1
                ? found
                : found + String.format(Locale.ROOT, ", of which %.1f %% are needed", 100 * leastShare);
    }

    /** The confidence interval of a share. */
    record Interval(double low, double high) {
        static Interval of(int successes, int trials) {
            double tail = (1 - CONFIDENCE) / 2;
            double low = successes == 0
                    ? 0
                    : new BetaDistribution(successes, trials - successes + 1).inverseCumulativeProbability(tail);
            double high = successes == trials
                    ? 1
                    : new BetaDistribution(successes + 1, trials - successes).inverseCumulativeProbability(1 - tail);
            return new Interval(low, high);
        }
    }
}
