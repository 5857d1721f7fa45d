/**
 * What behaviour means, derived from a snapshot: the steps of an action or use case and the order between them. Read
 * {@link pyrite.core.behavior.StepGraph} first.
 */
@NullMarked
package pyrite.core.behavior;

import org.jspecify.annotations.NullMarked;
