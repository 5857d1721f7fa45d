package pyrite.core.view;

import java.util.List;
import java.util.Objects;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.RequirementText;
import pyrite.core.specification.Specification;
import pyrite.core.trace.Impact;

/** The impact of a change as a layered drawing of the reached elements and their links. */
public final class ImpactView {
    private static final int MOST_BOXES = 60;
    private static final int LONGEST = 44;

    private ImpactView() {}

    public static Diagram of(Model model, Impact impact) {
        List<ElementId> shown = impact.reached().entrySet().stream()
                .sorted(java.util.Comparator.comparing(entry -> Math.abs(entry.getValue())))
                .limit(MOST_BOXES)
                .map(java.util.Map.Entry::getKey)
                .toList();
        List<Diagram.Node> nodes = shown.stream()
                .map(model::get)
                .map(element -> node(model, element))
                .toList();
        List<Diagram.Edge> edges = impact.links().stream()
                .filter(link -> shown.contains(link.source()) && shown.contains(link.target()))
                .map(link -> Diagram.Edge.of(
                        link.below().toString(),
                        link.above().toString(),
                        Diagram.Relation.TRACE,
                        link.words(link.below()),
                        link.carrier()))
                .toList();
        return new Diagram(nodes, edges, impact.reached().size() - nodes.size());
    }

    private static Diagram.Node node(Model model, Element element) {
        boolean requirement = Specification.isRequirement(element);
        String title = requirement
                ? RequirementIds.of(model, element)
                : Objects.requireNonNullElse(
                        model.names().effectiveName(element), element.kind().title());
        String text = requirement ? RequirementText.of(model, element) : "";
        List<Diagram.Compartment> compartments = text.isEmpty()
                ? List.of()
                : List.of(new Diagram.Compartment(
                        "",
                        List.of(new Diagram.Line(
                                element.id(),
                                text.length() <= LONGEST
                                        ? text
                                        : text.substring(0, LONGEST - 1).strip() + "…",
                                true))));
        String keyword = element.kind().isDefinition()
                ? element.kind().keyword() + " def"
                : element.kind().keyword();
        return Diagram.Node.plain(element, keyword, title, compartments);
    }
}
