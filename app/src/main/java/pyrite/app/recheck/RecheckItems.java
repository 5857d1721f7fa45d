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
        History history = history(head, doubts);
        return doubts.stream().map(history::item).toList();
    }

    private History history(Workspace.Head head, List<Agreements.Doubt> doubts) {
        Set<Integer> numbers = new HashSet<>();
        Set<Integer> agreements = new HashSet<>();
        doubts.forEach(doubt -> doubt.changes().forEach(change -> {
            if (change.seen() != null) {
                numbers.add(change.seen().changedAt());
            } else {
                agreements.add(doubt.since());
            }
        }));
        Map<Integer, Model> then = workspace.at(head, agreements);
        Set<ElementId> parts = new HashSet<>();
        doubts.forEach(doubt -> {
            doubt.changes().stream()
                    .filter(change -> change.seen() == null)
                    .forEach(change ->
                            parts(head.model(), then.get(doubt.since()), change).forEach(parts::add));
            RecheckRecord.keptOpen(head.model(), doubt)
                    .ifPresent(kept -> parts.add(kept.record().id()));
        });
        return new History(
                head.model(), then, store.revisions(head.branch(), numbers), store.lastChanges(head.branch(), parts));
    }

    /**
     * What some items need of a branch's history.
     *
     * @param then the snapshots of agreements with which something differs that was not seen to change
     */
    private record History(
            Model model,
            Map<Integer, Model> then,
            Map<Integer, BranchStore.Entry> revisions,
            Map<ElementId, BranchStore.Entry> lastChanges) {

        Item item(Agreements.Doubt doubt) {
            List<Change> changes = doubt.changes().stream()
                    .map(change -> change(doubt, change))
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

        private Change change(Agreements.Doubt doubt, Agreements.Change change) {
            Agreements.Seen seen = change.seen();
            Model agreed = then.get(doubt.since());
            DoubtText text = seen != null
                    ? DoubtText.of(seen, model, change)
                    : DoubtText.of(Objects.requireNonNull(agreed), model, change);
            return new Change(
                    model.get(change.end()),
                    change.property(),
                    TextDifference.of(text.before(), text.after()),
                    seen != null
                            ? revisions.get(seen.changedAt())
                            : by(parts(model, agreed, change), doubt.since(), lastChanges));
        }
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
    private static Stream<ElementId> parts(Model now, @Nullable Model then, Agreements.Change change) {
        boolean text = change.property().equals("text");
        return Stream.of(now, then == null ? now : then)
                .filter(model -> model.has(change.end()))
                .flatMap(model -> model.subtree(change.end()).stream()
                        .filter(each -> (each.kind() == ElementKind.DOCUMENTATION) == text
                                && !RecheckRecord.isPart(model, each))
                        .map(Element::id))
                .distinct();
    }
}
