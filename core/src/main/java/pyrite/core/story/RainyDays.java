package pyrite.core.story;

import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.specification.Metadata;

/** Tells what goes wrong from other alternatives: metadata at the succession that leads into the way. */
final class RainyDays {
    static final ElementId MARK = LibraryNames.id("Stories::RainyDay");

    private RainyDays() {}

    static boolean isMarked(Model model, Element succession) {
        return !Metadata.allOf(model, succession, MARK).isEmpty();
    }

    static Element mark(Element succession) {
        return Element.of(ElementKind.METADATA, succession.id(), pyrite.core.model.Rank.between(null, null), null)
                .with(Property.TYPES, List.of(Reference.to(MARK)));
    }

    static Edit set(Model model, Element succession, boolean isRainy) {
        List<Element> marks = Metadata.allOf(model, succession, MARK);
        if (isRainy == !marks.isEmpty()) {
            return new Edit(List.of(), Set.of());
        }
        return isRainy
                ? Edit.put(mark(succession).withOwner(succession.id(), model.rankAtEnd(succession.id())))
                : new Edit(List.of(), marks.stream().map(Element::id).collect(Collectors.toSet()));
    }
}
