package pyrite.core.candidate;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
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

/**
 * How much an attribute counts when candidates are compared.
 *
 * @param quantity the name of the attribute
 * @param weight 0 to 100; 0 counts nothing
 */
public record Criterion(String quantity, int weight, boolean isMoreBetter) {
    public static final int MOST = 100;
    private static final ElementId DEFINITION = LibraryNames.id("Candidates::Criterion");

    public Criterion {
        if (weight < 0 || weight > MOST) {
            throw new IllegalArgumentException("a weight is a whole number from 0 to " + MOST + ", not " + weight);
        }
    }

    /** Those kept with a part. */
    public static List<Criterion> of(Model model, Element part) {
        return Metadata.allOf(model, part, DEFINITION).stream()
                .map(each -> new Criterion(
                        Metadata.text(model, each, "quantity"),
                        Math.clamp(Metadata.number(model, each, "weight"), 0, MOST),
                        Metadata.truth(model, each, "isMoreBetter")))
                .toList();
    }

    /** Keeps these with a part instead of those there are. */
    public static Edit keep(Model model, Element part, List<Criterion> criteria) {
        Set<ElementId> old = new HashSet<>();
        Metadata.allOf(model, part, DEFINITION).forEach(each -> old.add(each.id()));
        List<Element> put = new ArrayList<>();
        Rank last = model.rankAtEnd(part.id());
        for (Criterion criterion : criteria) {
            if (criterion.weight() == 0) {
                continue;
            }
            Element made = Element.of(ElementKind.METADATA, part.id(), last, null)
                    .with(Property.TYPES, List.of(Reference.to(DEFINITION)));
            last = Rank.after(last, 1).getFirst();
            List<Rank> ranks = Rank.after(null, 3);
            put.add(made);
            put.add(Metadata.text(model, made, "quantity", criterion.quantity(), ranks.get(0)));
            put.add(Metadata.number(model, made, "weight", criterion.weight(), ranks.get(1)));
            if (criterion.isMoreBetter()) {
                put.add(Metadata.truth(model, made, "isMoreBetter", true, ranks.get(2)));
            }
        }
        return new Edit(put, old);
    }
}
