/**
 * The station where requirements are read, written and judged. Read
 * {@link pyrite.app.requirements.RequirementsController} first.
 */
@NullMarked
package pyrite.app.requirements;

import org.jspecify.annotations.NullMarked;
