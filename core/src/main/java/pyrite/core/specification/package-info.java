/**
 * Requirements as documents: specifications with headings, notes and ids, managed attributes, status and wording. Read
 * {@link pyrite.core.specification.Specification} first.
 */
@NullMarked
package pyrite.core.specification;

import org.jspecify.annotations.NullMarked;
