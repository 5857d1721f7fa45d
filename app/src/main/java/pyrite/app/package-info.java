/** The application: pages by station, with storage and security beside them. {@link pyrite.app.Pyrite} starts it. */
@NullMarked
package pyrite.app;

import org.jspecify.annotations.NullMarked;
