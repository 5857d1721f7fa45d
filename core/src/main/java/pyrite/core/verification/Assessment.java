package pyrite.core.verification;

import org.jspecify.annotations.Nullable;

/**
 * The result of evaluating a constraint: whether it holds, by what margin, when the margin was worst, when the
 * constraint first failed, and why.
 */
record Assessment(
        boolean holds,
        @Nullable Margin margin,
        @Nullable Double worstInstant,
        @Nullable Double firstViolation,
        String reason) {

    /** The one that decides an {@code and}: what fails before what holds, then the smaller margin. */
    static Assessment weaker(Assessment a, Assessment b) {
        return a.rank() <= b.rank() ? a : b;
    }

    /** The one that decides an {@code or}. */
    static Assessment stronger(Assessment a, Assessment b) {
        return a.rank() >= b.rank() ? a : b;
    }

    /**
     * Margins of the same dimension are compared as they are. Where they differ, their sizes relative to what was
     * compared are; a bare truth value outweighs any margin on its side.
     */
    private double rank() {
        double size = margin == null ? 1e300 : Math.min(Math.abs(margin.relative()), 1e299);
        return holds ? size : -size;
    }

    /** The same, said of one of several. */
    Assessment of(String one) {
        return one.isEmpty() ? this : new Assessment(holds, margin, worstInstant, firstViolation, one + ": " + reason);
    }

    Assessment negated() {
        return new Assessment(
                !holds,
                margin == null ? null : margin.negated(),
                worstInstant,
                holds ? worstInstant : null,
                "not: " + reason);
    }
}
