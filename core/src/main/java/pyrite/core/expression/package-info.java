/**
 * Expressions of the modelling language: their structure, types, dimensions and values. The package does not know
 * elements: a name or id in an expression is a {@link pyrite.core.expression.Referent} whose meaning an
 * {@link pyrite.core.expression.Environment} gives. Read {@link pyrite.core.expression.Expression} first.
 */
@NullMarked
package pyrite.core.expression;

import org.jspecify.annotations.NullMarked;
