/**
 * The verdicts in force: newest runs and what needs none, each fresh or stale. Read
 * {@link pyrite.app.evidence.Verdicts} first.
 */
@NullMarked
package pyrite.app.evidence;

import org.jspecify.annotations.NullMarked;
