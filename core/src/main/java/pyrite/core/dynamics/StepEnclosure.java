package pyrite.core.dynamics;

import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Condition.Relation;

/**
 * Bounds of terms and conditions between two instants of one integrator step. The states are bounded by their
 * polynomials, the other variables by the equations that give them, in which relations keep the truth they have
 * throughout the step.
 */
public final class StepEnclosure {
    /** A margin that is zero within this, relative to what is compared, is decided at single instants. */
    private static final double NEGLIGIBLE = 1e-11;
    /** So many times the noise of single instants is no difference. */
    private static final double NOISES = 100;
    /** Noise larger than this, relative to what is compared, is no rounding any more: nothing is known there. */
    private static final double MOST_NOISE = 1e-6;

    private final Trajectory trajectory;
    private final Step step;
    private @Nullable StepPolynomial polynomial;
    private @Nullable Between point;
    private @Nullable Between stretch;

    StepEnclosure(Trajectory trajectory, Step step) {
        this.trajectory = trajectory;
        this.step = step;
    }

    /** A term between two instants of the step, s. */
    public Enclosure term(Term term, double a, double b) {
        return term(term, a, b, false);
    }

    /** The margin of a relation of the system, in which other relations keep the truth they have in the step. */
    Enclosure ofSystem(Term margin, double a, double b) {
        return term(margin, a, b, true);
    }

    /** Whether the margin of a relation of the system is surely at least so large; wider bounds than others, sooner. */
    boolean isSurelyFrom(double least, Term margin, boolean mode, double a, double b) {
        Interval value = between(a, b).of(margin, true).value();
        return value.isBounded() && (mode ? value.low() : -value.high()) >= least;
    }

    private Enclosure term(Term term, double a, double b, boolean ofSystem) {
        double middle = a + (b - a) / 2;
        Jet there = between(middle, middle).of(term, ofSystem);
        Jet throughout = between(a, b).of(term, ofSystem).around(there, Math.max(b - middle, middle - a));
        return new Enclosure(throughout, there.value().width());
    }

    /**
     * A term of the system at an instant, s, in which relations have the truth they have in the step. Only what it
     * depends on is computed.
     */
    double at(double t, Term term) {
        return new At(t).value(term);
    }

    /** What was computed between the same instants, such as for the margin before, is not computed again. */
    private Between between(double a, double b) {
        Between known = a == b ? point : stretch;
        if (known == null || known.a != a || known.b != b) {
            known = new Between(a, b);
            if (a == b) {
                point = known;
            } else {
                stretch = known;
            }
        }
        return known;
    }

    /** The margin of a condition between two instants, s: positive where it holds. */
    public Enclosure margin(Condition condition, double a, double b) {
        return switch (condition) {
            case Condition.Fixed(boolean holds) ->
                new Enclosure(Jet.constant(holds ? Double.POSITIVE_INFINITY : Double.NEGATIVE_INFINITY), 0);
            case Relation r -> term(r.margin(), a, b);
            case Condition.Both(Condition left, Condition right) ->
                margin(left, a, b).smaller(margin(right, a, b));
            case Condition.Either(Condition left, Condition right) ->
                margin(left, a, b)
                        .negated()
                        .smaller(margin(right, a, b).negated())
                        .negated();
            case Condition.Not(Condition operand) -> margin(operand, a, b).negated();
        };
    }

    /** Whether a condition holds throughout, or fails throughout; null if the bounds do not tell. */
    @Nullable
    public Boolean decided(Condition condition, double a, double b) {
        return decided(condition, a, b, false);
    }

    private @Nullable Boolean decided(Condition condition, double a, double b, boolean ofSystem) {
        return switch (condition) {
            case Condition.Fixed(boolean holds) -> holds;
            case Relation r -> decided(r, a, b, ofSystem);
            case Condition.Both(Condition left, Condition right) ->
                both(decided(left, a, b, ofSystem), decided(right, a, b, ofSystem));
            case Condition.Either(Condition left, Condition right) ->
                not(both(not(decided(left, a, b, ofSystem)), not(decided(right, a, b, ofSystem))));
            case Condition.Not(Condition operand) -> not(decided(operand, a, b, ofSystem));
        };
    }

    /**
     * Whether a condition that the bounds do not decide holds at some instant between two that are as near as the
     * resolution of time.
     */
    public boolean holdsNear(Condition condition, double a, double b) {
        return holdsAt(condition, a) || holdsAt(condition, a + (b - a) / 2) || holdsAt(condition, b);
    }

    private boolean holdsAt(Condition condition, double t) {
        return Terms.holds(condition, t, trajectory.at(step, t));
    }

    private @Nullable Boolean decided(Relation relation, double a, double b, boolean ofSystem) {
        Enclosure margin = term(relation.margin(), a, b, ofSystem);
        if (!margin.isBounded()) {
            return null;
        }
        if (relation.strict() ? margin.low() > 0 : margin.low() >= 0) {
            return true;
        }
        if (relation.strict() ? margin.high() <= 0 : margin.high() < 0) {
            return false;
        }
        return isNegligible(margin, relation, a, b, ofSystem) ? (Boolean) holdsAt(relation, a + (b - a) / 2) : null;
    }

    /** Whether a margin is zero, but for rounding, between two instants. */
    boolean isNegligible(Enclosure margin, Relation relation, double a, double b, boolean ofSystem) {
        Between between = between(a, b);
        double size = between.of(relation.left(), ofSystem).value().magnitude()
                + between.of(relation.right(), ofSystem).value().magnitude();
        double noise = Math.min(NOISES * margin.noise(), MOST_NOISE * size);
        return margin.magnitude() <= Math.max(NEGLIGIBLE * size, noise);
    }

    private static @Nullable Boolean both(@Nullable Boolean left, @Nullable Boolean right) {
        if (Boolean.FALSE.equals(left) || Boolean.FALSE.equals(right)) {
            return false;
        }
        return left == null || right == null ? null : Boolean.TRUE;
    }

    private static @Nullable Boolean not(@Nullable Boolean operand) {
        return operand == null ? null : Boolean.valueOf(!operand);
    }

    private StepPolynomial polynomial() {
        if (polynomial == null) {
            polynomial = step.polynomial();
        }
        return polynomial;
    }

    /** Whether a condition of the system is taken to hold throughout the step. */
    private boolean isTaken(Condition condition) {
        return switch (condition) {
            case Condition.Fixed(boolean holds) -> holds;
            case Relation r -> step.modes()[r.mode()];
            case Condition.Both(Condition left, Condition right) -> isTaken(left) && isTaken(right);
            case Condition.Either(Condition left, Condition right) -> isTaken(left) || isTaken(right);
            case Condition.Not(Condition operand) -> !isTaken(operand);
        };
    }

    /** Jets of terms between two instants; those of variables and choices are computed once. */
    private final class Between {
        private final double a;
        private final double b;
        private final Map<Integer, Jet> variables = new HashMap<>();
        /** Of choices within conditions of choices: each is met many times. */
        private final Map<Term, Jet> choices = new IdentityHashMap<>();

        private final Map<Term, Jet> choicesOfSystem = new IdentityHashMap<>();

        Between(double a, double b) {
            this.a = a;
            this.b = b;
        }

        /** @param ofSystem whether relations in it have the truth of the step, else that of the values */
        Jet of(Term term, boolean ofSystem) {
            return switch (term) {
                case Term.Constant(double value) -> Jet.constant(value);
                case Term.Time _ -> Jet.time(a, b);
                case Term.Variable(int index) -> variable(index);
                case Term.Call call -> of(call.argument(), ofSystem).apply(call.function());
                case Term.Choice choice -> known(choice, ofSystem);
                case Term.Arithmetic x
                when x.sign() == Term.Sign.TIMES && x.left().equals(x.right()) ->
                    of(x.left(), ofSystem).squared();
                case Term.Arithmetic x
                when x.sign() == Term.Sign.MINUS && x.left().equals(x.right()) ->
                    of(x.left(), ofSystem).minusItself();
                case Term.Arithmetic x -> {
                    Jet left = of(x.left(), ofSystem);
                    Jet right = of(x.right(), ofSystem);
                    yield switch (x.sign()) {
                        case PLUS -> left.plus(right);
                        case MINUS -> left.minus(right);
                        case TIMES -> left.times(right);
                        case OVER -> left.over(right);
                        case POWER -> left.power(right);
                    };
                }
            };
        }

        private Jet variable(int index) {
            Jet known = variables.get(index);
            if (known == null) {
                int state = trajectory.stateOf(index);
                known = state >= 0
                        ? polynomial().state(state, a, b)
                        : trajectory.isHeld(index)
                                ? Jet.constant(trajectory.held(index, step))
                                : of(trajectory.definition(index), true);
                variables.put(index, known);
            }
            return known;
        }

        private Jet known(Term.Choice choice, boolean ofSystem) {
            Map<Term, Jet> known = ofSystem ? choicesOfSystem : choices;
            Jet jet = known.get(choice);
            if (jet == null) {
                jet = choice(choice, ofSystem);
                known.put(choice, jet);
            }
            return jet;
        }

        private Jet choice(Term.Choice choice, boolean ofSystem) {
            Boolean holds = ofSystem && !choice.isKink()
                    ? Boolean.valueOf(isTaken(choice.condition()))
                    : decided(choice.condition(), a, b, ofSystem);
            if (holds != null) {
                return of(holds ? choice.whenTrue() : choice.whenFalse(), ofSystem);
            }
            Jet yes = of(choice.whenTrue(), ofSystem);
            Jet no = of(choice.whenFalse(), ofSystem);
            return choice.isKink() ? yes.hull(no) : yes.orJump(no);
        }
    }

    /** Values of terms at an instant; those of variables are computed once. */
    private final class At {
        private final double t;
        private final Map<Integer, Double> variables = new HashMap<>();
        private double @Nullable [] weights;

        At(double t) {
            this.t = t;
        }

        double value(Term term) {
            return switch (term) {
                case Term.Constant(double value) -> value;
                case Term.Time _ -> t;
                case Term.Variable(int index) -> variable(index);
                case Term.Call call -> call.function().apply(value(call.argument()), 0);
                case Term.Arithmetic x -> x.sign().apply(value(x.left()), value(x.right()));
                case Term.Choice choice -> value(holds(choice) ? choice.whenTrue() : choice.whenFalse());
            };
        }

        private boolean holds(Term.Choice choice) {
            return choice.isKink() ? holds(choice.condition()) : isTaken(choice.condition());
        }

        private boolean holds(Condition condition) {
            return switch (condition) {
                case Condition.Fixed(boolean holds) -> holds;
                case Relation r -> r.holds(value(r.margin()));
                case Condition.Both(Condition left, Condition right) -> holds(left) && holds(right);
                case Condition.Either(Condition left, Condition right) -> holds(left) || holds(right);
                case Condition.Not(Condition operand) -> !holds(operand);
            };
        }

        private double variable(int index) {
            Double known = variables.get(index);
            if (known == null) {
                int state = trajectory.stateOf(index);
                known = state >= 0
                        ? polynomial().state(state, weights())
                        : trajectory.isHeld(index)
                                ? Double.valueOf(trajectory.held(index, step))
                                : Double.valueOf(value(trajectory.definition(index)));
                variables.put(index, known);
            }
            return known;
        }

        private double[] weights() {
            if (weights == null) {
                weights = polynomial().weights(t);
            }
            return weights;
        }
    }
}
