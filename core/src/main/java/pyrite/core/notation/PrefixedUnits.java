package pyrite.core.notation;

import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Name;
import pyrite.core.expression.Units;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Names;

/**
 * Finds units with an SI prefix, such as {@code mm} and {@code SI::km}, which are not declared one by one. Only units
 * that SI itself declares take a prefix, and not the kilogram.
 */
final class PrefixedUnits {
    static final String SI = "SI";

    /** Levels: they do not add and scale as quantities do. */
    static final Set<String> LOGARITHMIC = Set.of("dB", "B", "Np", "dBm", "dBW", "dBV", "pH", "phon");

    private final Function<Name, Optional<ElementId>> lookup;
    private final Function<ElementId, Optional<Element>> elements;

    /** @param lookup finds units by their symbols */
    PrefixedUnits(Function<Name, Optional<ElementId>> lookup, Function<ElementId, Optional<Element>> elements) {
        this.lookup = lookup;
        this.elements = elements;
    }

    /** Those of the SI package, wherever it is imported. */
    static PrefixedUnits ofSi(Names names, Function<ElementId, Optional<Element>> elements) {
        return new PrefixedUnits(name -> names.resolve(Name.of(SI, name.last()), null), elements);
    }

    record Found(String prefix, ElementId unit) {}

    Optional<Found> find(Name name) {
        if (LOGARITHMIC.contains(name.last())) {
            return Optional.empty();
        }
        for (String prefix : Units.prefixes()) {
            Optional<ElementId> unit = behind(prefix, name);
            if (unit.isPresent()) {
                return Optional.of(new Found(prefix, unit.get()));
            }
        }
        return Optional.empty();
    }

    private Optional<ElementId> behind(String prefix, Name name) {
        String symbol = name.last();
        if (!symbol.startsWith(prefix) || symbol.length() == prefix.length()) {
            return Optional.empty();
        }
        String rest = symbol.substring(prefix.length());
        // An attribute that is called like a unit does not hide it behind a prefix.
        return lookup.apply(name.withLast(rest))
                .flatMap(found -> isPrefixable(found, rest) ? Optional.of(found) : lookup.apply(Name.of(SI, rest)))
                .filter(found -> isPrefixable(found, rest));
    }

    private boolean isPrefixable(ElementId id, String symbol) {
        return elements.apply(id)
                .filter(unit -> symbol.equals(unit.shortName()) && !symbol.equals("kg") && isSi(unit.owner()))
                .isPresent();
    }

    private boolean isSi(@Nullable ElementId owner) {
        return owner != null
                && elements.apply(owner)
                        .filter(element -> SI.equals(element.name()))
                        .isPresent();
    }
}
