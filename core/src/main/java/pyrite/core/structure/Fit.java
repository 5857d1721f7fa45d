package pyrite.core.structure;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import pyrite.core.expression.Dimension;
import pyrite.core.expression.Type;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Reference;

/**
 * Whether two connected ports fit: what one sends the other receives, under the same name, of a type that conforms, of
 * the same dimension, and no more of it than there is room for. A port that says nothing fits anything. A port of the
 * whole that is joined to a port of one of its parts hands on what goes through it, so both go the same way.
 */
public final class Fit {
    private final Model model;
    private final End one;
    private final End other;
    private final boolean isHandedOn;
    private final Pairs pairs;
    private final List<Misfit> misfits = new ArrayList<>();

    private Fit(Model model, End one, End other, boolean isHandedOn, Pairs pairs) {
        this.model = model;
        this.isHandedOn = isHandedOn;
        this.pairs = pairs;
        this.one = one;
        this.other = other;
    }

    /** What does not fit. */
    public enum Reason {
        DIRECTION,
        TYPE,
        DIMENSION,
        MULTIPLICITY,
        MISSING
    }

    /**
     * @param feature its name at the ports
     * @param sentence says what does not fit and what would
     */
    public record Misfit(Reason reason, String feature, String sentence) {}

    /** An end of a connection: a port and the way to it in words. */
    record End(Element port, String words, PortFace face, boolean isBoundary) {
        End turnedInward() {
            return new End(port, words, face.conjugated(), isBoundary);
        }
    }

    /** What does not fit at a connection or interface; nothing where an end is no port, or there are more than two. */
    public static List<Misfit> of(Model model, Element connector) {
        List<End> ends = ends(model, connector);
        return ends.size() == 2 ? of(model, ends.getFirst(), ends.getLast(), Pairs.of(model, connector)) : List.of();
    }

    /** What does not fit between two ports of different parts. */
    static List<Misfit> between(Model model, Element one, Element other) {
        return of(model, end(model, one), end(model, other), Pairs.BY_NAME);
    }

    private static End end(Model model, Element port) {
        return new End(port, words(model, List.of(port.id())), PortFace.of(model, port), false);
    }

    /** What would not fit if a feature of one port were paired with one of another. */
    static List<Misfit> between(Model model, Element one, PortFace.Feature mine, Element other, PortFace.Feature met) {
        Fit fit = new Fit(model, end(model, one), end(model, other), false, Pairs.BY_NAME);
        fit.meet(mine, met);
        return List.copyOf(fit.misfits);
    }

    /** Whether two ports say enough of what they carry to be compared. */
    public static boolean areComparable(Model model, Element one, Element other) {
        return PortFace.of(model, one).isComparable()
                && PortFace.of(model, other).isComparable();
    }

    private static List<Misfit> of(Model model, End one, End other, Pairs pairs) {
        if (one.isBoundary() == other.isBoundary()) {
            return new Fit(model, one, other, false, pairs).misfits();
        }
        return one.isBoundary()
                ? new Fit(model, one.turnedInward(), other, true, pairs).misfits()
                : new Fit(model, one, other.turnedInward(), true, pairs).misfits();
    }

    /** The faces of the ports at the ends of a connection or interface. */
    public static List<PortFace> faces(Model model, Element connector) {
        return ends(model, connector).stream().map(End::face).toList();
    }

    static List<End> ends(Model model, Element connector) {
        return ConnectorEnds.of(model, connector).stream()
                .flatMap(target -> end(model, target).stream())
                .toList();
    }

    private static Optional<End> end(Model model, Reference target) {
        List<ElementId> chain = target.chain();
        Element at = model.find(chain.getFirst()).orElse(null);
        for (ElementId step : chain.subList(1, chain.size())) {
            at = at == null
                    ? null
                    : model.inheritance()
                            .effective(at, step)
                            .or(() -> model.find(step))
                            .orElse(null);
        }
        return Optional.ofNullable(at)
                .filter(port -> port.kind() == ElementKind.PORT)
                .map(port -> new End(port, words(model, chain), PortFace.of(model, port), chain.size() == 1));
    }

    private static String words(Model model, List<ElementId> chain) {
        return chain.stream()
                .map(id -> model.environment().nameOf((pyrite.core.expression.Referent) id))
                .collect(Collectors.joining(".", "'", "'"));
    }

    private List<Misfit> misfits() {
        if (!one.face().isComparable() || !other.face().isComparable()) {
            return List.of();
        }
        one.face()
                .features()
                .forEach(feature -> pairs.second(feature, other.face())
                        .ifPresentOrElse(met -> meet(feature, met), () -> missing(one, feature, other)));
        other.face().features().stream()
                .filter(feature -> pairs.first(one.face(), feature).isEmpty())
                .forEach(feature -> missing(other, feature, one));
        return List.copyOf(misfits);
    }

    private void misfit(Reason reason, PortFace.Feature feature, String sentence) {
        misfits.add(new Misfit(reason, feature.name(), sentence));
    }

    private void missing(End has, PortFace.Feature feature, End lacks) {
        misfit(
                Reason.MISSING,
                feature,
                has.words() + " " + feature.way().verb() + " '" + feature.name() + "', which " + lacks.words()
                        + " does not have");
    }

    private void meet(PortFace.Feature mine, PortFace.Feature met) {
        if (!mine.way().meets(met.way())) {
            misfit(Reason.DIRECTION, mine, direction(mine, met));
            return;
        }
        boolean flowsHere = mine.way() == PortFace.Way.IN;
        End sender = flowsHere ? other : one;
        End receiver = flowsHere ? one : other;
        PortFace.Feature sent = flowsHere ? met : mine;
        PortFace.Feature received = flowsHere ? mine : met;
        boolean oneWay = mine.way() == PortFace.Way.IN || met.way() == PortFace.Way.IN;
        types(sender, sent, receiver, received, oneWay);
        multiplicities(sender, sent, receiver, received);
    }

    private String direction(PortFace.Feature mine, PortFace.Feature met) {
        if (mine.way() != met.way()) {
            return one.words() + " " + mine.way().verb() + " '" + mine.name() + "', and " + other.words() + " only "
                    + met.way().verb() + " it; give it a direction at both";
        }
        String conjugate = "type one of them by the conjugate, written with '~'";
        return isHandedOn
                ? "'" + mine.name() + "' goes in at one of " + one.words() + " and " + other.words()
                        + " and out at the other, but the outer port only hands it on; " + conjugate
                : one.words() + " and " + other.words() + " both "
                        + (mine.way() == PortFace.Way.OUT ? "send" : "receive") + " '" + mine.name() + "'; "
                        + conjugate;
    }

    private void types(End sender, PortFace.Feature sent, End receiver, PortFace.Feature received, boolean oneWay) {
        Type from = model.environment().typeOf(sent.element().id());
        Type to = model.environment().typeOf(received.element().id());
        if (from instanceof Type.Number(Dimension given) && to instanceof Type.Number(Dimension expected)) {
            if (!given.equals(expected)) {
                misfit(
                        Reason.DIMENSION,
                        sent,
                        "'" + sent.name() + "' is " + described(sent, given) + " at " + sender.words() + " and "
                                + described(received, expected) + " at " + receiver.words());
            }
            return;
        }
        Element givenType = definition(sent.element()).orElse(null);
        Element expectedType = definition(received.element()).orElse(null);
        if (givenType == null || expectedType == null) {
            return;
        }
        boolean conforms = model.inheritance().isA(givenType, expectedType.id())
                || !oneWay && model.inheritance().isA(expectedType, givenType.id());
        if (!conforms) {
            misfit(
                    Reason.TYPE,
                    sent,
                    "'" + sent.name() + "' is of " + name(givenType) + " at " + sender.words() + ", but "
                            + receiver.words() + " takes " + name(expectedType) + " or a kind of it");
        }
    }

    private String described(PortFace.Feature feature, Dimension dimension) {
        return definition(feature.element()).map(this::name).orElseGet(dimension::toString);
    }

    private Optional<Element> definition(Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(general -> general.kind().isDefinition())
                .findFirst();
    }

    private String name(Element definition) {
        return String.valueOf(model.names().effectiveName(definition));
    }

    private void multiplicities(End sender, PortFace.Feature sent, End receiver, PortFace.Feature received) {
        Multiplicity given = model.inheritance().multiplicity(sent.element());
        Multiplicity room = model.inheritance().multiplicity(received.element());
        if (!given.isAtMost(room) || given.lower() < room.lower()) {
            misfit(
                    Reason.MULTIPLICITY,
                    sent,
                    sender.words() + " has [" + given + "] of '" + sent.name() + "', but " + receiver.words() + " has ["
                            + room + "]");
        }
    }
}
