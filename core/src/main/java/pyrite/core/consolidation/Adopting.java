package pyrite.core.consolidation;

import java.util.ArrayList;
import java.util.List;
import pyrite.core.consolidation.Feature.Place;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.trace.Link;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.Linking;

/** Writes down what became of a place: a link from the definition of the system to it. */
final class Adopting {
    static final String ORIGIN = "origin";

    private Adopting() {}

    /**
     * The links from a definition to all places where it was found; what another one had of them is taken away.
     *
     * @throws IllegalArgumentException if the link rules of the project allow none
     */
    static Edit link(Model model, Element definition, List<Place> places) {
        Consolidation before = Consolidation.of(model);
        LinkKind kind = LinkKind.named(model, ORIGIN).orElseThrow();
        Linking linking = new Linking(model);
        List<Link> old = new ArrayList<>();
        places.forEach(place -> before.origin(place)
                .filter(link -> !link.source().equals(definition.id()))
                .ifPresent(old::add));
        Linking.Proposal made = linking.make(places.stream()
                .map(place -> new Linking.Request(
                        kind, definition, model.get(place.member().id())))
                .toList());
        if (!made.refused().isEmpty()) {
            throw new IllegalArgumentException(made.refused().getFirst());
        }
        return Edit.joined(List.of(linking.remove(old), made.edit()));
    }
}
