package pyrite.core.model;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The position of an element among its siblings: a fraction in (0, 1) written in base 36 without the leading point.
 * Between any two ranks there is another, so moving one element touches no other. Never ends in 0.
 */
public record Rank(String digits) implements Comparable<Rank> {
    private static final int BASE = 36;
    /**
     * Those that the members of one owner get at first are the same for every owner: a large model has only these few.
     */
    private static final List<Rank> FIRST_OF_FEW = spread(1);

    private static final List<Rank> FIRST_OF_MANY = spread(2);

    public Rank {
        if (digits.isEmpty() || digits.endsWith("0") || !isNumber(digits)) {
            throw new IllegalArgumentException("'" + digits + "' is no rank");
        }
    }

    private static boolean isNumber(String digits) {
        for (int i = 0; i < digits.length(); i++) {
            if (Character.digit(digits.charAt(i), BASE) < 0) {
                return false;
            }
        }
        return true;
    }

    /** A rank strictly between the two; {@code null} stands for the very beginning or the very end. */
    public static Rank between(@Nullable Rank before, @Nullable Rank after) {
        String low = before == null ? "" : before.digits;
        String high = after == null ? null : after.digits;
        if (high != null && low.compareTo(high) >= 0) {
            throw new IllegalArgumentException("no rank lies between " + low + " and " + high);
        }
        StringBuilder middle = new StringBuilder();
        for (int i = 0; ; i++) {
            int l = i < low.length() ? Character.digit(low.charAt(i), BASE) : 0;
            int h = high != null && i < high.length() ? Character.digit(high.charAt(i), BASE) : BASE;
            if (h - l > 1) {
                return new Rank(
                        middle.append(Character.forDigit((l + h) / 2, BASE)).toString());
            }
            middle.append(Character.forDigit(l, BASE));
            high = h == l ? high : null;
        }
    }

    /** {@code count} ascending ranks, evenly spread, all after {@code before}. */
    public static List<Rank> after(@Nullable Rank before, int count) {
        if (before == null) {
            int width = Integer.toString(count + 1, BASE).length();
            return (width == 1 ? FIRST_OF_FEW : width == 2 ? FIRST_OF_MANY : spread(width)).subList(0, count);
        }
        List<Rank> ranks = new ArrayList<>(count);
        Rank last = before;
        for (int i = 0; i < count; i++) {
            last = between(last, null);
            ranks.add(last);
        }
        return ranks;
    }

    /** All ranks with so many digits before the one that leaves room on both sides. */
    private static List<Rank> spread(int width) {
        List<Rank> ranks = new ArrayList<>();
        int end = (int) Math.pow(BASE, width);
        for (int i = 1; i < end; i++) {
            String digits = Integer.toString(i, BASE);
            ranks.add(new Rank("0".repeat(width - digits.length()) + digits + "i"));
        }
        return List.copyOf(ranks);
    }

    @Override
    public int compareTo(Rank other) {
        return digits.compareTo(other.digits);
    }
}
