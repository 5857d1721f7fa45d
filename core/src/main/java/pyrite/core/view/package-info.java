/**
 * What pages show of a model, computed from it: features with values and origins, diagrams, outlines, differences. Read
 * {@link pyrite.core.view.FeatureSheet} first.
 */
@NullMarked
package pyrite.core.view;

import org.jspecify.annotations.NullMarked;
