package pyrite.core.expression;

import java.util.Optional;

/** Gives the meaning of the referents in an expression. */
public interface Environment {
    Type typeOf(Expression.FeatureReference reference);

    Optional<ModelFunction> function(Referent function);

    /** What kind of values a type names. */
    Type typeNamed(Referent type);

    /** The unit a referent names, without prefix; empty if it names none. */
    Optional<Unit> unit(Referent unit);

    /** What a calculation comes to, over its parameters; empty where nothing says so. */
    Optional<Expression> definition(Referent calculation);

    /** The type of the amounts of a pool. */
    Type amountOf(Expression.FeatureReference pool);

    /** How a referent is called in messages. */
    String nameOf(Referent referent);
}
