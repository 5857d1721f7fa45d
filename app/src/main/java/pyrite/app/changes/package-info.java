/** The station that shows every revision: by whom, when and why. */
@NullMarked
package pyrite.app.changes;

import org.jspecify.annotations.NullMarked;
