/**
 * Expressions of the model's language: what they are, which dimension they have, what they are worth. Knows nothing of
 * elements: a name or an id in an expression is a {@link pyrite.core.expression.Referent} that an
 * {@link pyrite.core.expression.Environment} explains. Read {@link pyrite.core.expression.Expression} first.
 */
@NullMarked
package pyrite.core.expression;

import org.jspecify.annotations.NullMarked;
