package pyrite.core.view;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.sequence.Sequence;
import pyrite.core.sequence.SequenceStep;

/**
 * The Sequence view of a recording (SysML 2.0, 9.2.20): a lifeline for each part, messages between them and events on
 * them, one below the other in the order of their instants.
 */
final class SequenceView {
    private static final int LONGEST_LABEL = 60;

    private final Model model;
    private final BoxTexts texts;
    private final Map<String, Diagram.Node> nodes = new LinkedHashMap<>();
    private final List<Diagram.Node> events = new ArrayList<>();
    private final List<Diagram.Edge> edges = new ArrayList<>();
    private final List<ElementId> rows = new ArrayList<>();

    private SequenceView(Model model) {
        this.model = model;
        this.texts = new BoxTexts(model);
    }

    static Diagram of(Model model, ShownView view) {
        SequenceView sequence = new SequenceView(model);
        view.exposed().stream()
                .filter(element -> Sequence.isRecording(model, element))
                .findFirst()
                .ifPresent(recording -> sequence.build(recording, view.placement()));
        return new Diagram(List.copyOf(sequence.nodes.values()), sequence.edges, 0, sequence.rows);
    }

    private void build(Element recording, Placement placement) {
        lifeline(List.of(Sequence.OUTSIDE));
        steps(recording).forEach(this::step);
        placement.places().keySet().stream()
                .sorted()
                .map(BoxKey::way)
                .filter(way -> !way.isEmpty() && way.stream().allMatch(model::has))
                .filter(way -> way.equals(Sequence.part(model, way)) && isPart(model.get(way.getLast())))
                .forEach(this::lifeline);
        List<ElementId> system = Sequence.system(model, recording);
        if (nodes.size() == 1 && !system.isEmpty()) {
            lifeline(system);
        }
        placement.hidden().stream().filter(this::isUnused).toList().forEach(nodes::remove);
        events.forEach(event -> nodes.put(event.key(), event));
    }

    private boolean isPart(Element element) {
        return switch (element.kind()) {
            case PART, ITEM, REFERENCE -> true;
            default -> false;
        };
    }

    private boolean isUnused(String key) {
        return edges.stream()
                        .noneMatch(edge -> edge.from().equals(key) || edge.to().equals(key))
                && events.stream().noneMatch(event -> event.parent().equals(key));
    }

    private List<Sequence.Written> steps(Element recording) {
        try {
            return Sequence.written(model, recording);
        } catch (ModelFault _) {
            // The page of the recording says what is wrong with it.
            return List.of();
        }
    }

    private void step(Sequence.Written written) {
        Element member = written.member();
        rows.add(member.id());
        String at = instant(written.step().at());
        switch (written.step()) {
            case SequenceStep.Message message -> {
                String from = lifeline(partOf(member, Property.SOURCE));
                String to = lifeline(partOf(member, Property.TARGET));
                edge(from, to, at + message.item() + (message.isAccepted() ? "" : " ✕"), member);
            }
            case SequenceStep.Turn turn -> event(member, at + last(turn.path()) + (turn.begins() ? "" : " ends"));
            case SequenceStep.Setting setting ->
                edge(
                        lifeline(List.of(Sequence.OUTSIDE)),
                        lifeline(partOf(member, Property.TARGET)),
                        at + last(setting.path()) + " := " + setting.shown(),
                        member);
        }
    }

    private List<ElementId> partOf(Element member, Property<Reference> end) {
        List<ElementId> way = member.get(end).orElseThrow().chain();
        return Sequence.isOutside(model, way) ? List.of(Sequence.OUTSIDE) : Sequence.part(model, way);
    }

    private void edge(String from, String to, String label, Element member) {
        edges.add(Diagram.Edge.of(from, to, Diagram.Relation.MESSAGE, shortened(label), member.id()));
    }

    private void event(Element member, String words) {
        String on = lifeline(partOf(member, Property.TARGET));
        events.add(new Diagram.Node(
                on + "." + member.id(),
                on,
                member,
                "event",
                shortened(words),
                List.of(),
                List.of(),
                false,
                false,
                false,
                Diagram.Shape.EVENT));
    }

    /** The key of the lifeline of a part, which is added if it is not there yet. */
    private String lifeline(List<ElementId> way) {
        String key = BoxKey.of(way);
        Element part = model.get(way.getLast());
        boolean isOutside = part.id().equals(Sequence.OUTSIDE);
        nodes.computeIfAbsent(
                key,
                _ -> new Diagram.Node(
                        key,
                        "",
                        part,
                        isOutside ? "from and to" : BoxTexts.keyword(part),
                        isOutside ? "outside" : texts.title(part),
                        List.of(),
                        List.of(),
                        false,
                        true,
                        false,
                        Diagram.Shape.LIFELINE));
        return key;
    }

    private static String shortened(String words) {
        return words.length() <= LONGEST_LABEL ? words : words.substring(0, LONGEST_LABEL - 1) + "…";
    }

    private static String last(String path) {
        return path.substring(path.lastIndexOf('.') + 1);
    }

    private static String instant(double seconds) {
        String number = BigDecimal.valueOf(seconds)
                .round(new MathContext(6))
                .stripTrailingZeros()
                .toPlainString();
        return number + " s  ";
    }
}
