package pyrite.core.model;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** Several edits one after the other, each made for the model that the one before it leaves, that are one edit. */
public final class EditSequence {
    private final Map<ElementId, Element> put = new LinkedHashMap<>();
    private final Set<ElementId> removed = new HashSet<>();
    private Model model;

    public EditSequence(Model model) {
        this.model = model;
    }

    /** The model as the edits so far leave it. */
    public Model model() {
        return model;
    }

    /** @throws IllegalArgumentException with the first problem if the model refuses the edit */
    public void then(Edit edit) {
        switch (model.apply(edit)) {
            case EditResult.Applied(Model next, var _) -> model = next;
            case EditResult.Refused(var problems) ->
                throw new IllegalArgumentException(problems.getFirst().message());
        }
        edit.remove().forEach(id -> {
            put.keySet().removeIf(each -> !model.has(each));
            removed.add(id);
        });
        edit.put().forEach(element -> {
            put.put(element.id(), element);
            removed.remove(element.id());
        });
    }

    public Edit edit() {
        return new Edit(List.copyOf(put.values()), removed);
    }
}
