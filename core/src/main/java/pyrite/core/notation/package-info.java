/**
 * SysML v2 text in and out. Reading makes an {@link pyrite.core.model.Edit} or located problems; writing makes
 * canonical text that reads back as the same model. Read {@link pyrite.core.notation.NotationReader} first.
 */
@NullMarked
package pyrite.core.notation;

import org.jspecify.annotations.NullMarked;
