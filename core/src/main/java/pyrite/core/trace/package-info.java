/** How elements hang together from need to proof. Read {@link pyrite.core.trace.TraceThread} first. */
@NullMarked
package pyrite.core.trace;

import org.jspecify.annotations.NullMarked;
