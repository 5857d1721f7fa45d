package pyrite.core.trace;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
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

/**
 * The edit that records a recheck: the links still hold, or stay open. The carrier of each link gets a record with the
 * compared revisions and the note.
 */
public record RecheckRecord(Edit edit, String summary) {

    /** A link was examined and left open; {@code at} is the revision in which its ends were examined. */
    public record Kept(Element record, int at, String note) {}

    /** @param at the revision at which both ends were looked at */
    public static RecheckRecord confirmed(Model model, Collection<Agreements.Doubt> doubts, int at, String note) {
        return of(
                model,
                doubts,
                "confirmed",
                note,
                Metadata.CONFIRMED,
                doubt -> Map.of("since", doubt.since(), "at", at));
    }

    /** The links go on to need recheck, but nobody has to ask whether they were seen. */
    public static RecheckRecord keptOpen(Model model, Collection<Agreements.Doubt> doubts, int at, String note) {
        return of(model, doubts, "kept open", note, Metadata.KEPT_OPEN, _ -> Map.of("at", at));
    }

    /** That a link was kept open, if it was since it was agreed last; the newest record counts. */
    public static Optional<Kept> keptOpen(Model model, Agreements.Doubt doubt) {
        return Metadata.allOf(model, model.get(doubt.link().carrier()), Metadata.KEPT_OPEN).stream()
                .map(record -> new Kept(
                        record,
                        Metadata.number(model, record, "at"),
                        model.inheritance().documentation(record)))
                .filter(kept -> kept.at() > doubt.since())
                .max(Comparator.comparingInt(Kept::at));
    }

    /**
     * Whether an element is such a record or a part of one, and so says nothing about the end whose body it may stand
     * in.
     */
    public static boolean isPart(Model model, Element element) {
        Element record = element.kind() == ElementKind.METADATA || element.owner() == null
                ? element
                : model.get(element.owner());
        return record.kind() == ElementKind.METADATA
                && (Metadata.isOf(model, record, Metadata.CONFIRMED)
                        || Metadata.isOf(model, record, Metadata.KEPT_OPEN));
    }

    private interface Revisions {
        Map<String, Integer> of(Agreements.Doubt doubt);
    }

    private static RecheckRecord of(
            Model model,
            Collection<Agreements.Doubt> doubts,
            String words,
            String note,
            ElementId definition,
            Revisions revisions) {
        List<Element> put = new ArrayList<>();
        Set<ElementId> done = new HashSet<>();
        String text = BlockText.normal(note.replace("*/", "* /"));
        for (Agreements.Doubt doubt : doubts) {
            if (done.add(doubt.link().carrier())) {
                put.addAll(record(model, model.get(doubt.link().carrier()), definition, revisions.of(doubt), text));
            }
        }
        LinkRules.Labelled names = new LinkRules.Labelled(model);
        Link one = doubts.iterator().next().link();
        return new RecheckRecord(
                new Edit(put, Set.of()),
                doubts.size() > 1
                        ? doubts.size() + " links " + words
                        : words + ": " + names.of(model.get(one.source())) + " "
                                + one.kind().forward() + " " + names.of(model.get(one.target())));
    }

    private static List<Element> record(
            Model model, Element carrier, ElementId definition, Map<String, Integer> revisions, String note) {
        Element record = Element.of(ElementKind.METADATA, carrier.id(), model.rankAtEnd(carrier.id()), null)
                .with(Property.TYPES, List.of(Reference.to(definition)));
        List<Rank> ranks = Rank.after(null, 3);
        List<Element> all = new ArrayList<>(List.of(record));
        if (!note.isEmpty()) {
            all.add(Element.of(ElementKind.DOCUMENTATION, record.id(), ranks.get(0), null)
                    .with(Property.TEXT, note));
        }
        if (revisions.containsKey("since")) {
            all.add(Metadata.number(model, record, "since", revisions.get("since"), ranks.get(1)));
        }
        all.add(Metadata.number(model, record, "at", Objects.requireNonNull(revisions.get("at")), ranks.get(2)));
        return all;
    }
}
