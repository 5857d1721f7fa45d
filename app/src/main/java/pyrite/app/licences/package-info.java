/** The licences of the libraries, fonts and icons in the jar. Read {@link pyrite.app.licences.Licences} first. */
@NullMarked
package pyrite.app.licences;

import org.jspecify.annotations.NullMarked;
