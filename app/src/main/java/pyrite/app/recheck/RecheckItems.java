package pyrite.app.recheck;

import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import pyrite.app.store.BranchStore;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.trace.Agreements;
import pyrite.core.trace.DoubtText;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.RecheckRecord;
import pyrite.core.view.TextDifference;

/** What a page says of links that need recheck: what changed, by whom, and why some were left open. */
@Component
class RecheckItems {
    private final Workspace workspace;
    private final BranchStore store;

    RecheckItems(Workspace workspace, BranchStore store) {
        this.workspace = workspace;
        this.store = store;
    }

    /**
     * A changed property of an end.
     *
     * @param by the newest revision since that touched the end; null if none is found
     */
    public record Change(
            Element end, String property, List<TextDifference.Piece> pieces, BranchStore.@Nullable Entry by) {}

    /**
     * The link was examined and left open.
     *
     * @param moved whether an end has changed again since
     */
    public record Kept(String note, BranchStore.Entry by, boolean moved) {}

    /** A link that needs recheck; {@code key} identifies it in a form. */
    public record Item(
            String key,
            LinkKind kind,
            Element source,
            Element target,
            int since,
            List<Change> changes,
            @Nullable Kept kept) {}

    static String key(Agreements.Doubt doubt) {
        return doubt.link().carrier() + " " + doubt.link().source() + " "
                + doubt.link().target();
    }

    /** Items for some links of a branch; what they need of its history is read once for all of them. */
    List<Item> of(Workspace.Head head, List<Agreements.Doubt> doubts) {
        Map<Integer, Model> then =
                workspace.at(head, doubts.stream().map(Agreements.Doubt::since).toList());
        Set<ElementId> parts = new HashSet<>();
        doubts.forEach(doubt -> {
            doubt.changes()
                    .forEach(change -> parts(head.model(), Objects.requireNonNull(then.get(doubt.since())), change)
                            .forEach(parts::add));
            RecheckRecord.keptOpen(head.model(), doubt)
                    .ifPresent(kept -> parts.add(kept.record().id()));
        });
        Map<ElementId, BranchStore.Entry> lastChanges = store.lastChanges(head.branch(), parts);
        return doubts.stream()
                .map(doubt -> item(head.model(), Objects.requireNonNull(then.get(doubt.since())), doubt, lastChanges))
                .toList();
    }

    private static Item item(
            Model model, Model then, Agreements.Doubt doubt, Map<ElementId, BranchStore.Entry> lastChanges) {
        List<Change> changes = doubt.changes().stream()
                .map(change -> {
                    DoubtText text = DoubtText.of(then, model, change);
                    return new Change(
                            model.get(change.end()),
                            change.property(),
                            TextDifference.of(text.before(), text.after()),
                            by(parts(model, then, change), doubt.since(), lastChanges));
                })
                .toList();
        return new Item(
                key(doubt),
                doubt.link().kind(),
                model.get(doubt.link().source()),
                model.get(doubt.link().target()),
                doubt.since(),
                changes,
                RecheckRecord.keptOpen(model, doubt)
                        .map(kept -> kept(kept, changes, lastChanges))
                        .orElse(null));
    }

    private static Kept kept(
            RecheckRecord.Kept kept, List<Change> changes, Map<ElementId, BranchStore.Entry> lastChanges) {
        return new Kept(
                kept.note(),
                Objects.requireNonNull(lastChanges.get(kept.record().id())),
                changes.stream()
                        .anyMatch(change ->
                                change.by() != null && change.by().revision().number() > kept.at()));
    }

    /** The newest revision after one that touched what changed. */
    private static BranchStore.@Nullable Entry by(
            Stream<ElementId> parts, int since, Map<ElementId, BranchStore.Entry> lastChanges) {
        return parts.map(lastChanges::get)
                .filter(entry -> entry != null && entry.revision().number() > since)
                .max(Comparator.comparing(entry -> entry.revision().number()))
                .orElse(null);
    }

    /** What makes up a property of an end, now or then: the documentation its text, else what else the end owns. */
    private static Stream<ElementId> parts(Model now, Model then, Agreements.Change change) {
        boolean text = change.property().equals("text");
        return Stream.of(now, then)
                .filter(model -> model.has(change.end()))
                .flatMap(model -> model.subtree(change.end()).stream()
                        .filter(each -> (each.kind() == ElementKind.DOCUMENTATION) == text
                                && !RecheckRecord.isPart(model, each))
                        .map(Element::id))
                .distinct();
    }
}
