package pyrite.core.structure;

import java.util.List;
import java.util.stream.Stream;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;

/**
 * Where the inside of something is written. What stands in a part that is typed by a definition belongs to the
 * definition, so that every use of it has the same inside, unless a person means this use alone.
 */
final class Insides {
    private final Model model;
    private final Extent extent;

    Insides(Model model) {
        this(model, Extent.DEFINITION);
    }

    Insides(Model model, Extent extent) {
        this.model = model;
        this.extent = extent;
    }

    /**
     * The body in which a member is written that joins some features.
     *
     * @param joined features of {@code around}; none asks for where a new one belongs
     */
    Element of(Element around, List<ElementId> joined) {
        if (extent == Extent.USE
                || around.kind().isDefinition()
                || around.kind().isPackage()) {
            return around;
        }
        return model.inheritance().generals(around).stream()
                .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                .findFirst()
                .filter(definition -> hasAll(definition, joined))
                .orElse(around);
    }

    /** Features made in the same step are in no snapshot yet and stand where they are put. */
    private boolean hasAll(Element definition, List<ElementId> joined) {
        return joined.stream()
                .filter(model::has)
                .allMatch(id -> model.inheritance().features(definition).contains(model.get(id)));
    }

    /** The package where definitions made for something belong: itself if it is one, else the nearest around it. */
    Element packageAround(Element element) {
        return Stream.concat(Stream.of(element), model.owners(element).stream())
                .filter(owner -> owner.kind().isPackage())
                .findFirst()
                .orElse(element);
    }

    /** A name that no member of {@code around} has: the one wished for, or with a number behind it. */
    String freeName(Element around, String wished) {
        return model.names().free(around.id(), wished);
    }
}
