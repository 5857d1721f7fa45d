package pyrite.core.expression;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.hipparchus.fraction.Fraction;

/**
 * The dimension of a quantity as a product of powers of base dimensions (ISO 80000-1, clause 6): base symbol to
 * exponent, exponents rational and never zero. The empty product is dimension one.
 */
public final class Dimension {
    public static final Dimension ONE = new Dimension(new TreeMap<>());
    private static final Pattern FACTOR = Pattern.compile("([\\p{L}]+)(?:\\^(-?\\d+)(?:/(\\d+))?)?");

    /** Base dimensions of the ISQ with their SI units, in the order units are usually written. */
    private static final Map<String, String> BASE_UNITS = new LinkedHashMap<>();

    static {
        BASE_UNITS.put("M", "kg");
        BASE_UNITS.put("L", "m");
        BASE_UNITS.put("T", "s");
        BASE_UNITS.put("I", "A");
        BASE_UNITS.put("Θ", "K");
        BASE_UNITS.put("N", "mol");
        BASE_UNITS.put("J", "cd");
        // Not of the ISQ: what is counted and what is paid are no plain numbers, so that they are not mixed up with
        // any.
        BASE_UNITS.put("Count", "pcs");
        BASE_UNITS.put("Money", "EUR");
    }

    private final SortedMap<String, Fraction> exponents;

    private Dimension(SortedMap<String, Fraction> exponents) {
        this.exponents = exponents;
    }

    /**
     * Reads {@code "L^2 M T^-3"}; the empty text is dimension one.
     *
     * @throws IllegalArgumentException if a factor is not a symbol with an optional rational exponent
     */
    public static Dimension parse(String text) {
        TreeMap<String, Fraction> exponents = new TreeMap<>();
        for (String factor : text.isBlank() ? new String[0] : text.trim().split("\\s+")) {
            Matcher matcher = FACTOR.matcher(factor);
            if (!matcher.matches()) {
                throw new IllegalArgumentException("'" + factor + "' is no factor of a dimension such as T^-2");
            }
            int numerator = matcher.group(2) == null ? 1 : Integer.parseInt(matcher.group(2));
            int denominator = matcher.group(3) == null ? 1 : Integer.parseInt(matcher.group(3));
            exponents.merge(matcher.group(1), new Fraction(numerator, denominator), Fraction::add);
        }
        return of(exponents);
    }

    private static Dimension of(TreeMap<String, Fraction> exponents) {
        exponents.values().removeIf(Fraction::isZero);
        return exponents.isEmpty() ? ONE : new Dimension(exponents);
    }

    public boolean isOne() {
        return exponents.isEmpty();
    }

    public Dimension times(Dimension other) {
        if (other.isOne()) {
            return this;
        }
        TreeMap<String, Fraction> product = new TreeMap<>(exponents);
        other.exponents.forEach((base, exponent) -> product.merge(base, exponent, Fraction::add));
        return of(product);
    }

    public Dimension per(Dimension other) {
        return times(other.power(-1));
    }

    public Dimension power(int exponent) {
        return power(new Fraction(exponent));
    }

    public Dimension power(Fraction exponent) {
        TreeMap<String, Fraction> power = new TreeMap<>();
        exponents.forEach((base, own) -> power.put(base, own.multiply(exponent)));
        return of(power);
    }

    public Map<String, Fraction> exponents() {
        return Map.copyOf(exponents);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Dimension that && exponents.equals(that.exponents);
    }

    @Override
    public int hashCode() {
        return exponents.hashCode();
    }

    /** The coherent SI unit as a product of base units, {@code kg*m^2/s^3}; empty for dimension one. */
    public String unitSymbol() {
        String above = product(1);
        String below = product(-1);
        boolean several = below.contains("*");
        return below.isEmpty() ? above : (above.isEmpty() ? "1" : above) + "/" + (several ? "(" + below + ")" : below);
    }

    private String product(int sign) {
        return BASE_UNITS.entrySet().stream()
                .filter(base -> exponent(base.getKey()).signum() == sign)
                .map(base -> factor(base.getValue(), exponent(base.getKey()).multiply(sign)))
                .collect(Collectors.joining("*"));
    }

    private Fraction exponent(String base) {
        return exponents.getOrDefault(base, Fraction.ZERO);
    }

    private static String factor(String symbol, Fraction exponent) {
        return exponent.equals(Fraction.ONE) ? symbol : symbol + "^" + plain(exponent);
    }

    /** {@code L^2 M T^-3}, or {@code 1}; what {@link #parse} reads. */
    @Override
    public String toString() {
        return isOne()
                ? "1"
                : exponents.entrySet().stream()
                        .map(e -> factor(e.getKey(), e.getValue()))
                        .collect(Collectors.joining(" "));
    }

    private static String plain(Fraction exponent) {
        return exponent.getDenominator() == 1
                ? Integer.toString(exponent.getNumerator())
                : exponent.getNumerator() + "/" + exponent.getDenominator();
    }
}
