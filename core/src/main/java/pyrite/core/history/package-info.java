/**
 * Revisions: who changed what, when and why, and how a change is taken back. Storage is not here; read
 * {@link pyrite.core.history.UndoStack} first.
 */
@NullMarked
package pyrite.core.history;

import org.jspecify.annotations.NullMarked;
