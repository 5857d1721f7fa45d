/**
 * Functions and the parts that perform them: who exchanges what, derived from the flows between functions, and which
 * connections carry it. Read {@link pyrite.core.function.ExchangeTable} first.
 */
@NullMarked
package pyrite.core.function;

import org.jspecify.annotations.NullMarked;
