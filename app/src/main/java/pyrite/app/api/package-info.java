/**
 * The API for scripts and other programs: elements by the standard's Systems Modeling API, and beside it what pages do
 * with text, runs and verdicts. Read {@link pyrite.app.api.ApiBranches} first.
 */
@NullMarked
package pyrite.app.api;

import org.jspecify.annotations.NullMarked;
