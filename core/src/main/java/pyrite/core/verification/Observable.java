package pyrite.core.verification;

import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Enclosure;
import pyrite.core.dynamics.StepEnclosure;
import pyrite.core.dynamics.Term;
import pyrite.core.dynamics.Terms;

/** A quantity that can be observed over a trajectory: at an instant, and by bounds between two instants of a step. */
interface Observable {
    double at(double t, double[] v);

    Enclosure between(StepEnclosure step, double a, double b);

    static Observable of(Term term) {
        return new Observable() {
            @Override
            public double at(double t, double[] v) {
                return Terms.value(term, t, v);
            }

            @Override
            public Enclosure between(StepEnclosure step, double a, double b) {
                return step.term(term, a, b);
            }
        };
    }

    /** The margin of a condition: positive where it holds. */
    static Observable marginOf(Condition condition) {
        return new Observable() {
            @Override
            public double at(double t, double[] v) {
                return Terms.margin(condition, t, v);
            }

            @Override
            public Enclosure between(StepEnclosure step, double a, double b) {
                return step.margin(condition, a, b);
            }
        };
    }

    default Observable negated() {
        Observable positive = this;
        return new Observable() {
            @Override
            public double at(double t, double[] v) {
                return -positive.at(t, v);
            }

            @Override
            public Enclosure between(StepEnclosure step, double a, double b) {
                return positive.between(step, a, b).negated();
            }
        };
    }
}
