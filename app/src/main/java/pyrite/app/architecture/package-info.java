/** The station where the product's structure is shaped: the outline of all elements. */
@NullMarked
package pyrite.app.architecture;

import org.jspecify.annotations.NullMarked;
