/** The list of projects, and creating new ones. Read {@link pyrite.app.projects.Projects} first. */
@NullMarked
package pyrite.app.projects;

import org.jspecify.annotations.NullMarked;
