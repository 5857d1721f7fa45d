/**
 * Consolidation: what several use cases found, put side by side, and made one definition of the system each. It decides
 * nothing itself; it proposes, and makes the edits of what a person decides.
 */
@NullMarked
package pyrite.core.consolidation;

import org.jspecify.annotations.NullMarked;
