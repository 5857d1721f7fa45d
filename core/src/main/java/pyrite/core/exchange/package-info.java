/**
 * The model in open formats. Elements as the JSON of the standard's Systems Modeling API: read
 * {@link pyrite.core.exchange.ElementJson} first.
 */
@NullMarked
package pyrite.core.exchange;

import org.jspecify.annotations.NullMarked;
