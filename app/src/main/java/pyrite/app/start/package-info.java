/**
 * Start-up and the commands of the server's jar: data folder, first start, backup and restore. Read
 * {@link pyrite.app.start.Commands} first.
 */
@NullMarked
package pyrite.app.start;

import org.jspecify.annotations.NullMarked;
