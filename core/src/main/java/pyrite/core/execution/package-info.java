/**
 * Runs behaviour in discrete time: the actions that parts perform and the states they exhibit (SysML 2.0, 7.16 to
 * 7.18), together with the equations of the same parts. {@link pyrite.core.execution.ProgramBuilder} prepares what is
 * written, {@link pyrite.core.execution.Engine} lets it happen.
 */
@NullMarked
package pyrite.core.execution;

import org.jspecify.annotations.NullMarked;
