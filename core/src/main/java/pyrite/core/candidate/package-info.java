/**
 * Real products that could fill a part's role: compared against requirements and by weight, chosen, and the choice
 * undone.
 */
@NullMarked
package pyrite.core.candidate;

import org.jspecify.annotations.NullMarked;
