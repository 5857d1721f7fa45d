package pyrite.core.structure;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/**
 * What belongs together at the two ends of an interface definition, as a table that can be edited.
 *
 * @param one the first end
 * @param other the second
 * @param rows the features of the first end
 * @param alone names of features of the second end that nothing is paired with
 */
public record PairTable(Element one, Element other, List<Row> rows, List<String> alone) {
    /**
     * A feature of the first end.
     *
     * @param way "sends", "receives", "exchanges" or "has"
     * @param partner the name of what belongs to it at the second end; empty if nothing does
     * @param choices all that could, those that fit first
     */
    public record Row(String name, String way, String partner, List<Pairing.Partner> choices) {}

    public PairTable {
        rows = List.copyOf(rows);
        alone = List.copyOf(alone);
    }

    /** Nothing for what is no interface or connection definition with two ports as ends. */
    public static Optional<PairTable> of(Model model, Element definition) {
        List<Element> ends = ends(model, definition);
        if (ends.size() != 2) {
            return Optional.empty();
        }
        Element one = ends.getFirst();
        Element other = ends.getLast();
        PortFace mine = PortFace.of(model, one);
        PortFace theirs = PortFace.of(model, other);
        Pairs pairs = Pairs.of(model, definition);
        List<Row> rows = mine.features().stream()
                .map(feature -> new Row(
                        feature.name(),
                        feature.way().verb(),
                        pairs.second(feature, theirs)
                                .map(PortFace.Feature::name)
                                .orElse(""),
                        choices(model, one, feature, other, theirs)))
                .toList();
        Set<String> paired = rows.stream().map(Row::partner).collect(Collectors.toSet());
        return Optional.of(new PairTable(
                one,
                other,
                rows,
                theirs.features().stream()
                        .map(PortFace.Feature::name)
                        .filter(name -> !paired.contains(name))
                        .toList()));
    }

    private static List<Element> ends(Model model, Element definition) {
        return definition.kind() != ElementKind.INTERFACE_DEFINITION
                        && definition.kind() != ElementKind.CONNECTION_DEFINITION
                ? List.of()
                : model.inheritance().features(definition).stream()
                        .filter(feature -> feature.get(Property.END).orElse(false)
                                && feature.kind() == ElementKind.PORT
                                && !model.isLibrary(feature.id()))
                        .toList();
    }

    private static List<Pairing.Partner> choices(
            Model model, Element one, PortFace.Feature feature, Element other, PortFace theirs) {
        return theirs.features().stream()
                .map(met -> new Pairing.Partner(
                        met.name(),
                        Fit.between(model, one, feature, other, met).stream()
                                .map(Fit.Misfit::sentence)
                                .collect(Collectors.joining("; "))))
                .sorted(Comparator.comparing(partner -> !partner.reason().isEmpty()))
                .toList();
    }

    /** Another set of pairs, or why they cannot be. */
    public sealed interface Result {
        record Made(Edit edit) implements Result {}

        record Refused(String reason) implements Result {}
    }

    /**
     * @param pairs names at the second end by the names at the first; a name alone belongs to the same name, if the
     *     other end has it
     */
    public Result pair(Model model, Element definition, Map<String, String> pairs) {
        for (Map.Entry<String, String> pair : pairs.entrySet()) {
            Row row = rows.stream()
                    .filter(each -> each.name().equals(pair.getKey()))
                    .findFirst()
                    .orElse(null);
            Pairing.Partner partner = row == null
                    ? null
                    : row.choices().stream()
                            .filter(choice -> choice.name().equals(pair.getValue()))
                            .findFirst()
                            .orElse(null);
            if (partner == null) {
                return new Result.Refused("the ends have no '" + pair.getKey() + "' and '" + pair.getValue() + "'");
            }
            if (!partner.reason().isEmpty()) {
                return new Result.Refused(partner.reason());
            }
        }
        if (new HashSet<>(pairs.values()).size() < pairs.size()) {
            return new Result.Refused("two features cannot belong to the same one; pair each with another");
        }
        return new Result.Made(edit(model, definition, pairs));
    }

    private Edit edit(Model model, Element definition, Map<String, String> pairs) {
        Set<ElementId> old = model.children(definition.id()).stream()
                .filter(member -> member.kind() == ElementKind.BINDING && joinsEnds(model, member))
                .map(Element::id)
                .collect(Collectors.toSet());
        List<Element> put = new ArrayList<>();
        Rank last = model.rankAtEnd(definition.id());
        for (Map.Entry<String, String> pair : new TreeMap<>(pairs).entrySet()) {
            if (!pair.getKey().equals(pair.getValue())) {
                put.add(Element.of(ElementKind.BINDING, definition.id(), last, null)
                        .with(Property.LEFT, way(model, one, pair.getKey()))
                        .with(Property.RIGHT, way(model, other, pair.getValue())));
                last = Rank.after(last, 1).getFirst();
            }
        }
        return new Edit(put, old);
    }

    private boolean joinsEnds(Model model, Element binding) {
        Set<ElementId> firsts = ConnectorEnds.of(model, binding).stream()
                .map(end -> end.chain().getFirst())
                .collect(Collectors.toSet());
        return firsts.equals(Set.of(one.id(), other.id()));
    }

    private static Reference way(Model model, Element end, String name) {
        return new Reference(List.of(
                end.id(),
                PortFace.of(model, end).named(name).orElseThrow().element().id()));
    }
}
