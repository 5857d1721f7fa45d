/** Who may sign in and what they may do. Read {@link pyrite.app.security.SecurityRules} first. */
@NullMarked
package pyrite.app.security;

import org.jspecify.annotations.NullMarked;
