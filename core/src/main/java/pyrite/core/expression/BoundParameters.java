package pyrite.core.expression;

import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * The environment of a calculation's body in one call: parameters that state no type have that of their arguments.
 *
 * @param outer where the calculation stands
 * @param types of parameters by their features
 */
record BoundParameters(Environment outer, Map<Referent, Type> types) implements Environment {
    private static final int DEEPEST = 8;

    /** Calls within calls are followed so deep; a calculation may call itself. */
    boolean isDeepest() {
        int depth = 0;
        for (Environment at = outer; at instanceof BoundParameters bound; at = bound.outer) {
            depth++;
        }
        return depth >= DEEPEST;
    }

    @Override
    public Type typeOf(Expression.FeatureReference reference) {
        @Nullable Type bound = reference.chain().size() == 1 ? types.get(reference.last()) : null;
        return bound == null ? outer.typeOf(reference) : bound;
    }

    @Override
    public Optional<ModelFunction> function(Referent function) {
        return outer.function(function);
    }

    @Override
    public Type typeNamed(Referent type) {
        return outer.typeNamed(type);
    }

    @Override
    public Optional<Unit> unit(Referent unit) {
        return outer.unit(unit);
    }

    @Override
    public Optional<Expression> definition(Referent calculation) {
        return outer.definition(calculation);
    }

    @Override
    public Type amountOf(Expression.FeatureReference pool) {
        return outer.amountOf(pool);
    }

    @Override
    public String nameOf(Referent referent) {
        return outer.nameOf(referent);
    }
}
