package pyrite.core.view;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import org.eclipse.elk.alg.layered.components.ComponentOrderingStrategy;
import org.eclipse.elk.alg.layered.options.FixedAlignment;
import org.eclipse.elk.alg.layered.options.LayeredMetaDataProvider;
import org.eclipse.elk.alg.layered.options.LayeredOptions;
import org.eclipse.elk.alg.layered.options.OrderingStrategy;
import org.eclipse.elk.core.RecursiveGraphLayoutEngine;
import org.eclipse.elk.core.data.LayoutMetaDataService;
import org.eclipse.elk.core.math.ElkPadding;
import org.eclipse.elk.core.options.CoreOptions;
import org.eclipse.elk.core.options.Direction;
import org.eclipse.elk.core.options.EdgeRouting;
import org.eclipse.elk.core.util.BasicProgressMonitor;
import org.eclipse.elk.graph.ElkBendPoint;
import org.eclipse.elk.graph.ElkEdge;
import org.eclipse.elk.graph.ElkEdgeSection;
import org.eclipse.elk.graph.ElkLabel;
import org.eclipse.elk.graph.ElkNode;
import org.eclipse.elk.graph.util.ElkGraphUtil;

/**
 * The position of everything in a {@link Diagram}, px, x to the right and y down from the upper left corner. Boxes are
 * sized by their texts; layers, order and lines are computed by ELK Layered (Sugiyama, Tagawa, Toda 1981, with the
 * refinements of Schulze, Spönemann, von Hanxleden 2014).
 */
public record DiagramLayout(List<Box> boxes, List<Line> lines, double width, double height) {
    static final double KEYWORD = 10.5;
    static final double TITLE = 13.5;
    static final double TEXT = 11.5;
    private static final double ROW = 16;
    private static final double HEAD = 44;
    private static final double SIDE = 12;
    private static final double NARROWEST = 130;
    private static final double WIDEST = 330;
    private static final double CORNER = 6;
    private static final double SMALLEST_STEP = 3;
    private static final double USUAL_WIDTH = 880;
    private static final double USUAL_HEIGHT = 640;
    private static final double MOST_EXCESS = 1.3;

    static {
        LayoutMetaDataService.getInstance().registerLayoutMetaDataProviders(new LayeredMetaDataProvider());
    }

    /** A node at its place. */
    public record Box(Diagram.Node node, double x, double y, double width, double height, List<Part> parts) {}

    /** A compartment of a box, its texts cut to fit; {@code y} is the baseline of the heading, relative to the box. */
    public record Part(String title, double y, List<Row> rows) {}

    /** A line of text with its baseline, relative to the box. */
    public record Row(Diagram.Line line, String text, double y) {}

    /** An edge as an SVG path from its own end to the other, corners rounded, with its label's left base point. */
    public record Line(Diagram.Edge edge, String path, double labelX, double labelY) {}

    /** From the top down, or from left to right where that is so wide that it would be hard to read as a whole. */
    public static DiagramLayout of(Diagram diagram) {
        DiagramLayout down = of(diagram, Direction.DOWN);
        if (down.excess() <= MOST_EXCESS) {
            return down;
        }
        DiagramLayout right = of(diagram, Direction.RIGHT);
        return right.excess() < down.excess() ? right : down;
    }

    /** How many times larger it is than the canvas of a usual screen, in the direction in which it is more so. */
    private double excess() {
        return Math.max(width / USUAL_WIDTH, height / USUAL_HEIGHT);
    }

    private static DiagramLayout of(Diagram diagram, Direction direction) {
        ElkNode graph = ElkGraphUtil.createGraph();
        graph.setProperty(CoreOptions.ALGORITHM, LayeredOptions.ALGORITHM_ID);
        graph.setProperty(CoreOptions.DIRECTION, direction);
        graph.setProperty(CoreOptions.EDGE_ROUTING, EdgeRouting.ORTHOGONAL);
        graph.setProperty(CoreOptions.PADDING, new ElkPadding(20));
        graph.setProperty(CoreOptions.SEPARATE_CONNECTED_COMPONENTS, true);
        graph.setProperty(CoreOptions.SPACING_NODE_NODE, 34.0);
        graph.setProperty(CoreOptions.SPACING_EDGE_NODE, 18.0);
        graph.setProperty(CoreOptions.SPACING_EDGE_EDGE, 14.0);
        graph.setProperty(CoreOptions.SPACING_COMPONENT_COMPONENT, 34.0);
        graph.setProperty(CoreOptions.ASPECT_RATIO, 1.8);
        graph.setProperty(LayeredOptions.CONSIDER_MODEL_ORDER_STRATEGY, OrderingStrategy.NODES_AND_EDGES);
        graph.setProperty(LayeredOptions.CONSIDER_MODEL_ORDER_COMPONENTS, ComponentOrderingStrategy.MODEL_ORDER);
        graph.setProperty(LayeredOptions.NODE_PLACEMENT_BK_FIXED_ALIGNMENT, FixedAlignment.BALANCED);
        graph.setProperty(LayeredOptions.SPACING_NODE_NODE_BETWEEN_LAYERS, 52.0);
        graph.setProperty(LayeredOptions.SPACING_EDGE_NODE_BETWEEN_LAYERS, 22.0);
        Map<String, ElkNode> nodes = new HashMap<>();
        diagram.nodes().forEach(node -> nodes.put(node.key(), node(graph, node)));
        List<ElkEdge> edges =
                diagram.edges().stream().map(edge -> edge(nodes, edge)).toList();
        new RecursiveGraphLayoutEngine().layout(graph, new BasicProgressMonitor());
        List<Box> boxes = diagram.nodes().stream()
                .map(node -> box(node, Objects.requireNonNull(nodes.get(node.key()))))
                .toList();
        List<Line> lines = new ArrayList<>();
        for (int i = 0; i < edges.size(); i++) {
            lines.add(line(diagram.edges().get(i), edges.get(i)));
        }
        return new DiagramLayout(boxes, lines, graph.getWidth(), graph.getHeight());
    }

    private static ElkNode node(ElkNode graph, Diagram.Node node) {
        ElkNode made = ElkGraphUtil.createNode(graph);
        double width = Math.max(
                        TextWidths.text(node.title(), TITLE, true),
                        TextWidths.text("«" + node.keyword() + "»", KEYWORD, false))
                + (node.openable() ? 20 : 0);
        double height = HEAD;
        for (Diagram.Compartment compartment : node.compartments()) {
            height += compartmentHeight(compartment);
            for (Diagram.Line line : compartment.lines()) {
                width = Math.max(width, width(line));
            }
        }
        made.setDimensions(Math.clamp(width + 2 * SIDE, NARROWEST, WIDEST), height);
        return made;
    }

    private static double compartmentHeight(Diagram.Compartment compartment) {
        return compartment.lines().size() * ROW + (compartment.title().isEmpty() ? 0 : ROW) + 10;
    }

    private static ElkEdge edge(Map<String, ElkNode> nodes, Diagram.Edge edge) {
        ElkNode from = nodes.get(edge.from());
        ElkNode to = nodes.get(edge.to());
        boolean turned = edge.relation().targetIsAbove();
        ElkEdge made = ElkGraphUtil.createSimpleEdge(turned ? to : from, turned ? from : to);
        if (!edge.label().isEmpty()) {
            ElkLabel label = ElkGraphUtil.createLabel(edge.label(), made);
            label.setDimensions(TextWidths.text(edge.label(), TEXT, false) + 6, ROW);
        }
        return made;
    }

    private static Box box(Diagram.Node node, ElkNode placed) {
        List<Part> parts = new ArrayList<>();
        double y = HEAD;
        for (Diagram.Compartment compartment : node.compartments()) {
            double base = y + 15;
            double first = compartment.title().isEmpty() ? base : base + ROW;
            List<Row> rows = new ArrayList<>();
            for (int i = 0; i < compartment.lines().size(); i++) {
                Diagram.Line line = compartment.lines().get(i);
                rows.add(new Row(line, cut(line, placed.getWidth() - 2 * SIDE), first + i * ROW));
            }
            parts.add(new Part(compartment.title(), y, rows));
            y += compartmentHeight(compartment);
        }
        return new Box(node, placed.getX(), placed.getY(), placed.getWidth(), placed.getHeight(), parts);
    }

    private static double width(Diagram.Line line) {
        return line.prose() ? TextWidths.text(line.text(), TEXT, false) : TextWidths.mono(line.text(), TEXT);
    }

    /** As much of a line as there is room for. */
    private static String cut(Diagram.Line line, double room) {
        String text = line.text();
        double width = width(line);
        int fitting = width <= room + 0.5 ? text.length() : (int) (text.length() * room / width);
        return fitting >= text.length() ? text : text.substring(0, Math.max(1, fitting - 1)) + "…";
    }

    private static Line line(Diagram.Edge edge, ElkEdge placed) {
        List<double[]> points = new ArrayList<>();
        for (ElkEdgeSection section : placed.getSections()) {
            points.add(new double[] {section.getStartX(), section.getStartY()});
            for (ElkBendPoint bend : section.getBendPoints()) {
                points.add(new double[] {bend.getX(), bend.getY()});
            }
            points.add(new double[] {section.getEndX(), section.getEndY()});
        }
        straighten(points);
        List<double[]> way = edge.relation().targetIsAbove() ? points.reversed() : points;
        ElkLabel label =
                placed.getLabels().isEmpty() ? null : placed.getLabels().getFirst();
        return new Line(edge, path(way), label == null ? 0 : label.getX() + 3, label == null ? 0 : label.getY() + 12);
    }

    /**
     * A step to the side that is too small to be seen as one is left out; the line then leans by less than the eye
     * notices.
     */
    private static void straighten(List<double[]> points) {
        for (int i = 1; i + 2 < points.size(); i++) {
            if (Math.hypot(points.get(i)[0] - points.get(i + 1)[0], points.get(i)[1] - points.get(i + 1)[1])
                    < SMALLEST_STEP) {
                points.remove(i + 1);
                points.remove(i);
                i--;
            }
        }
    }

    /** Straight pieces with corners rounded as far as the pieces are long. */
    private static String path(List<double[]> points) {
        StringBuilder path = new StringBuilder("M" + at(points.getFirst()));
        for (int i = 1; i < points.size() - 1; i++) {
            double[] corner = points.get(i);
            path.append(" L")
                    .append(at(towards(corner, points.get(i - 1))))
                    .append(" Q")
                    .append(at(corner))
                    .append(' ')
                    .append(at(towards(corner, points.get(i + 1))));
        }
        return path.append(" L").append(at(points.getLast())).toString();
    }

    private static double[] towards(double[] corner, double[] other) {
        double distance = Math.hypot(other[0] - corner[0], other[1] - corner[1]);
        double step = distance == 0 ? 0 : Math.min(CORNER, distance / 2) / distance;
        return new double[] {corner[0] + (other[0] - corner[0]) * step, corner[1] + (other[1] - corner[1]) * step};
    }

    private static String at(double[] point) {
        return String.format(Locale.ROOT, "%.1f %.1f", point[0], point[1]);
    }
}
