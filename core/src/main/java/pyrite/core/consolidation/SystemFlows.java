package pyrite.core.consolidation;

import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import pyrite.core.model.Edit;
import pyrite.core.model.EditSequence;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Names;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.story.Turning;

/**
 * Makes a flow of use cases a flow of a function of the system: the function gets uses of the functions at its ends, or
 * a parameter of its own where an end is an event, and the flow between them.
 */
final class SystemFlows {
    private final EditSequence edits;
    private final Element whole;

    SystemFlows(Model model, Element whole) {
        this.edits = new EditSequence(model);
        this.whole = whole;
    }

    /** @param flow the flow of the system, made or there already */
    record Made(Edit edit, Element flow) {}

    Made make(Element example) {
        Reference source = end(example, Property.SOURCE);
        Reference target = end(example, Property.TARGET);
        Element known = known(source, target).orElse(null);
        if (known != null) {
            return new Made(edits.edit(), known);
        }
        Element flow = Element.of(ElementKind.FLOW, whole.id(), edits.model().rankAtEnd(whole.id()), null)
                .with(Property.SOURCE, source)
                .with(Property.TARGET, target);
        edits.then(Edit.put(flow));
        edits.model().children(example.id()).stream()
                .filter(child -> child.kind() == ElementKind.PAYLOAD)
                .findFirst()
                .ifPresent(payload ->
                        edits.then(Edit.put(Element.of(ElementKind.PAYLOAD, flow.id(), Rank.between(null, null), null)
                                .with(Property.TYPES, payload.references(Property.TYPES)))));
        return new Made(edits.edit(), flow);
    }

    private Optional<Element> known(Reference source, Reference target) {
        return edits.model().children(whole.id()).stream()
                .filter(child -> child.kind().isFlow()
                        && child.get(Property.SOURCE).equals(Optional.of(source))
                        && child.get(Property.TARGET).equals(Optional.of(target)))
                .findFirst();
    }

    /** Where a flow of the system begins or ends for one of a use case. */
    private Reference end(Element example, Property<Reference> end) {
        Reference there =
                example.get(end).orElseThrow(() -> new IllegalArgumentException("the flow does not say what it joins"));
        Model model = edits.model();
        Element step = there.chain().stream()
                .flatMap(id -> model.find(id).stream())
                .filter(each -> Turning.became(model, each).isPresent())
                .reduce((_, later) -> later)
                .orElseThrow(() -> new IllegalArgumentException("the flow joins no turned steps"));
        Element definition = Turning.definition(model, step).orElseThrow();
        if (definition.kind() == ElementKind.ACTION_DEFINITION) {
            return new Reference(
                    List.of(use(definition), model.get(there.target()).id()));
        }
        return Reference.to(parameter(definition, step.kind() == ElementKind.ACCEPT ? "in" : "out"));
    }

    private ElementId use(Element definition) {
        return features(ElementKind.ACTION, definition)
                .orElseGet(() -> added(ElementKind.ACTION, definition, ""))
                .id();
    }

    private ElementId parameter(Element item, String direction) {
        return edits.model().inheritance().features(whole).stream()
                .filter(feature -> feature.get(Property.DIRECTION)
                                .filter(direction::equals)
                                .isPresent()
                        && edits.model().inheritance().generals(feature).contains(item))
                .findFirst()
                .orElseGet(() -> added(ElementKind.ITEM, item, direction))
                .id();
    }

    private Optional<Element> features(ElementKind kind, Element type) {
        return edits.model().inheritance().features(whole).stream()
                .filter(feature -> feature.kind() == kind
                        && feature.get(Property.DIRECTION).isEmpty()
                        && edits.model().inheritance().generals(feature).contains(type))
                .findFirst();
    }

    private Element added(ElementKind kind, Element type, String direction) {
        Model model = edits.model();
        String name = Objects.requireNonNullElse(type.name(), kind.title());
        Element made = Element.of(
                        kind,
                        whole.id(),
                        model.rankAtEnd(whole.id()),
                        Names.free(
                                Set.copyOf(model.names().membersOf(whole.id())),
                                name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1)))
                .with(Property.TYPES, List.of(Reference.to(type.id())));
        Element added = direction.isEmpty() ? made : made.with(Property.DIRECTION, direction);
        edits.then(Edit.put(added));
        return added;
    }
}
