/** Links that need recheck after a change, and confirming them. Read {@link pyrite.app.recheck.Rechecks} first. */
@NullMarked
package pyrite.app.recheck;

import org.jspecify.annotations.NullMarked;
