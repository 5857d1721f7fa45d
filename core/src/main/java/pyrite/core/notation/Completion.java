package pyrite.core.notation;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.ElementId;
import pyrite.core.model.Rank;

/** Gives the drafts of a text their ids and their places among their siblings, owners before what they own. */
final class Completion {
    private final Ids ids;
    private final List<Draft> drafts = new ArrayList<>();
    private final Map<ElementId, Reading.Place> places = new LinkedHashMap<>();

    /** Gives a draft its id; the qualified name is there for those that take it from there. */
    interface Ids {
        Ids RANDOM = (_, _) -> ElementId.random();

        ElementId idOf(Draft draft, String qualifiedName);
    }

    Completion(Ids ids) {
        this.ids = ids;
    }

    /** Completes what stands at the top of a text. */
    void top(Source source, List<Draft> members, @Nullable ElementId owner, @Nullable Rank after) {
        members(source, members, owner, "", Rank.after(after, members.size()));
    }

    private void members(Source source, List<Draft> members, @Nullable ElementId owner, String path, List<Rank> ranks) {
        for (int i = 0; i < members.size(); i++) {
            Draft draft = members.get(i);
            String own = Objects.requireNonNullElse(draft.calledBy(), draft.kind.keyword() + "#" + ranks.get(i).digits());
            String qualified = path.isEmpty() ? own : path + "::" + own;
            ElementId id = ids.idOf(draft, qualified);
            draft.complete(id, owner, ranks.get(i));
            drafts.add(draft);
            places.put(id, new Reading.Place(source, draft.head));
            if (!draft.children.isEmpty()) {
                members(source, draft.children, id, qualified, Rank.after(null, draft.children.size()));
            }
        }
    }

    List<Draft> drafts() {
        return drafts;
    }

    Map<ElementId, Reading.Place> places() {
        return places;
    }
}
