/**
 * Links between elements: making and removing them, their rules, and tables of them. Read
 * {@link pyrite.app.links.LinksController} first.
 */
@NullMarked
package pyrite.app.links;

import org.jspecify.annotations.NullMarked;
