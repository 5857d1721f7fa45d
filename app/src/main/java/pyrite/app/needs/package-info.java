/** The station where needs are read: what people want of the product, and what answers it. */
@NullMarked
package pyrite.app.needs;

import org.jspecify.annotations.NullMarked;
