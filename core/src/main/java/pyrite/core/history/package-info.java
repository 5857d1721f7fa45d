/**
 * Revisions: who changed what, when and why, and how a change is undone. Storage is in the application; read
 * {@link pyrite.core.history.UndoStack} first.
 */
@NullMarked
package pyrite.core.history;

import org.jspecify.annotations.NullMarked;
