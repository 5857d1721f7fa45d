package pyrite.core.model;

import java.math.BigInteger;
import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * The position of an element among its siblings: a fraction in (0, 1) written in base 36 without the leading point.
 * Between any two ranks there is another, so moving one element touches no other. Never ends in 0.
 */
public record Rank(String digits) implements Comparable<Rank> {
    private static final int BASE = 36;
    /** The digits of a step at the ends, 2.8 million million of them. */
    private static final int STEP = 8;

    private static final long STEPS = (long) Math.pow(BASE, STEP);
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

    /**
     * A rank between the two; {@code null} stands for the very beginning or the very end, where ranks follow each other
     * in steps of a fixed width. Of two that are equal, it is behind both.
     */
    public static Rank between(@Nullable Rank before, @Nullable Rank after) {
        if (before == null) {
            return new Rank(after == null ? "i" : previous(after.digits));
        }
        if (after == null) {
            return new Rank(next(before.digits));
        }
        int order = before.compareTo(after);
        if (order > 0) {
            throw new IllegalArgumentException("no rank lies between " + before.digits + " and " + after.digits);
        }
        return order == 0
                ? new Rank(before.digits + "i")
                : between(before, after, 1).getFirst();
    }

    /** So many ascending ranks between the two, evenly spread, as short as they can be. */
    public static List<Rank> between(@Nullable Rank before, @Nullable Rank after, int count) {
        if (after == null || before != null && before.compareTo(after) >= 0) {
            return after(before, count);
        }
        String low = before == null ? "" : before.digits;
        for (int width = 1; ; width++) {
            BigInteger first = number(low, width);
            BigInteger room = number(after.digits, width).subtract(first);
            BigInteger step = room.divide(BigInteger.valueOf(count + 1L));
            if (step.signum() > 0) {
                List<Rank> ranks = new ArrayList<>(count);
                for (int i = 1; i <= count; i++) {
                    ranks.add(ofNumber(first.add(step.multiply(BigInteger.valueOf(i))), width));
                }
                return ranks;
            }
        }
    }

    /** The first so many digits. */
    private static BigInteger number(String digits, int width) {
        return new BigInteger(padded(digits, width), BASE);
    }

    private static String padded(String digits, int width) {
        return digits.length() >= width ? digits.substring(0, width) : digits + "0".repeat(width - digits.length());
    }

    private static Rank ofNumber(BigInteger number, int width) {
        String digits = number.toString(BASE);
        String all = "0".repeat(width - digits.length()) + digits;
        int end = all.length();
        while (all.charAt(end - 1) == '0') {
            end--;
        }
        return new Rank(all.substring(0, end));
    }

    /** {@code count} ascending ranks after {@code before}. */
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

    /** One step behind; where the steps are used up, they go on further to the right. */
    private static String next(String digits) {
        long number = Long.parseLong(padded(digits, STEP), BASE) + 1;
        number += number % BASE == 0 ? 1 : 0;
        return number < STEPS ? fixed(number) : digits.substring(0, STEP) + next(digits.substring(STEP));
    }

    /** One step before. */
    private static String previous(String digits) {
        long prefix = Long.parseLong(padded(digits, STEP), BASE);
        long number = prefix - (prefix % BASE == 1 ? 2 : 1);
        if (number > 0) {
            return fixed(number);
        }
        String zeros = "0".repeat(STEP);
        return prefix > 0 ? zeros + "i" : zeros + previous(digits.substring(STEP));
    }

    private static String fixed(long number) {
        String digits = Long.toString(number, BASE);
        return "0".repeat(STEP - digits.length()) + digits;
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
