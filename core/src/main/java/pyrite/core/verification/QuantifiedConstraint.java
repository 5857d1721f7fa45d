package pyrite.core.verification;

import java.util.List;
import java.util.Optional;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.expression.CollectionFunction;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.ModelFunction;
import pyrite.core.model.Model;

/**
 * A constraint on several values, of which all must hold or at least one.
 *
 * @param all whether all must hold ({@code forAll}), else at least one ({@code exists})
 */
record QuantifiedConstraint(boolean all, List<Flattening.Claim> claims) {
    /** Nothing if the expression says nothing of that kind. */
    static Optional<QuantifiedConstraint> of(
            Expression expression, Instance scope, Model model, Flattening flattening) {
        Invocation call = expression instanceof Expression.ArrowInvocation arrow
                ? arrow.asCall()
                : expression instanceof Invocation plain ? plain : null;
        if (call == null
                || !(model.environment().function(call.function()).orElse(null)
                        instanceof ModelFunction.OverCollection(CollectionFunction function))
                || function != CollectionFunction.FOR_ALL && function != CollectionFunction.EXISTS) {
            return Optional.empty();
        }
        Expression.Body body = function.body(call.arguments().get(1)).orElseThrow();
        return Optional.of(new QuantifiedConstraint(
                function == CollectionFunction.FOR_ALL,
                flattening.claims(call.arguments().getFirst(), body, scope)));
    }
}
