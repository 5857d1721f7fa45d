package pyrite.core.behavior;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.BehaviorChecks.Gap;
import pyrite.core.behavior.BehaviorChecks.Kind;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Operator;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * Transitions of one state that compete for the same event, and completions that never come because what the state does
 * has no end.
 */
final class TransitionChecks {
    private final Model model;
    private final Element state;
    private final StateGraph graph;
    private final List<Gap> gaps = new ArrayList<>();

    private TransitionChecks(Model model, Element state) {
        this.model = model;
        this.state = state;
        this.graph = StateGraph.of(model, state);
    }

    static List<Gap> of(Model model, Element state) {
        TransitionChecks checks = new TransitionChecks(model, state);
        checks.competing();
        checks.unending();
        checks.unfit();
        return checks.gaps;
    }

    private void competing() {
        List<StateGraph.Transition> all = graph.transitions();
        for (int i = 0; i < all.size(); i++) {
            for (int j = i + 1; j < all.size(); j++) {
                if (all.get(i).from().equals(all.get(j).from()) && isSameEvent(all.get(i), all.get(j))) {
                    compete(all.get(i), all.get(j));
                }
            }
        }
    }

    private boolean isSameEvent(StateGraph.Transition one, StateGraph.Transition other) {
        Accepting first = Accepting.of(model, one.carrier()).orElse(null);
        Accepting second = Accepting.of(model, other.carrier()).orElse(null);
        return first == null || second == null ? first == second : first.isSameAs(second);
    }

    private void compete(StateGraph.Transition first, StateGraph.Transition second) {
        Expression one = guard(first);
        Expression other = guard(second);
        if (one == null || one.equals(other)) {
            gaps.add(new Gap(
                    Kind.COMPETING,
                    second.carrier(),
                    name(second) + " is never taken: " + name(first) + " before it takes the same event "
                            + (one == null ? "without a condition" : "under the same condition")));
        } else if (other != null && overlap(one, other)) {
            gaps.add(new Gap(
                    Kind.COMPETING,
                    second.carrier(),
                    "the conditions of " + name(first) + " and " + name(second)
                            + " overlap; where both hold, the first is taken"));
        }
    }

    private @Nullable Expression guard(StateGraph.Transition transition) {
        return model.inheritance().nearest(transition.carrier(), Property.GUARD).orElse(null);
    }

    private String name(StateGraph.Transition transition) {
        String own = model.names().effectiveName(transition.carrier());
        String to = transition.to().equals(StateGraph.DONE)
                ? "done"
                : model.find(transition.to())
                        .map(state -> model.names().effectiveName(state))
                        .orElse("?");
        return own == null ? "the transition to '" + to + "'" : "'" + own + "'";
    }

    /** The values for which a comparison with a number holds. */
    private record HalfLine(double low, boolean isLowIn, double high, boolean isHighIn) {
        static Optional<HalfLine> of(Binary comparison, double bound) {
            return switch (comparison.operator()) {
                case GREATER -> Optional.of(new HalfLine(bound, false, Double.POSITIVE_INFINITY, false));
                case GREATER_OR_EQUAL -> Optional.of(new HalfLine(bound, true, Double.POSITIVE_INFINITY, false));
                case LESS -> Optional.of(new HalfLine(Double.NEGATIVE_INFINITY, false, bound, false));
                case LESS_OR_EQUAL -> Optional.of(new HalfLine(Double.NEGATIVE_INFINITY, false, bound, true));
                case EQUAL -> Optional.of(new HalfLine(bound, true, bound, true));
                default -> Optional.empty();
            };
        }

        boolean meets(HalfLine other) {
            double from = Math.max(low, other.low);
            double to = Math.min(high, other.high);
            return from < to || from == to && holds(from) && other.holds(from);
        }

        private boolean holds(double x) {
            return (x > low || x == low && isLowIn) && (x < high || x == high && isHighIn);
        }
    }

    /** Whether two comparisons of the same thing with numbers can both hold. What is not that simple is not told. */
    private static boolean overlap(Expression one, Expression other) {
        if (!(one instanceof Binary a && other instanceof Binary b) || !a.left().equals(b.left())) {
            return false;
        }
        Optional<HalfLine> first = number(a.right(), b.right()).flatMap(bound -> HalfLine.of(a, bound));
        Optional<HalfLine> second = number(b.right(), a.right()).flatMap(bound -> HalfLine.of(b, bound));
        return first.isPresent() && second.isPresent() && first.get().meets(second.get());
    }

    /** A number, where it stands in the same unit as another. */
    private static Optional<Double> number(Expression expression, Expression other) {
        return switch (expression) {
            case Expression.NumberLiteral literal -> Optional.of(literal.value());
            case Expression.Unary(Operator operator, Expression.NumberLiteral literal, var _)
            when operator == Operator.NEGATE -> Optional.of(-literal.value());
            case Expression.Quantity(Expression magnitude, Expression unit, var _)
            when other instanceof Expression.Quantity(var _, Expression unitOfOther, var _)
                    && unit.equals(unitOfOther) -> number(magnitude, magnitude);
            default -> Optional.empty();
        };
    }

    /** A machine above may change so that a transition of a special one leads elsewhere than it says. */
    private void unfit() {
        for (StateGraph.Transition transition : graph.transitions()) {
            if (state.id().equals(transition.carrier().owner())) {
                missing(transition, transition.from(), "leaves");
                missing(transition, transition.to(), "leads to");
                Redirection.of(model, state, transition.carrier())
                        .ifPresent(redirection -> gaps.add(new Gap(
                                Kind.UNFIT, transition.carrier(), name(transition) + redirection.sentence(model))));
            }
        }
    }

    private void missing(StateGraph.Transition transition, ElementId end, String verb) {
        if (!end.equals(StateGraph.DONE)
                && graph.states().stream().noneMatch(each -> each.id().equals(end))) {
            gaps.add(new Gap(
                    Kind.UNFIT,
                    transition.carrier(),
                    name(transition) + " " + verb + " "
                            + model.find(end).map(this::quoted).orElse("what is gone") + ", which is no state of "
                            + quoted(state)));
        }
    }

    private String quoted(Element element) {
        return "'"
                + Objects.requireNonNullElse(
                        model.names().effectiveName(element), element.kind().title()) + "'";
    }

    private void unending() {
        for (StateGraph.Transition transition : graph.transitions()) {
            Element state = model.find(transition.from()).orElse(null);
            Element during = Accepting.of(model, transition.carrier()).isEmpty() && state != null
                    ? StateGraph.of(model, state).action("do")
                    : null;
            if (during != null && goesOnWithoutEnd(during, Set.of())) {
                gaps.add(new Gap(
                        Kind.UNENDING,
                        Objects.requireNonNull(state),
                        "'" + model.names().effectiveName(state)
                                + "' is never completed, because what it does goes round "
                                + "without end; give the loop a condition, or the transition an event"));
            }
        }
    }

    /** @param around the actions it stands in, one of which it may be again */
    private boolean goesOnWithoutEnd(Element behavior, Set<ElementId> around) {
        boolean mayTerminate =
                StepGraph.of(model, behavior).steps().stream().anyMatch(step -> step.kind() == ElementKind.TERMINATE);
        if (mayTerminate || around.contains(behavior.id())) {
            return false;
        }
        Set<ElementId> within = new HashSet<>(around);
        within.add(behavior.id());
        return StepExploration.neverEnds(
                model,
                behavior,
                step -> isEndlessLoop(step) || step.kind() == ElementKind.ACTION && goesOnWithoutEnd(step, within));
    }

    /** A loop without a condition that nothing in it ends. */
    private boolean isEndlessLoop(Element step) {
        return step.kind() == ElementKind.WHILE
                && step.get(Property.CONDITION)
                        .filter(condition ->
                                !(condition instanceof Expression.BooleanLiteral(boolean value, var _)) || !value)
                        .isEmpty()
                && step.get(Property.UNTIL).isEmpty()
                && model.subtree(step.id()).stream().noneMatch(inner -> inner.kind() == ElementKind.TERMINATE);
    }
}
