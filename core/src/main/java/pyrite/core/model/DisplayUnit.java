package pyrite.core.model;

import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Unit;

/** The unit numbers are shown in, with its symbol; the symbol of dimension one is empty. */
public record DisplayUnit(String symbol, Unit unit) {
    private static final Map<String, String> BASE_UNITS = Map.of("L", "m", "M", "kg", "T", "s", "I", "A", "Θ", "K", "N", "mol",
            "J", "cd");

    /** The coherent SI unit of a dimension as a product of base units. */
    public static DisplayUnit coherent(Dimension dimension) {
        String symbol = new TreeMap<>(dimension.exponents()).entrySet().stream()
                .map(e -> BASE_UNITS.getOrDefault(e.getKey(), e.getKey())
                        + (e.getValue().doubleValue() == 1 ? "" : "^" + e.getValue().toString().replace(" ", "")))
                .collect(Collectors.joining("*"));
        return new DisplayUnit(symbol, Unit.coherent(dimension));
    }

    /** The same unit for differences and margins. */
    public DisplayUnit ofDifference() {
        return unit.offset() == 0 ? this : new DisplayUnit("K", unit.ofDifference());
    }
}
