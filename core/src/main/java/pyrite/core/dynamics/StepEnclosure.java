package pyrite.core.dynamics;

import java.util.HashMap;
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

    private final Trajectory trajectory;
    private final int step;
    private final StepPolynomial polynomial;

    StepEnclosure(Trajectory trajectory, int step) {
        this.trajectory = trajectory;
        this.step = step;
        this.polynomial = trajectory.polynomial(step);
    }

    /** A term between two instants of the step, s. */
    public Enclosure term(Term term, double a, double b) {
        double middle = a + (b - a) / 2;
        Jet there = new Between(middle, middle).of(term, false);
        Jet throughout = new Between(a, b).of(term, false).around(there, Math.max(b - middle, middle - a));
        return new Enclosure(throughout, there.value().width());
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
        return switch (condition) {
            case Condition.Fixed(boolean holds) -> holds;
            case Relation r -> decided(r, a, b);
            case Condition.Both(Condition left, Condition right) -> both(decided(left, a, b), decided(right, a, b));
            case Condition.Either(Condition left, Condition right) ->
                not(both(not(decided(left, a, b)), not(decided(right, a, b))));
            case Condition.Not(Condition operand) -> not(decided(operand, a, b));
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

    private @Nullable Boolean decided(Relation relation, double a, double b) {
        Enclosure margin = term(relation.margin(), a, b);
        if (!margin.isBounded()) {
            return null;
        }
        if (relation.strict() ? margin.low() > 0 : margin.low() >= 0) {
            return true;
        }
        if (relation.strict() ? margin.high() <= 0 : margin.high() < 0) {
            return false;
        }
        return isNegligible(margin, relation, a, b) ? (Boolean) holdsAt(relation, a + (b - a) / 2) : null;
    }

    private boolean isNegligible(Enclosure margin, Relation relation, double a, double b) {
        Between between = new Between(a, b);
        double size = between.of(relation.left(), false).value().magnitude()
                + between.of(relation.right(), false).value().magnitude();
        return margin.magnitude() <= Math.max(NEGLIGIBLE * size, NOISES * margin.noise());
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

    /** Jets of terms between two instants; those of variables are computed once. */
    private final class Between {
        private final double a;
        private final double b;
        private final Map<Integer, Jet> variables = new HashMap<>();

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
                case Term.Choice choice -> choice(choice, ofSystem);
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
                known = state >= 0 ? polynomial.state(state, a, b) : of(trajectory.definition(index), true);
                variables.put(index, known);
            }
            return known;
        }

        private Jet choice(Term.Choice choice, boolean ofSystem) {
            Boolean holds = ofSystem
                    ? Boolean.valueOf(trajectory.holds(step, choice.condition()))
                    : decided(choice.condition(), a, b);
            if (holds != null) {
                return of(holds ? choice.whenTrue() : choice.whenFalse(), ofSystem);
            }
            Jet yes = of(choice.whenTrue(), false);
            Jet no = of(choice.whenFalse(), false);
            return choice.condition() instanceof Relation r && r.kink() ? yes.hull(no) : yes.orJump(no);
        }
    }
}
