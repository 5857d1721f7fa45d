/** The station that shows what changed: every revision, by whom, when and why. */
@NullMarked
package pyrite.app.changes;

import org.jspecify.annotations.NullMarked;
