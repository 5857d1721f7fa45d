package pyrite.core.notation;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Rank;

/** Gives the drafts of a text their ids and their ranks among their siblings, owners before members. */
final class DraftCompletion {
    private final Ids ids;
    private final Map<ElementId, Draft> byId;
    private final List<Draft> drafts;
    private final List<Draft> tops = new ArrayList<>();
    private final List<Draft> imports = new ArrayList<>();

    /** Decides which existing element a draft is, or gives it a new id. */
    interface Ids {
        Ids RANDOM = (_, _) -> ElementId.fresh();

        /** @param rank its place among its siblings */
        ElementId idOf(Draft draft, Rank rank);

        /** The element the draft was written from, if there is one. */
        default Optional<Element> elementOf(Draft draft) {
            return Optional.empty();
        }
    }

    /** The names of a draft's owners, which are complete, and its own; who has none is called by kind and place. */
    static String qualifiedName(Draft draft, Rank rank) {
        String own = Objects.requireNonNullElseGet(draft.calledBy(), () -> draft.kind.keyword() + "#" + rank.digits());
        Draft owner = draft.owner;
        return owner == null || !owner.isComplete()
                ? own
                : qualifiedName(owner, owner.element().rank()) + "::" + own;
    }

    /** @param likely about how many drafts there will be */
    DraftCompletion(Ids ids, int likely) {
        this.ids = ids;
        byId = HashMap.newHashMap(likely);
        drafts = new ArrayList<>(likely);
    }

    /**
     * Completes what stands at the top of a text; what is new comes behind one rank and before the other, if they are
     * given.
     */
    void top(
            Source source,
            List<Draft> members,
            @Nullable ElementId owner,
            @Nullable Rank after,
            @Nullable Rank before) {
        tops.addAll(members);
        members(source, members, owner, ranks(members, owner, after, before));
    }

    private void members(Source source, List<Draft> members, @Nullable ElementId owner, List<Rank> ranks) {
        for (int i = 0; i < members.size(); i++) {
            Draft draft = members.get(i);
            Element before = ids.elementOf(draft).orElse(null);
            ElementId id = before == null ? ids.idOf(draft, ranks.get(i)) : before.id();
            draft.complete(source, id, owner, ranks.get(i));
            byId.put(id, draft);
            drafts.add(draft);
            if (draft.bringsInOthers()) {
                imports.add(draft);
            }
            if (!draft.children.isEmpty()) {
                members(source, draft.children, id, ranks(draft.children, id, null, null));
            }
        }
    }

    /** Those that were under the owner before keep their ranks as far as they still stand in that order. */
    private List<Rank> ranks(
            List<Draft> members, @Nullable ElementId owner, @Nullable Rank after, @Nullable Rank before) {
        for (Draft draft : members) {
            if (rankUnder(draft, owner) != null) {
                return Ranks.between(
                        Ranks.longestRising(members.stream()
                                .<@Nullable Rank>map(each -> rankUnder(each, owner))
                                .toList()),
                        before);
            }
        }
        return Rank.after(after, members.size());
    }

    /** The rank a draft had under an owner already; null if it is new there. */
    private @Nullable Rank rankUnder(Draft draft, @Nullable ElementId owner) {
        Element before = ids.elementOf(draft).orElse(null);
        return before == null || !Objects.equals(before.owner(), owner) ? null : before.rank();
    }

    /** All that was completed, owners before what they own. */
    List<Draft> drafts() {
        return drafts;
    }

    /** Those that no other draft owns. */
    List<Draft> tops() {
        return tops;
    }

    /** Those that bring in others by name. */
    List<Draft> imports() {
        return imports;
    }

    Map<ElementId, Draft> byId() {
        return byId;
    }
}
