/** What happens once, when the program meets an empty data folder. */
@NullMarked
package pyrite.app.start;

import org.jspecify.annotations.NullMarked;
