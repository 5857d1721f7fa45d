/** The station where requirements are read, written and judged. */
@NullMarked
package pyrite.app.requirements;

import org.jspecify.annotations.NullMarked;
