/** What a check of the model notices: gaps and faults that an edit may leave, with what would mend them. */
@NullMarked
package pyrite.core.finding;

import org.jspecify.annotations.NullMarked;
