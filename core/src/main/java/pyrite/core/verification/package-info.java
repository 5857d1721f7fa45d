/**
 * Judges requirements: runs a case, evaluates each requirement's constraints over the trajectory, and records what the
 * verdict rests on. Read {@link pyrite.core.verification.CaseRun} first.
 */
@NullMarked
package pyrite.core.verification;

import org.jspecify.annotations.NullMarked;
