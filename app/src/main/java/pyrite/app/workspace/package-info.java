/**
 * What all stations share: the loaded branches and the only way to change them, live events, and the frame around
 * pages. Read {@link pyrite.app.workspace.Workspace} first.
 */
@NullMarked
package pyrite.app.workspace;

import org.jspecify.annotations.NullMarked;
