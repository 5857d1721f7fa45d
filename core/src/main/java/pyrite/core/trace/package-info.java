/**
 * Traceability: links between elements under rules, coverage, impact and rechecks. Read {@link pyrite.core.trace.Link}
 * first.
 */
@NullMarked
package pyrite.core.trace;

import org.jspecify.annotations.NullMarked;
