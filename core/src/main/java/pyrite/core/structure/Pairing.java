package pyrite.core.structure;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/**
 * What could belong together at two ports whose features have differing names.
 *
 * @param rows the features of the first port
 */
public record Pairing(List<Row> rows) {
    /**
     * A feature of the first port.
     *
     * @param way in words, "sends"
     * @param partners the features of the second port, those that fit first
     */
    public record Row(String name, String way, List<Partner> partners) {}

    /** @param reason why it does not fit; empty if it does */
    public record Partner(String name, String reason) {}

    /** Empty if there is nothing to pair: a port that says nothing, or names that all meet. */
    public static Optional<Pairing> of(Model model, Element one, Element other) {
        PortFace mine = PortFace.of(model, one);
        PortFace theirs = PortFace.of(model, other);
        boolean isPaired = mine.features().stream()
                .allMatch(feature -> theirs.named(feature.name()).isPresent());
        if (!mine.isComparable() || !theirs.isComparable() || isPaired) {
            return Optional.empty();
        }
        return Optional.of(new Pairing(mine.features().stream()
                .map(feature -> new Row(
                        feature.name(),
                        feature.way().name().toLowerCase(Locale.ROOT),
                        theirs.features().stream()
                                .map(met -> new Partner(
                                        met.name(),
                                        Fit.between(model, one, feature, other, met).stream()
                                                .map(Fit.Misfit::sentence)
                                                .collect(Collectors.joining("; "))))
                                .sorted(Comparator.comparing(
                                        partner -> !partner.reason().isEmpty()))
                                .toList()))
                .toList()));
    }
}
