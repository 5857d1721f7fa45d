/**
 * Requirements as a document: specifications with headings, notes and ids, attributes with their course, and the
 * wording. Read {@link pyrite.core.specification.Specification} first.
 */
@NullMarked
package pyrite.core.specification;

import org.jspecify.annotations.NullMarked;
