package pyrite.core.dynamics;

import java.util.List;
import java.util.Locale;

/**
 * Creates the {@link RunFailure}s of one system. Each message names the equation or condition and says what would help.
 */
final class RunFailures {
    private final SortedSystem system;
    private final RunSettings settings;

    RunFailures(SortedSystem system, RunSettings settings) {
        this.system = system;
        this.settings = settings;
    }

    RunFailure cancelled(double t) {
        return new RunFailure(RunFailure.Reason.CANCELLED, t, "cancelled at t = " + seconds(t), List.of());
    }

    RunFailure budgetExceeded(double t) {
        return new RunFailure(
                RunFailure.Reason.BUDGET_EXCEEDED,
                t,
                "the run used up its " + settings.budget().toSeconds() + " s of computing time at t = " + seconds(t)
                        + " of " + seconds(settings.stop()) + "; shorten it or loosen its tolerance",
                List.of());
    }

    RunFailure tooManySteps(double t, int most) {
        return new RunFailure(
                RunFailure.Reason.BUDGET_EXCEEDED,
                t,
                "the run took more than " + most + " steps by t = " + seconds(t) + " of " + seconds(settings.stop())
                        + "; shorten it or loosen its tolerance",
                List.of());
    }

    RunFailure diverged(double t, int variable, double value) {
        SortedSystem.Assignment culprit = assignment(variable);
        return new RunFailure(
                RunFailure.Reason.DIVERGED,
                t,
                "at t = " + seconds(t) + " the equation '" + culprit.origin().label() + "' gives no finite value for '"
                        + path(variable) + "' (" + value + ")",
                List.of(culprit.origin().source()));
    }

    /** The integrator could not make its step small enough, because a state runs away. */
    RunFailure ranAway(double t, int state, double value, int rate, double slope) {
        SortedSystem.Assignment culprit = assignment(rate);
        return new RunFailure(
                RunFailure.Reason.DIVERGED,
                t,
                "at t = " + seconds(t) + " '" + path(state) + "' changes faster than can be followed (it has reached "
                        + value + " and its rate " + slope + ") by the equation '"
                        + culprit.origin().label() + "'",
                List.of(culprit.origin().source()));
    }

    RunFailure chatters(double t, int relation) {
        return new RunFailure(
                RunFailure.Reason.CHATTERING,
                t,
                "at t = " + seconds(t) + " a condition in '"
                        + system.flat().relationLabels().get(relation)
                        + "' switches back and forth without end; give it a band between on and off, or a smooth transition",
                List.of());
    }

    private SortedSystem.Assignment assignment(int variable) {
        return system.assignments().stream()
                .filter(each -> each.variable() == variable)
                .findFirst()
                .orElseThrow();
    }

    private String path(int variable) {
        return system.flat().variables().get(variable).path();
    }

    private static String seconds(double t) {
        return String.format(Locale.ROOT, "%.6g s", t);
    }
}
