/** Structure: what ports carry, and whether what is connected fits. Read {@link pyrite.core.structure.Fit} first. */
@NullMarked
package pyrite.core.structure;

import org.jspecify.annotations.NullMarked;
