/**
 * The command line over core alone: check, format, run and verify, for scripts and build servers. Read
 * {@link pyrite.cli.Main} first.
 */
@NullMarked
package pyrite.cli;

import org.jspecify.annotations.NullMarked;
