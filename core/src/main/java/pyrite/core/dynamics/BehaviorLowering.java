package pyrite.core.dynamics;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import pyrite.core.expression.Distribution;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.PerformanceFunction;
import pyrite.core.model.Element;
import pyrite.core.model.ModelEnvironment;

/** Lowers what is drawn at random, and what is observed of steps, states and pools. */
final class BehaviorLowering {
    private final Lowering lowering;
    private final ModelEnvironment environment;
    private final Map<String, Integer> sources = new HashMap<>();
    private final List<Draw> atStart = new ArrayList<>();
    private List<Draw> momentary = new ArrayList<>();

    BehaviorLowering(Lowering lowering, ModelEnvironment environment) {
        this.lowering = lowering;
        this.environment = environment;
    }

    /** The values that are drawn each time for what was lowered momentarily since the last call. */
    List<Draw> take() {
        List<Draw> draws = momentary;
        momentary = new ArrayList<>();
        return draws;
    }

    /** Whether anything is drawn at all. */
    boolean isRandom() {
        return !sources.isEmpty();
    }

    /** Whether nothing was drawn momentarily since the last {@link #take}. */
    boolean isEmpty() {
        return momentary.isEmpty();
    }

    /** The values that are drawn once, before a run begins. */
    List<Draw> atStart() {
        return atStart;
    }

    Term drawn(Distribution distribution, List<Expression> arguments, Instance scope, Expression at) {
        if (lowering.isFrozen()) {
            throw new FaultException(
                    at.span(),
                    distribution.functionName() + " draws a value in a run; a requirement observes it there");
        }
        List<Term> parameters = new ArrayList<>();
        List<Term> shares = new ArrayList<>();
        if (distribution.isTable()) {
            parameters.addAll(numbers(arguments.getFirst(), scope));
            shares.addAll(numbers(arguments.get(1), scope));
        } else {
            arguments.forEach(argument -> parameters.add(lowering.term(argument, scope)));
        }
        String source = scope.path() + " " + lowering.label() + " " + distribution.functionName();
        int time = sources.merge(source, 1, Integer::sum);
        int variable = lowering.count(scope.usage(), scope, distribution.functionName(), false);
        Draw draw = new Draw(variable, distribution, parameters, shares, source + " " + time);
        (lowering.isMomentary() ? momentary : atStart).add(draw);
        return new Term.Variable(variable);
    }

    private List<Term> numbers(Expression list, Instance scope) {
        return lowering.collections().values(list, scope).stream()
                .map(value -> lowering.termOf(value, list))
                .toList();
    }

    Condition chance(List<Expression> arguments, Instance scope, Expression at) {
        return lowering.relation(drawn(Distribution.CHANCE, arguments, scope, at), Terms.constant(0.5), false, false);
    }

    Condition condition(PerformanceFunction function, List<Expression> arguments, Instance scope) {
        Instance.Counts counts = counts(function, (FeatureReference) arguments.getFirst(), scope);
        Term started = new Term.Variable(counts.first());
        Term ended = new Term.Variable(counts.second());
        return switch (function) {
            case ACTIVE -> lowering.relation(Terms.minus(started, ended), Terms.constant(0.5), false, false);
            case STARTED -> lowering.relation(started, Terms.constant(0.5), false, false);
            default -> lowering.relation(ended, Terms.constant(0.5), false, false);
        };
    }

    Term term(PerformanceFunction function, List<Expression> arguments, Instance scope) {
        Instance.Counts counts = counts(function, (FeatureReference) arguments.getFirst(), scope);
        return new Term.Variable(function == PerformanceFunction.USED ? counts.first() : counts.second());
    }

    private Instance.Counts counts(PerformanceFunction function, FeatureReference of, Instance scope) {
        Object target = lowering.targets().single(lowering.targets().of(of, scope), of);
        Instance instance = target instanceof Instance found ? found : null;
        if (instance != null && isCounted(instance.usage(), function)) {
            if (!lowering.isFrozen()) {
                return counts(instance, function.isOfPool());
            }
            Instance.Counts known = instance.counts();
            if (known != null) {
                return known;
            }
        }
        throw new FaultException(
                of.span(),
                "'" + environment.nameOf(of.last()) + "' is no "
                        + (function.isOfPool()
                                ? "pool of what runs"
                                : "step or state that a part of what runs performs or exhibits"));
    }

    private static boolean isCounted(Element usage, PerformanceFunction function) {
        return usage.kind().isBehavior() != function.isOfPool();
    }

    /** What is counted of an instance. */
    Instance.Counts counts(Instance instance, boolean isOfPool) {
        Instance.Counts counts = instance.counts();
        if (counts == null) {
            counts = new Instance.Counts(
                    isOfPool ? lowering.used(instance) : lowering.count(instance.usage(), instance, "started", false),
                    lowering.count(instance.usage(), instance, isOfPool ? "queue" : "ended", isOfPool));
            instance.counts(counts);
        }
        return counts;
    }
}
