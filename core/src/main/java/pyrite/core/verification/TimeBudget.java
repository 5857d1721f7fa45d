package pyrite.core.verification;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import pyrite.core.execution.CriticalPath;
import pyrite.core.execution.EventLog;
import pyrite.core.execution.Subject;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.ModelFunction;
import pyrite.core.expression.ObservationFunction;
import pyrite.core.expression.Operator;
import pyrite.core.expression.PerformanceFunction;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * The two events between which a requirement grants a time, such as {@code firstTime(done(a)) - firstTime(started(b))
 * <= within}.
 *
 * @param begin null for the beginning of the run
 */
public record TimeBudget(CriticalPath.@Nullable End begin, CriticalPath.End end) {
    /**
     * Of a requirement whose constraint limits such a time.
     *
     * @param subjects of the events of a run
     */
    public static Optional<TimeBudget> of(Model model, Element requirement, List<Subject> subjects) {
        return model.inheritance().features(requirement).stream()
                .filter(feature -> feature.kind() == ElementKind.REQUIRED_CONSTRAINT)
                .flatMap(constraint -> model.inheritance().nearest(constraint, Property.RESULT).stream())
                .flatMap(result -> new Reader(model, subjects).budget(result).stream())
                .findFirst();
    }

    private record Reader(Model model, List<Subject> subjects) {
        Optional<TimeBudget> budget(Expression claim) {
            if (!(claim instanceof Binary comparison)
                    || comparison.operator() != Operator.LESS_OR_EQUAL && comparison.operator() != Operator.LESS) {
                return Optional.empty();
            }
            return comparison.left() instanceof Binary difference && difference.operator() == Operator.SUBTRACT
                    ? event(difference.left())
                            .flatMap(end -> event(difference.right()).map(begin -> new TimeBudget(begin, end)))
                    : event(comparison.left()).map(end -> new TimeBudget(null, end));
        }

        private Optional<CriticalPath.End> event(Expression instant) {
            return instant instanceof Invocation observation
                            && observation.arguments().size() == 1
                            && model.environment()
                                            .function(observation.function())
                                            .orElse(null)
                                    instanceof ModelFunction.Observing(ObservationFunction what)
                            && what == ObservationFunction.FIRST_TIME
                            && observation.arguments().getFirst() instanceof Invocation performance
                            && model.environment()
                                            .function(performance.function())
                                            .orElse(null)
                                    instanceof ModelFunction.OfPerformance(PerformanceFunction turn)
                            && isTurn(turn)
                            && performance.arguments().getFirst() instanceof FeatureReference(var chain, var _)
                    ? subject(chain.stream()
                                    .map(referent -> model.environment().nameOf(referent))
                                    .toList())
                            .map(subject -> new CriticalPath.End(kind(turn, subject), subject))
                    : Optional.empty();
        }

        /** The subject of a requirement may have another name than the part of a run. */
        private Optional<Integer> subject(List<String> names) {
            String whole = String.join(".", names);
            String within = "." + names.stream().skip(1).collect(Collectors.joining("."));
            return IntStream.range(0, subjects.size())
                    .boxed()
                    .filter(index -> subjects.get(index).path().equals(whole))
                    .findFirst()
                    .or(() -> IntStream.range(0, subjects.size())
                            .boxed()
                            .filter(index -> subjects.get(index).path().endsWith(within))
                            .findFirst());
        }

        private static boolean isTurn(PerformanceFunction function) {
            return switch (function) {
                case ACTIVE, STARTED, DONE -> true;
                case COUNT, QUEUE, USED -> false;
            };
        }

        private EventLog.Kind kind(PerformanceFunction turn, int subject) {
            boolean isState = subjects.get(subject).kind() == Subject.Kind.STATE;
            boolean isEnd = turn == PerformanceFunction.DONE;
            return isState
                    ? isEnd ? EventLog.Kind.LEFT : EventLog.Kind.ENTERED
                    : isEnd ? EventLog.Kind.ENDED : EventLog.Kind.STARTED;
        }
    }
}
