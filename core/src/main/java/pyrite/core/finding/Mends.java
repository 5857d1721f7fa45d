package pyrite.core.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.function.BiPredicate;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.Redirection;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Multiplicity;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.structure.ConnectorEnds;
import pyrite.core.structure.Fit;
import pyrite.core.structure.Refit;
import pyrite.core.structure.Wiring;
import pyrite.core.trace.Removal;

/** What would mend a finding. Each was tried: the finding goes, and no other comes. */
public final class Mends {
    private static final int MOST = 4;

    private final Model model;
    private final Finding finding;
    private final Element element;
    private final BiPredicate<Model, EditResult.Applied> isAllowed;
    private final List<Mend> mends = new ArrayList<>();

    private Mends(Model model, Finding finding, BiPredicate<Model, EditResult.Applied> isAllowed) {
        this.isAllowed = isAllowed;
        this.model = model;
        this.finding = finding;
        this.element = model.get(finding.element());
    }

    /** @param label what would be done, as on a button; tells it from the others of a finding */
    public record Mend(String label, Edit edit) {}

    /** @param isAllowed whether the project's rules let an edit pass that the model does */
    public static List<Mend> of(Model model, Finding finding, BiPredicate<Model, EditResult.Applied> isAllowed) {
        Mends mends = new Mends(model, finding, isAllowed);
        mends.collect();
        return List.copyOf(mends.mends);
    }

    private void collect() {
        switch (finding.rule()) {
            case MISFIT ->
                Refit.of(model, element, finding.about()).forEach(offer -> offer(offer.label(), offer.edit()));
            case OPEN_PORT -> openPort();
            case UNTYPED -> untyped();
            case CYCLE -> cycle();
            case MULTIPLICITY -> multiplicity();
            case UNUSED -> offer("Remove it", Edit.remove(element.id()));
            case GONE ->
                offer("Remove the link", Removal.of(model, List.of(element)).edit());
            case UNFIT -> unfit();
            default -> {
                // What was meant is not known, or more than one thing changes.
            }
        }
    }

    /** The transition of a special machine follows the one it redefines again, or goes. */
    private void unfit() {
        for (Element transition : model.children(element.id())) {
            if (transition.kind() == ElementKind.TRANSITION) {
                Redirection.of(model, element, transition)
                        .ifPresent(redirection -> offer(
                                "Let it leave '" + name(redirection.inherited()) + "'",
                                Edit.put(transition.with(
                                        Property.SOURCE,
                                        Reference.to(redirection.inherited().id())))));
                offer(
                        "Remove the transition",
                        Removal.of(model, List.of(transition)).edit());
            }
        }
    }

    private void offer(String label, Edit edit) {
        if (mends.size() < MOST
                && mends.stream().noneMatch(known -> known.label().equals(label))
                && model.apply(edit) instanceof EditResult.Applied applied
                && isMended(applied.model())
                && isAllowed.test(model, applied)) {
            mends.add(new Mend(label, edit));
        }
    }

    private boolean isMended(Model next) {
        Findings before = Findings.in(model);
        Findings after = Findings.in(next);
        if (after.of(finding.element()).stream().anyMatch(each -> each.key().equals(finding.key()))) {
            return false;
        }
        Set<ElementId> elements = after.elements();
        return elements.stream()
                .allMatch(id -> after.of(id).size() <= before.of(id).size());
    }

    /** With what fits in the same whole, or open for good. */
    private void openPort() {
        Element port = model.inheritance().features(element).stream()
                .filter(feature -> finding.about().equals(model.names().effectiveName(feature)))
                .findFirst()
                .orElse(null);
        Element owner = element.owner() == null ? null : model.get(element.owner());
        if (port == null || owner == null) {
            return;
        }
        List<ElementId> way = List.of(owner.id(), element.id(), port.id());
        ports(owner).forEach(known -> connect(way, List.of(owner.id(), known.id()), name(known)));
        for (Element other : model.inheritance().features(owner)) {
            if (other.kind() == ElementKind.PART && !other.equals(element)) {
                ports(other)
                        .forEach(met ->
                                connect(way, List.of(owner.id(), other.id(), met.id()), name(other) + "." + name(met)));
            }
        }
        if (Wiring.lead(model, owner, element, port) instanceof Wiring.Result.Made made) {
            offer("Lead it to the border of " + name(owner), made.edit());
        }
        Multiplicity multiplicity = model.inheritance().multiplicity(port);
        offer(
                "Let " + name(port) + " stay open",
                Edit.put(port.with(Property.MULTIPLICITY, new Multiplicity(0, multiplicity.upper()))));
    }

    private void connect(List<ElementId> way, List<ElementId> other, String label) {
        if (mends.size() < MOST - 2
                && Fit.areComparable(model, model.get(way.getLast()), model.get(other.getLast()))
                && Wiring.connect(model, way, other) instanceof Wiring.Result.Made made) {
            offer("Connect with " + label, made.edit());
        }
    }

    private List<Element> ports(Element of) {
        return model.inheritance().features(of).stream()
                .filter(feature -> feature.kind() == ElementKind.PORT && !model.isLibrary(feature.id()))
                .toList();
    }

    /** A definition of its name, made if there is none. */
    private void untyped() {
        String wished = name(element).substring(0, 1).toUpperCase(Locale.ROOT)
                + name(element).substring(1);
        Element around = model.owners(element).stream()
                .filter(owner -> owner.kind().isPackage())
                .findFirst()
                .orElse(null);
        if (around == null) {
            return;
        }
        Element known = model.children(around.id()).stream()
                .filter(member -> wished.equals(member.name()))
                .findFirst()
                .orElse(null);
        if (known == null) {
            Element made = Element.of(ElementKind.PART_DEFINITION, around.id(), model.rankAtEnd(around.id()), wished);
            offer("Define " + wished, Edit.put(made, typedBy(made)));
        } else if (known.kind() == ElementKind.PART_DEFINITION) {
            offer("Make it a " + wished, Edit.put(typedBy(known)));
        }
    }

    private Element typedBy(Element definition) {
        return element.with(Property.TYPES, List.of(Reference.to(definition.id())));
    }

    private void cycle() {
        Element last = last();
        if (last != null && !model.isLibrary(last.id())) {
            offer("Only refer to " + name(last), Edit.put(last.with(Property.REFERENTIAL, true)));
            int upper = model.inheritance().multiplicity(last).upper();
            offer(
                    "Let there be none: " + name(last) + " [0.." + (upper == Multiplicity.MANY ? "*" : upper) + "]",
                    Edit.put(last.with(Property.MULTIPLICITY, new Multiplicity(0, upper))));
        }
    }

    /** The part by which the definition contains itself. */
    private @Nullable Element last() {
        Element at = element;
        for (String step : finding.about().split("\\.")) {
            Element around = at;
            at = around == null
                    ? null
                    : model.inheritance().features(around).stream()
                            .filter(feature -> step.equals(model.names().effectiveName(feature)))
                            .findFirst()
                            .orElse(null);
        }
        return at;
    }

    private void multiplicity() {
        if (element.kind().isUsage()
                && !element.kind().isConnector()
                && ConnectorEnds.of(model, element).isEmpty()) {
            int needed = model.referrers(element.id()).stream()
                    .map(model::get)
                    .filter(user -> Objects.equals(user.owner(), element.owner())
                            && user.references(Property.SPECIALIZES).stream()
                                    .anyMatch(general -> general.target().equals(element.id())))
                    .mapToInt(user -> model.inheritance().multiplicity(user).lower())
                    .sum();
            int lower = model.inheritance().multiplicity(element).lower();
            offer(
                    "Make room for " + needed,
                    Edit.put(element.with(Property.MULTIPLICITY, new Multiplicity(Math.min(lower, needed), needed))));
        } else {
            offer("Remove the connection", Removal.of(model, List.of(element)).edit());
        }
    }

    private String name(Element of) {
        return Objects.requireNonNullElseGet(
                model.names().effectiveName(of), () -> of.kind().title());
    }
}
