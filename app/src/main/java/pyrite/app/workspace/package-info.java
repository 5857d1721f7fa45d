/**
 * What all stations share: the loaded branches and the one way to change them, live events, the frame around pages.
 * Read {@link pyrite.app.workspace.Workspace} first.
 */
@NullMarked
package pyrite.app.workspace;

import org.jspecify.annotations.NullMarked;
