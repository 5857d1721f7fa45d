/** Forty people at one server. Read {@link pyrite.bench.load.Load} first. */
@NullMarked
package pyrite.bench.load;

import org.jspecify.annotations.NullMarked;
