/**
 * The first page: what needs attention, and recent changes. Read {@link pyrite.app.overview.OverviewController} first.
 */
@NullMarked
package pyrite.app.overview;

import org.jspecify.annotations.NullMarked;
