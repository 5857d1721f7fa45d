/**
 * Library packages of other projects, used at a baseline. They are in the using project with the same elements, so that
 * everything works on them as on its own, and stay as they are until somebody moves them to another baseline.
 */
@NullMarked
package pyrite.core.reuse;

import org.jspecify.annotations.NullMarked;
