/**
 * The model: elements of a table of kinds, in immutable snapshots. An edit makes a new snapshot and says exactly what
 * differs, or says what is wrong and changes nothing. Read {@link pyrite.core.model.Model} first.
 */
@NullMarked
package pyrite.core.model;

import org.jspecify.annotations.NullMarked;
