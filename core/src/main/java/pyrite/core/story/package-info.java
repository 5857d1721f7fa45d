/**
 * Use cases told step by step: a story is a main way and the ways that leave it, derived from the steps of the use
 * case. Read {@link pyrite.core.story.Story} first.
 */
@NullMarked
package pyrite.core.story;

import org.jspecify.annotations.NullMarked;
