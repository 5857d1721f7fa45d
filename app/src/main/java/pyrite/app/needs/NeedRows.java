package pyrite.app.needs;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import pyrite.app.requirements.RequirementRows;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.trace.TraceThread;

/**
 * All needs with their stakeholders and the requirements that answer them, ordered by id. A need is a concern in the
 * notation.
 */
public final class NeedRows {
    private NeedRows() {}

    /** One need; the requirements with their verdicts. */
    public record Row(
            Element element, String id, String text, List<Element> wantedBy, List<RequirementRows.Row> answeredBy) {}

    public static List<Row> of(Model model, List<RequirementRows.Row> requirements) {
        Map<Element, List<RequirementRows.Row>> answers = new HashMap<>();
        requirements.forEach(row -> row.needs()
                .forEach(need ->
                        answers.computeIfAbsent(need, _ -> new ArrayList<>()).add(row)));
        return RequirementIds.sorted(
                all(model).stream()
                        .map(need -> new Row(
                                need,
                                RequirementIds.of(model, need),
                                model.inheritance().documentation(need),
                                TraceThread.wantedBy(model, need),
                                answers.getOrDefault(need, List.of()))),
                Row::id);
    }

    /** All needs of a model, ordered by id. */
    static List<Element> all(Model model) {
        return RequirementIds.sorted(model.ownElements(ElementKind.CONCERN), need -> RequirementIds.of(model, need));
    }
}
