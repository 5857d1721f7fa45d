/**
 * What pages show of a model, computed from it: features with their values and where they come from. Read
 * {@link pyrite.core.view.FeatureSheet} first.
 */
@NullMarked
package pyrite.core.view;

import org.jspecify.annotations.NullMarked;
