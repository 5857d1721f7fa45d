/** The page of one element, and the edits made on it. */
@NullMarked
package pyrite.app.element;

import org.jspecify.annotations.NullMarked;
