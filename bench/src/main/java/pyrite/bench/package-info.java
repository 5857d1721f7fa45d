/** Benchmarks against hand-written baselines in the same run; ratios count, not milliseconds. */
@NullMarked
package pyrite.bench;

import org.jspecify.annotations.NullMarked;
