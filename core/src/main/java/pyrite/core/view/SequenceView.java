package pyrite.core.view;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.sequence.Sequence;
import pyrite.core.sequence.SequenceStep;
import pyrite.core.view.Placement.Point;

/**
 * The Sequence view of a recording (SysML 2.0, 9.2.20): a lifeline for each part, messages between them and events on
 * them, one below the other in the order of their instants. Where something stands says when it happens, so that only
 * the order of the lifelines is a matter of arrangement.
 *
 * @param rows the row of each step by its element, counted from 0
 */
public record SequenceView(Diagram diagram, Map<ElementId, Integer> rows) {
    /** From the top of a lifeline to its first row, px. */
    public static final double FIRST = 76;
    /** From row to row, px. */
    public static final double ROW = 34;

    private static final double NARROWEST = 130;
    private static final double GAP = 60;
    private static final double LABEL = 7;
    private static final double EVENT_HEIGHT = 24;
    private static final double LOOP = 36;
    private static final int LONGEST_LABEL = 60;

    public SequenceView {
        rows = Map.copyOf(rows);
    }

    static SequenceView of(Model model, ShownView view) {
        Builder builder = new Builder(model);
        view.exposed().stream()
                .filter(element -> Sequence.isRecording(model, element))
                .findFirst()
                .ifPresent(recording -> builder.build(recording, view.placement()));
        return new SequenceView(new Diagram(List.copyOf(builder.nodes.values()), builder.edges, 0), builder.rows);
    }

    private static final class Builder {
        private final Model model;
        private final BoxTexts texts;
        private final Map<String, Diagram.Node> nodes = new LinkedHashMap<>();
        private final List<Diagram.Node> events = new ArrayList<>();
        private final List<Diagram.Edge> edges = new ArrayList<>();
        private final Map<ElementId, Integer> rows = new HashMap<>();

        Builder(Model model) {
            this.model = model;
            this.texts = new BoxTexts(model);
        }

        void build(Element recording, Placement placement) {
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
                            .noneMatch(
                                    edge -> edge.from().equals(key) || edge.to().equals(key))
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
            rows.put(member.id(), rows.size());
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

    /** A lifeline with its place, px. */
    private record Column(Diagram.Node lifeline, double left, double width) {
        double middle() {
            return left + width / 2;
        }
    }

    /** Lifelines beside each other in the order in which a person put them, rows below each other. */
    DiagramLayout layout(Diagram shown, Placement placement) {
        Map<String, Column> columns = columns(shown, placement);
        double height = FIRST + rows.size() * ROW + ROW;
        List<DiagramLayout.Box> boxes = shown.nodes().stream()
                .map(node -> {
                    Column column = of(columns, node.parent().isEmpty() ? node.key() : node.parent());
                    return node.parent().isEmpty()
                            ? box(node, column.left(), 0, column.width(), height)
                            : eventBox(node, column.width());
                })
                .toList();
        List<DiagramLayout.Line> lines = shown.edges().stream()
                .map(edge -> line(
                        edge,
                        of(columns, edge.from()).middle(),
                        of(columns, edge.to()).middle()))
                .toList();
        double width = columns.values().stream()
                .mapToDouble(column -> column.left() + column.width())
                .max()
                .orElse(0);
        return new DiagramLayout(boxes, lines, width, height);
    }

    private static Column of(Map<String, Column> columns, String key) {
        return Objects.requireNonNull(columns.get(key));
    }

    private static Map<String, Column> columns(Diagram shown, Placement placement) {
        Map<String, Column> natural = besides(
                shown,
                shown.nodes().stream().filter(node -> node.parent().isEmpty()).toList());
        return besides(
                shown,
                natural.values().stream()
                        .sorted(Comparator.comparingDouble(column -> wanted(column, placement)))
                        .map(Column::lifeline)
                        .toList());
    }

    private static double wanted(Column natural, Placement placement) {
        return Optional.ofNullable(placement.places().get(natural.lifeline().key()))
                .map(Placement.Place::at)
                .map(Point::x)
                .orElse(natural.left());
    }

    private static Map<String, Column> besides(Diagram shown, List<Diagram.Node> lifelines) {
        Map<String, Column> columns = new LinkedHashMap<>();
        double x = 0;
        for (Diagram.Node lifeline : lifelines) {
            double width = width(shown, lifeline);
            columns.put(lifeline.key(), new Column(lifeline, x, width));
            x += width + GAP;
        }
        return columns;
    }

    /** So wide that the texts of what happens on a lifeline have room. */
    private static double width(Diagram shown, Diagram.Node lifeline) {
        double events = shown.nodes().stream()
                .filter(node -> node.parent().equals(lifeline.key()))
                .mapToDouble(SequenceView::eventWidth)
                .max()
                .orElse(0);
        double loops = shown.edges().stream()
                .filter(edge -> edge.from().equals(lifeline.key()) && edge.to().equals(lifeline.key()))
                .mapToDouble(edge -> 2 * (LOOP + edge.label().length() * LABEL))
                .max()
                .orElse(0);
        return Math.max(Math.max(NARROWEST, BoxSizes.of(lifeline).width()), Math.max(events, loops));
    }

    private static double eventWidth(Diagram.Node event) {
        return TextWidths.text(event.title(), BoxSizes.TEXT, false) + 28;
    }

    private static DiagramLayout.Box box(Diagram.Node node, double x, double y, double width, double height) {
        return new DiagramLayout.Box(node, x, y, width, height, List.of(), List.of());
    }

    private DiagramLayout.Box eventBox(Diagram.Node event, double around) {
        double width = eventWidth(event);
        return box(event, (around - width) / 2, height(event.element().id()) - EVENT_HEIGHT / 2, width, EVENT_HEIGHT);
    }

    private double height(@Nullable ElementId member) {
        return FIRST + rows.getOrDefault(member, 0) * ROW;
    }

    private DiagramLayout.Line line(Diagram.Edge edge, double from, double to) {
        double y = height(edge.element());
        if (from == to) {
            List<Point> loop = List.of(
                    new Point(from, y - 8),
                    new Point(from + LOOP, y - 8),
                    new Point(from + LOOP, y + 8),
                    new Point(from, y + 8));
            return new DiagramLayout.Line(edge, loop, List.of(), new Point(from + LOOP + 6, y + 4));
        }
        double left = Math.min(from, to);
        double width = edge.label().length() * LABEL;
        double label = Math.max(left + 8, left + (Math.abs(to - from) - width) / 2);
        return new DiagramLayout.Line(
                edge, List.of(new Point(from, y), new Point(to, y)), List.of(), new Point(label, y - 5));
    }
}
