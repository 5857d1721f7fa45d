/**
 * From a part to its motion. The part tree becomes variables and equations ({@link pyrite.core.dynamics.Flattening}),
 * which are sorted ({@link pyrite.core.dynamics.Sorting}), compiled ({@link pyrite.core.dynamics.Compiler}) and
 * integrated ({@link pyrite.core.dynamics.Simulation}). All values are in coherent SI units. Read
 * {@link pyrite.core.dynamics.Flattening} first.
 */
@NullMarked
package pyrite.core.dynamics;

import org.jspecify.annotations.NullMarked;
