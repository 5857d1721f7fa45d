/**
 * The station where cases are run: jobs, their progress, and what was recorded. Read {@link pyrite.app.runs.Jobs}
 * first.
 */
@NullMarked
package pyrite.app.runs;

import org.jspecify.annotations.NullMarked;
