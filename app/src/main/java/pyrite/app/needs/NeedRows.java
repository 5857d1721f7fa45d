package pyrite.app.needs;

import java.util.Comparator;
import java.util.List;
import pyrite.app.requirements.RequirementRows;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.trace.TraceThread;

/** All needs with who has them and the requirements that answer them, in the order of their ids. A need is a concern of the notation. */
public final class NeedRows {
    private NeedRows() {
    }

    /** One need; the requirements with their verdicts. */
    public record Row(Element element, String id, String text, List<Element> wantedBy, List<RequirementRows.Row> answeredBy) {
    }

    public static List<Row> of(Model model, List<RequirementRows.Row> requirements) {
        return model.ownElements().stream().filter(element -> element.kind() == ElementKind.CONCERN).map(need -> new Row(need, RequirementIds.of(model, need),
                model.inheritance().documentation(need), wantedBy(model, need), requirements.stream().filter(row -> row.needs().contains(need)).toList()))
                .sorted(Comparator.comparing(Row::id, RequirementIds.ORDER)).toList();
    }

    private static List<Element> wantedBy(Model model, Element need) {
        return TraceThread.of(model, need).above().stream().filter(entry -> entry.relation().equals("wanted by")).map(TraceThread.Entry::element).toList();
    }
}
