/**
 * Sequences: what was given to a system and what it did then, as messages and events of the notation; replayed and
 * compared with what happens now. {@link pyrite.core.sequence.Sequence} reads one and is the class to begin with.
 */
@NullMarked
package pyrite.core.sequence;

import org.jspecify.annotations.NullMarked;
