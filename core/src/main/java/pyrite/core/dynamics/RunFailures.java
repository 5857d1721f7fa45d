package pyrite.core.dynamics;

import java.util.List;
import java.util.Locale;

/**
 * Creates the {@link RunFailure}s of one system. Each message names the equation or condition and says what would help.
 */
final class RunFailures {
    private static final int MANY_SWITCHES = 100;

    private final SortedSystem system;
    private final RunSettings settings;

    RunFailures(SortedSystem system, RunSettings settings) {
        this.system = system;
        this.settings = settings;
    }

    RunFailure cancelled(double t) {
        return new RunFailure(RunFailure.Reason.CANCELLED, t, "cancelled at t = " + seconds(t), List.of());
    }

    /** @param switches for each relation how often it has switched */
    RunFailure budgetExceeded(double t, int[] switches, boolean stiff) {
        return new RunFailure(
                RunFailure.Reason.BUDGET_EXCEEDED,
                t,
                "the run used up its " + settings.budget().toSeconds() + " s of computing time at t = " + seconds(t)
                        + " of " + seconds(settings.stop()) + busiest(switches) + advice(stiff),
                List.of());
    }

    /** @param switches for each relation how often it has switched */
    RunFailure tooManySteps(double t, int most, int[] switches, boolean stiff) {
        return new RunFailure(
                RunFailure.Reason.BUDGET_EXCEEDED,
                t,
                "the run took more than " + most + " steps by t = " + seconds(t) + " of " + seconds(settings.stop())
                        + busiest(switches) + advice(stiff),
                List.of());
    }

    private static String advice(boolean stiff) {
        return stiff
                ? "; its equations are stiff: something in them settles so much faster than the rest that the steps are"
                        + " too small; give what settles its final value by an equation without der(), or make it slower"
                : "; shorten it or loosen its tolerance";
    }

    /** The condition that costs most, where conditions cost anything to speak of. */
    private String busiest(int[] switches) {
        int busiest = 0;
        for (int i = 1; i < switches.length; i++) {
            if (switches[i] > switches[busiest]) {
                busiest = i;
            }
        }
        return switches.length == 0 || switches[busiest] < MANY_SWITCHES
                ? ""
                : ", where the condition in '" + system.flat().relationLabels().get(busiest) + "' has switched "
                        + switches[busiest] + " times";
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

    RunFailure tooFast(double t, int relation) {
        return new RunFailure(
                RunFailure.Reason.BUDGET_EXCEEDED,
                t,
                "at t = " + seconds(t) + " the condition in '"
                        + system.flat().relationLabels().get(relation)
                        + "' changes faster than can be followed over " + seconds(settings.stop())
                        + "; shorten the run or make the condition slower",
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
