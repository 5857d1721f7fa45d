package pyrite.core.view;

import java.util.HashSet;
import java.util.Set;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.specification.Metadata;

/**
 * Takes what is removed from the model out of the views that show it, so that where its box stood is in nobody's way
 * and comes back with it when the removal is undone.
 */
public final class Withdrawal {
    private Withdrawal() {}

    /** The same edit; a removal takes exposures and placements of what it removes with it. */
    public static Edit completed(Model model, Edit edit) {
        if (edit.remove().isEmpty()) {
            return edit;
        }
        Set<ElementId> gone = new HashSet<>();
        edit.remove().forEach(top -> model.subtree(top).forEach(each -> gone.add(each.id())));
        Set<ElementId> remove = new HashSet<>(edit.remove());
        edit.put().forEach(element -> gone.remove(element.id()));
        gone.forEach(id -> model.referrers(id).stream()
                .filter(user -> !gone.contains(user))
                .map(model::get)
                .filter(user -> onlyShows(model, user))
                .forEach(user -> remove.add(user.id())));
        return remove.size() == edit.remove().size() ? edit : new Edit(edit.put(), remove);
    }

    private static boolean onlyShows(Model model, Element user) {
        return user.kind() == ElementKind.EXPOSURE
                || user.kind() == ElementKind.METADATA
                        && (Metadata.isOf(model, user, Placement.PLACED) || Metadata.isOf(model, user, Placement.BENT));
    }
}
