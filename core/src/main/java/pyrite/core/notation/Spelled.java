package pyrite.core.notation;

import java.util.List;
import java.util.Objects;
import pyrite.core.expression.Name;
import pyrite.core.expression.Referent;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Reference;
import pyrite.core.model.SpelledNames;

/** Gathers the names of a declaration that are not the plain names of what they mean. */
final class Spelled {
    private final Resolver resolver;
    private final SpelledNames names = new SpelledNames();

    Spelled(Resolver resolver) {
        this.resolver = resolver;
    }

    boolean isEmpty() {
        return names.isEmpty();
    }

    String text() {
        return names.text();
    }

    /** References of one property, if all that were written are found. */
    void all(List<Draft.Pending> written, List<Reference> found) {
        if (written.size() == found.size()) {
            for (int i = 0; i < found.size(); i++) {
                chain(written.get(i).chain(), found.get(i).chain());
            }
        }
    }

    void chain(List<Referent> written, List<? extends Referent> found) {
        name((Name) written.getFirst(), found.getFirst());
        for (int i = 1; i < Math.min(written.size(), found.size()); i++) {
            step((Name) written.get(i), found.get(i));
        }
    }

    void name(Name written, Referent found) {
        if (found instanceof ElementId id && !isPlain(written, id)) {
            names.keep(id, Spelling.text(written));
        }
    }

    void step(Name written, Referent found) {
        if (found instanceof ElementId id && !isPlain(written, id)) {
            names.keepStep(id, Name.quoted(written.last()));
        }
    }

    /** The plain name of a unit is its symbol. */
    void unit(String prefix, Name written, ElementId unit) {
        String symbol = resolver.find(unit).map(Element::shortName).orElse(null);
        if (written.parts().size() > 1 || !written.last().equals(prefix + symbol)) {
            names.keepUnit(prefix, unit, Spelling.text(written));
        }
    }

    private boolean isPlain(Name written, ElementId id) {
        return written.parts().size() == 1
                && resolver.find(id)
                        .map(element -> written.last().equals(element.name())
                                || element.name() == null
                                        && Objects.equals(resolver.names().effectiveName(element), written.last()))
                        .orElse(true);
    }
}
