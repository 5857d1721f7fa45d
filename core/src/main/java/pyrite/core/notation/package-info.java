/**
 * Reads and writes the SysML v2 textual notation. Reading gives an {@link pyrite.core.model.Edit} or located problems;
 * writing gives canonical text that reads back as the same model. Read {@link pyrite.core.notation.NotationReader}
 * first.
 */
@NullMarked
package pyrite.core.notation;

import org.jspecify.annotations.NullMarked;
