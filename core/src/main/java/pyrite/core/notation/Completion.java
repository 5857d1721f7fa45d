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

/** Gives the drafts of a text their ids and their places among their siblings, owners before what they own. */
final class Completion {
    private final Ids ids;
    private final Map<ElementId, Draft> byId;
    private final List<Draft> drafts;
    private final List<Draft> tops = new ArrayList<>();
    private final List<Draft> imports = new ArrayList<>();

    /** Says which element a draft is, or gives a new one its id. */
    interface Ids {
        Ids RANDOM = (_, _) -> ElementId.fresh();

        /** @param path the names of its owners and its own, for those that take the id from there */
        ElementId idOf(Draft draft, Path path);

        /** The element the draft was written from, if there is one. */
        default Optional<Element> elementOf(Draft draft) {
            return Optional.empty();
        }
    }

    /** Where a draft stands; written out only by those who ask. */
    record Path(@Nullable Path owner, Draft draft, Rank rank) {
        String qualifiedName() {
            String own = Objects.requireNonNullElseGet(draft.calledBy(), () -> draft.kind.keyword() + "#" + rank.digits());
            return owner == null ? own : owner.qualifiedName() + "::" + own;
        }
    }

    /** @param likely about how many drafts there will be */
    Completion(Ids ids, int likely) {
        this.ids = ids;
        byId = HashMap.newHashMap(likely);
        drafts = new ArrayList<>(likely);
    }

    /** Completes what stands at the top of a text; what is new comes behind one rank and before the other, if they are given. */
    void top(Source source, List<Draft> members, @Nullable ElementId owner, @Nullable Rank after, @Nullable Rank before) {
        tops.addAll(members);
        members(source, members, owner, null, ranks(members, owner, after, before));
    }

    private void members(Source source, List<Draft> members, @Nullable ElementId owner, @Nullable Path around, List<Rank> ranks) {
        for (int i = 0; i < members.size(); i++) {
            Draft draft = members.get(i);
            Path path = new Path(around, draft, ranks.get(i));
            ElementId id = ids.elementOf(draft).map(Element::id).orElseGet(() -> ids.idOf(draft, path));
            draft.complete(source, id, owner, ranks.get(i));
            byId.put(id, draft);
            drafts.add(draft);
            if (draft.bringsInOthers()) {
                imports.add(draft);
            }
            if (!draft.children.isEmpty()) {
                members(source, draft.children, id, path, ranks(draft.children, id, null, null));
            }
        }
    }

    /** Those that were under the owner before keep their ranks as far as they still stand in that order. */
    private List<Rank> ranks(List<Draft> members, @Nullable ElementId owner, @Nullable Rank after, @Nullable Rank before) {
        for (Draft draft : members) {
            if (rankUnder(draft, owner) != null) {
                return Ranks.between(Ranks.longestRising(members.stream().map(each -> rankUnder(each, owner)).toList()), before);
            }
        }
        return Rank.after(after, members.size());
    }

    /** The rank a draft had under an owner already; null if it is new there. */
    private @Nullable Rank rankUnder(Draft draft, @Nullable ElementId owner) {
        return ids.elementOf(draft).filter(element -> Objects.equals(element.owner(), owner)).map(Element::rank).orElse(null);
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
