package pyrite.core.specification;

import java.util.Optional;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Environment;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Expression.Quantity;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Unit;
import pyrite.core.expression.Units;
import pyrite.core.expression.Value.Amount;

/** Evaluates literal numbers with a sign and a unit. Anything that would need computation has no value here. */
final class Magnitudes {
    private Magnitudes() {}

    /** @param bare the unit of a number that is written without one */
    static Optional<Amount> of(Expression expression, Unit bare, Environment environment) {
        return switch (expression) {
            case NumberLiteral literal -> Optional.of(in(bare, literal.value()));
            case Quantity quantity ->
                of(quantity.magnitude(), Unit.ONE, environment)
                        .map(number -> in(unit(quantity.unit(), environment), number.si()));
            case Unary unary
            when unary.operator() == Operator.NEGATE ->
                of(unary.operand(), bare, environment).map(number -> new Amount(-number.si(), number.dimension()));
            default -> Optional.empty();
        };
    }

    private static Amount in(Unit unit, double number) {
        return new Amount(unit.toSi(number), unit.dimension());
    }

    /** What is no unit the reader has refused before. */
    private static Unit unit(Expression expression, Environment environment) {
        try {
            return Units.of(expression, environment);
        } catch (FaultException _) {
            return Unit.coherent(Dimension.ONE);
        }
    }
}
