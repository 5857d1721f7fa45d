/**
 * The API for scripts and other programs: the standard's Systems Modeling API for elements, and Pyrite's own addresses
 * for text, runs and verdicts. Read {@link pyrite.app.api.ApiBranches} first.
 */
@NullMarked
package pyrite.app.api;

import org.jspecify.annotations.NullMarked;
