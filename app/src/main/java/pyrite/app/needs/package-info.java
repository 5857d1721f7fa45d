/** The station for needs: what stakeholders want of the product, and what answers it. */
@NullMarked
package pyrite.app.needs;

import org.jspecify.annotations.NullMarked;
