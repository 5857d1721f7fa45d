/**
 * From a part to its motion: the part tree becomes variables and equations ({@link pyrite.core.dynamics.Flattening}),
 * these are sorted and solved ({@link pyrite.core.dynamics.Sorting}), compiled ({@link pyrite.core.dynamics.Compiler})
 * and integrated ({@link pyrite.core.dynamics.Simulation}). Everything here is in coherent SI units.
 */
@NullMarked
package pyrite.core.dynamics;

import org.jspecify.annotations.NullMarked;
