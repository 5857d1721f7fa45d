package pyrite.core.structure;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.structure.Fit.End;
import pyrite.core.structure.PortFace.Feature;
import pyrite.core.structure.PortFace.Way;

/** What could make two connected ports fit that do not. Whether it does, and harms nothing else, a trial must tell. */
public final class Refit {
    private final Model model;
    private final Element connector;
    private final End one;
    private final End other;
    private final List<Offer> offers = new ArrayList<>();

    private Refit(Model model, Element connector, End one, End other) {
        this.model = model;
        this.connector = connector;
        this.one = one;
        this.other = other;
    }

    /** @param label what would be done, as on a button */
    public record Offer(String label, Edit edit) {}

    /** @param feature what does not fit, by its name at a port */
    public static List<Offer> of(Model model, Element connector, String feature) {
        List<End> ends = Fit.ends(model, connector);
        return ends.size() == 2
                ? new Refit(model, connector, ends.getFirst(), ends.getLast()).offers(feature)
                : List.of();
    }

    private List<Offer> offers(String name) {
        for (Fit.Misfit misfit : Fit.of(model, connector)) {
            if (misfit.feature().equals(name)) {
                switch (misfit.reason()) {
                    case DIRECTION -> {
                        conjugate(one);
                        conjugate(other);
                    }
                    case MISSING -> {
                        missing(one, other, name);
                        missing(other, one, name);
                    }
                    case TYPE -> {
                        generalise(one, other, name);
                        generalise(other, one, name);
                    }
                    case MULTIPLICITY -> {
                        sameNumber(one, other, name);
                        sameNumber(other, one, name);
                    }
                    case DIMENSION -> {
                        // Only who knows what is meant can say which of the two is wrong.
                    }
                }
            }
        }
        return List.copyOf(offers);
    }

    private void conjugate(End end) {
        Element port = end.port();
        if (!port.references(Property.TYPES).isEmpty()) {
            boolean isConjugated = port.get(Property.CONJUGATED).orElse(false);
            offers.add(new Offer(
                    "Conjugate " + bare(end), Edit.put(port.with(Property.CONJUGATED, isConjugated ? null : true))));
        }
    }

    private void missing(End has, End lacks, String name) {
        Feature feature = has.face().named(name).orElse(null);
        if (feature == null || lacks.face().named(name).isPresent()) {
            return;
        }
        if (connector.kind().isConnector()) {
            lacks.face().features().stream()
                    .filter(partner -> has.face().named(partner.name()).isEmpty()
                            && Fit.between(model, has.port(), feature, lacks.port(), partner)
                                    .isEmpty())
                    .forEach(partner -> paired(has, feature, partner).ifPresent(offers::add));
        }
        added(feature, lacks).ifPresent(offers::add);
    }

    /** Two names paired: in the definition of an interface, or in a new one that the connection gets. */
    private Optional<Offer> paired(End has, Feature feature, Feature partner) {
        Map<String, String> names = new HashMap<>(Pairs.of(model, connector).forth());
        names.put(has == one ? feature.name() : partner.name(), has == one ? partner.name() : feature.name());
        String label = "Pair " + feature.name() + " with " + partner.name();
        Element definition = interfaceDefinition();
        return definition == null
                ? connectedBy(names).map(edit -> new Offer(label, edit))
                : PairTable.of(model, definition)
                        .map(table -> table.pair(model, definition, names))
                        .filter(PairTable.Result.Made.class::isInstance)
                        .map(made ->
                                new Offer(label + " in " + definition.name(), ((PairTable.Result.Made) made).edit()));
    }

    private @Nullable Element interfaceDefinition() {
        return model.inheritance().generals(connector).stream()
                .filter(general -> general.kind() == ElementKind.INTERFACE_DEFINITION && !model.isLibrary(general.id()))
                .findFirst()
                .orElse(null);
    }

    /** The same connection by a new interface definition. */
    private Optional<Edit> connectedBy(Map<String, String> names) {
        if (connector.owner() == null
                || !(model.apply(Edit.remove(connector.id())) instanceof EditResult.Applied(Model without, var _))) {
            return Optional.empty();
        }
        List<Reference> ends = ConnectorEnds.of(model, connector);
        return Wiring.connect(
                                without,
                                fromOwner(ends.getFirst()),
                                fromOwner(ends.getLast()),
                                new Wiring.Naming("", names),
                                Extent.DEFINITION)
                        instanceof Wiring.Result.Made made
                ? Optional.of(new Edit(made.edit().put(), Set.of(connector.id())))
                : Optional.empty();
    }

    private List<ElementId> fromOwner(Reference end) {
        return Stream.concat(Stream.ofNullable(connector.owner()), end.chain().stream())
                .toList();
    }

    /** The port definition with one more feature, which goes the other way. */
    private Optional<Offer> added(Feature feature, End lacks) {
        Element definition = definition(lacks.port()).orElse(null);
        if (definition == null || feature.name().contains(".")) {
            return Optional.empty();
        }
        boolean isExchanged = !PortFace.of(model, definition).equals(lacks.face())
                && model.inheritance()
                        .nearest(lacks.port(), Property.CONJUGATED)
                        .orElse(false);
        Way outside = lacks.isBoundary() == (lacks == one ? other : one).isBoundary()
                ? feature.way().conjugated(true)
                : feature.way();
        Way written = outside.conjugated(isExchanged);
        Element added = Element.of(
                        feature.element().kind(), definition.id(), model.rankAtEnd(definition.id()), feature.name())
                .with(
                        Property.TYPES,
                        model.inheritance()
                                .nearest(feature.element(), Property.TYPES)
                                .orElse(null))
                .with(Property.DIRECTION, direction(written));
        return Optional.of(new Offer("Add " + feature.name() + " to " + definition.name(), Edit.put(added)));
    }

    private static @Nullable String direction(Way way) {
        return switch (way) {
            case IN -> "in";
            case OUT -> "out";
            case INOUT -> "inout";
            case NONE -> null;
        };
    }

    /** What receives takes the nearest type that both are kinds of. */
    private void generalise(End sender, End receiver, String name) {
        Feature sent = sender.face().named(name).orElse(null);
        Feature received = receiver.face().named(name).orElse(null);
        if (sent == null || received == null || !sent.way().sends()) {
            return;
        }
        Element given = definition(sent.element()).orElse(null);
        Element expected = definition(received.element()).orElse(null);
        if (given == null
                || expected == null
                || received.element().references(Property.TYPES).isEmpty()) {
            return;
        }
        model.inheritance().generals(expected).stream()
                .filter(general ->
                        !model.isLibrary(general.id()) && model.inheritance().isA(given, general.id()))
                .findFirst()
                .ifPresent(common -> offers.add(new Offer(
                        "Let " + bare(receiver) + " take " + common.name(),
                        Edit.put(received.element().with(Property.TYPES, List.of(Reference.to(common.id())))))));
    }

    private void sameNumber(End like, End changed, String name) {
        like.face()
                .named(name)
                .ifPresent(feature -> changed.face().named(name).ifPresent(met -> {
                    var number = model.inheritance().multiplicity(feature.element());
                    offers.add(new Offer(
                            "Give " + name + " of " + bare(changed) + " [" + number + "]",
                            Edit.put(met.element().with(Property.MULTIPLICITY, number))));
                }));
    }

    private Optional<Element> definition(Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(general -> general.kind().isDefinition()
                        && general.kind() != ElementKind.ATTRIBUTE_DEFINITION
                        && !model.isLibrary(general.id()))
                .findFirst();
    }

    private static String bare(End end) {
        return end.words().replace("'", "");
    }
}
