/**
 * The model: elements of a table of kinds, in immutable snapshots. An edit returns a new snapshot with the exact
 * difference, or the problems and no change. Read {@link pyrite.core.model.Model} first.
 */
@NullMarked
package pyrite.core.model;

import org.jspecify.annotations.NullMarked;
