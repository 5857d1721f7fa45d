/**
 * Storage: people, projects, revisions with their element versions, runs and verdicts, in H2 through MyBatis. Read
 * {@link pyrite.app.store.BranchStore} first.
 */
@NullMarked
package pyrite.app.store;

import org.jspecify.annotations.NullMarked;
