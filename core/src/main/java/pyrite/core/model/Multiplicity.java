package pyrite.core.model;

/** How many instances a usage has, {@code [lower..upper]}; an upper bound of {@link #MANY} is written {@code *}. */
public record Multiplicity(int lower, int upper) {
    public static final int MANY = -1;
    public static final Multiplicity ONE = new Multiplicity(1, 1);

    public Multiplicity {
        if (lower < 0 || upper != MANY && upper < lower) {
            throw new IllegalArgumentException(
                    "a multiplicity runs from 0 or more up to its upper bound, not from " + lower + " to " + upper);
        }
    }

    /** Whether there are never more than {@code other} allows. */
    public boolean isAtMost(Multiplicity other) {
        return other.upper == MANY || upper != MANY && upper <= other.upper;
    }

    public boolean isFixed() {
        return lower == upper;
    }

    /** As the notation writes it, without brackets. */
    @Override
    public String toString() {
        String high = upper == MANY ? "*" : Integer.toString(upper);
        return isFixed() ? high : lower == 0 && upper == MANY ? "*" : lower + ".." + high;
    }
}
