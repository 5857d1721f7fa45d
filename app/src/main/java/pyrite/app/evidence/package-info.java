/**
 * The current verdicts, from the newest runs and from the model alone, each fresh or stale. Read
 * {@link pyrite.app.evidence.Verdicts} first.
 */
@NullMarked
package pyrite.app.evidence;

import org.jspecify.annotations.NullMarked;
