package pyrite.core.trace;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.notation.BlockText;
import pyrite.core.specification.Metadata;

/** The edit by which somebody confirms links: each gets a record of the two revisions that were compared, and the note. */
public record Confirmation(Edit edit, String summary) {

    /** @param at the revision at which both ends were looked at */
    public static Confirmation of(Model model, Collection<Agreements.Doubt> doubts, int at, String note) {
        List<Element> put = new ArrayList<>();
        Set<ElementId> done = new HashSet<>();
        String text = BlockText.normal(note.replace("*/", "* /"));
        for (Agreements.Doubt doubt : doubts) {
            if (done.add(doubt.link().carrier())) {
                put.addAll(record(model, model.get(doubt.link().carrier()), doubt.since(), at, text));
            }
        }
        LinkRules.Labelled names = new LinkRules.Labelled(model);
        Link one = doubts.iterator().next().link();
        return new Confirmation(new Edit(put, Set.of()), doubts.size() > 1 ? doubts.size() + " links confirmed"
                : "confirmed: " + names.of(model.get(one.source())) + " " + one.kind().forward() + " " + names.of(model.get(one.target())));
    }

    private static List<Element> record(Model model, Element carrier, int since, int at, String note) {
        Element confirmed = Element.of(ElementKind.METADATA, carrier.id(), model.rankAtEnd(carrier.id()), null)
                .with(Property.TYPES, List.of(Reference.to(Metadata.CONFIRMED)));
        List<Rank> ranks = Rank.after(null, 3);
        List<Element> record = new ArrayList<>(List.of(confirmed, Metadata.number(model, confirmed, "since", since, ranks.get(1)),
                Metadata.number(model, confirmed, "at", at, ranks.get(2))));
        if (!note.isEmpty()) {
            record.add(Element.of(ElementKind.DOCUMENTATION, confirmed.id(), ranks.get(0), null).with(Property.TEXT, note));
        }
        return record;
    }
}
