/** Links that a change has put in doubt, and settling them. */
@NullMarked
package pyrite.app.recheck;

import org.jspecify.annotations.NullMarked;
