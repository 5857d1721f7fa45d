package pyrite.core.consolidation;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.specification.Metadata;

/** Pairs of which somebody has said that they are different things. */
final class KeptApart {
    static final ElementId MARK = LibraryNames.id("Consolidation::KeptApart");

    private KeptApart() {}

    static Set<Set<ElementId>> in(Model model) {
        Set<Set<ElementId>> pairs = new HashSet<>();
        model.referrers(MARK).stream()
                .map(model::get)
                .filter(mark -> mark.kind() == ElementKind.METADATA)
                .forEach(mark -> {
                    List<Reference> about = mark.references(Property.ABOUT);
                    if (about.size() == 2) {
                        pairs.add(Set.of(about.get(0).target(), about.get(1).target()));
                    }
                });
        return pairs;
    }

    /** Marks each pair of several that is not marked yet; beside the first of them. */
    static Edit mark(Model model, List<Element> several, String reason) {
        Set<Set<ElementId>> known = in(model);
        List<Element> put = new ArrayList<>();
        Element owner = model.owners(several.getFirst()).stream()
                .filter(around -> around.kind().isPackage())
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("what is kept apart stands in a package"));
        Rank last = model.rankAtEnd(owner.id());
        for (int i = 0; i < several.size(); i++) {
            for (int k = i + 1; k < several.size(); k++) {
                Element one = several.get(i);
                Element other = several.get(k);
                if (!known.contains(Set.of(one.id(), other.id()))) {
                    Element mark = Element.of(ElementKind.METADATA, owner.id(), last, null)
                            .with(Property.TYPES, List.of(Reference.to(MARK)))
                            .with(Property.ABOUT, List.of(Reference.to(one.id()), Reference.to(other.id())));
                    put.add(mark);
                    put.add(Metadata.text(model, mark, "reason", reason, Rank.between(null, null)));
                    last = Objects.requireNonNull(Rank.between(last, null));
                }
            }
        }
        return new Edit(put, Set.of());
    }
}
