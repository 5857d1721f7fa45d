/** Links between elements: making and removing them, the rules they obey, and what tables of them answer. */
@NullMarked
package pyrite.app.links;

import org.jspecify.annotations.NullMarked;
