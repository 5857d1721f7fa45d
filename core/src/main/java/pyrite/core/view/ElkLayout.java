package pyrite.core.view;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.eclipse.elk.alg.layered.components.ComponentOrderingStrategy;
import org.eclipse.elk.alg.layered.options.CycleBreakingStrategy;
import org.eclipse.elk.alg.layered.options.FixedAlignment;
import org.eclipse.elk.alg.layered.options.InternalProperties;
import org.eclipse.elk.alg.layered.options.LayerConstraint;
import org.eclipse.elk.alg.layered.options.LayeredMetaDataProvider;
import org.eclipse.elk.alg.layered.options.LayeredOptions;
import org.eclipse.elk.alg.layered.options.OrderingStrategy;
import org.eclipse.elk.core.RecursiveGraphLayoutEngine;
import org.eclipse.elk.core.data.LayoutMetaDataService;
import org.eclipse.elk.core.math.ElkMargin;
import org.eclipse.elk.core.math.ElkPadding;
import org.eclipse.elk.core.math.KVector;
import org.eclipse.elk.core.options.CoreOptions;
import org.eclipse.elk.core.options.Direction;
import org.eclipse.elk.core.options.EdgeRouting;
import org.eclipse.elk.core.options.HierarchyHandling;
import org.eclipse.elk.core.options.PortConstraints;
import org.eclipse.elk.core.options.PortLabelPlacement;
import org.eclipse.elk.core.options.SizeConstraint;
import org.eclipse.elk.core.util.BasicProgressMonitor;
import org.eclipse.elk.graph.ElkBendPoint;
import org.eclipse.elk.graph.ElkConnectableShape;
import org.eclipse.elk.graph.ElkEdge;
import org.eclipse.elk.graph.ElkEdgeSection;
import org.eclipse.elk.graph.ElkGraphElement;
import org.eclipse.elk.graph.ElkLabel;
import org.eclipse.elk.graph.ElkNode;
import org.eclipse.elk.graph.ElkPort;
import org.eclipse.elk.graph.util.ElkGraphUtil;
import org.jspecify.annotations.Nullable;
import pyrite.core.structure.PortFace;
import pyrite.core.view.Placement.Point;
import pyrite.core.view.Placement.Size;

/**
 * Layers, order, ports and lines of a diagram, computed by ELK Layered. The order of the model is kept where it can be.
 */
final class ElkLayout {
    private static final double PORT = 12;
    private static final double INSET = 24;
    private static final double SMALLEST_STEP = 3;

    static {
        LayoutMetaDataService.getInstance().registerLayoutMetaDataProviders(new LayeredMetaDataProvider());
    }

    private final Diagram diagram;
    /** The keys of the boxes that others stand in. */
    private final Set<String> surrounding;

    private final Predicate<Diagram.Edge> isLaidOut;
    private final boolean isBehavior;
    private final ElkNode graph = ElkGraphUtil.createGraph();
    private final Map<String, ElkNode> nodes = new HashMap<>();
    private final Map<String, ElkPort> ports = new HashMap<>();
    private final Map<String, PortFace.Way> ways = new HashMap<>();

    private ElkLayout(Diagram diagram, Predicate<Diagram.Edge> isLaidOut) {
        this.diagram = diagram;
        this.isLaidOut = isLaidOut;
        this.isBehavior = diagram.nodes().stream().anyMatch(node -> node.shape() == Diagram.Shape.START);
        this.surrounding = diagram.nodes().stream().map(Diagram.Node::parent).collect(Collectors.toSet());
    }

    static DiagramLayout downward(Diagram diagram) {
        return run(diagram, Direction.DOWN);
    }

    static DiagramLayout rightward(Diagram diagram) {
        return run(diagram, Direction.RIGHT);
    }

    /**
     * ELK 0.12.1 loses count of ports in some drawings where lines skip levels of nested boxes or lead back to their
     * own box. Where it does, lines are left out, and the page finds a way for them.
     */
    private static DiagramLayout run(Diagram diagram, Direction direction) {
        try {
            return new ElkLayout(diagram, _ -> true).run(direction);
        } catch (IndexOutOfBoundsException | NullPointerException _) {
            try {
                return new ElkLayout(diagram, betweenSiblings(diagram)).run(direction);
            } catch (IndexOutOfBoundsException | NullPointerException _) {
                return new ElkLayout(diagram, _ -> false).run(direction);
            }
        }
    }

    private static Predicate<Diagram.Edge> betweenSiblings(Diagram diagram) {
        Map<String, Diagram.Node> boxes = new HashMap<>();
        diagram.nodes().forEach(node -> {
            boxes.put(node.key(), node);
            node.ports().forEach(port -> boxes.put(port.key(), node));
        });
        return edge -> {
            Diagram.Node from = Objects.requireNonNull(boxes.get(edge.from()));
            Diagram.Node to = Objects.requireNonNull(boxes.get(edge.to()));
            return from != to && from.parent().equals(to.parent());
        };
    }

    private DiagramLayout run(Direction direction) {
        configure(graph, direction);
        graph.setProperty(CoreOptions.HIERARCHY_HANDLING, HierarchyHandling.INCLUDE_CHILDREN);
        graph.setProperty(CoreOptions.PADDING, new ElkPadding(20));
        diagram.nodes().forEach(node -> node(node, direction));
        Map<Diagram.Edge, ElkEdge> edges = new HashMap<>();
        diagram.edges().stream().filter(isLaidOut).forEach(edge -> edges.put(edge, edge(edge)));
        new RecursiveGraphLayoutEngine().layout(graph, new BasicProgressMonitor());
        return new DiagramLayout(
                diagram.nodes().stream().map(this::box).toList(),
                diagram.edges().stream()
                        .map(edge -> line(edge, edges.get(edge)))
                        .toList(),
                graph.getWidth(),
                graph.getHeight());
    }

    private void configure(ElkGraphElement graph, Direction direction) {
        if (isBehavior) {
            // From where it begins all goes down; only what leads back goes up.
            graph.setProperty(LayeredOptions.CYCLE_BREAKING_STRATEGY, CycleBreakingStrategy.DEPTH_FIRST);
        }
        graph.setProperty(CoreOptions.ALGORITHM, LayeredOptions.ALGORITHM_ID);
        graph.setProperty(CoreOptions.DIRECTION, direction);
        graph.setProperty(CoreOptions.EDGE_ROUTING, EdgeRouting.ORTHOGONAL);
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
    }

    private void node(Diagram.Node node, Direction direction) {
        ElkNode parent = node.parent().isEmpty() ? graph : Objects.requireNonNull(nodes.get(node.parent()));
        ElkNode made = ElkGraphUtil.createNode(parent);
        nodes.put(node.key(), made);
        Size size = BoxSizes.of(node);
        made.setDimensions(size.width(), size.height());
        boolean isOpenBox = surrounding.contains(node.key());
        if (isOpenBox) {
            configure(made, direction);
            // The order of the model is compared in inner graphs, too, where the importer leaves this out.
            made.setProperty(
                    InternalProperties.MAX_MODEL_ORDER_NODES, diagram.nodes().size());
            made.setProperty(
                    CoreOptions.PADDING,
                    new ElkPadding(BoxSizes.headHeight(node) + INSET / 2, INSET + PORT, INSET, INSET + PORT));
        }
        if (node.shape() == Diagram.Shape.START) {
            made.setProperty(LayeredOptions.LAYERING_LAYER_CONSTRAINT, LayerConstraint.FIRST);
        }
        if (isOpenBox && node.ports().isEmpty()) {
            // With room for ports, of which there are none, what is inside would come to stand beside its lines.
            made.setProperty(CoreOptions.NODE_SIZE_CONSTRAINTS, EnumSet.of(SizeConstraint.MINIMUM_SIZE));
            made.setProperty(CoreOptions.NODE_SIZE_MINIMUM, new KVector(size.width(), size.height() + 10));
        } else if (!node.ports().isEmpty()) {
            made.setProperty(
                    CoreOptions.NODE_SIZE_CONSTRAINTS,
                    EnumSet.of(SizeConstraint.MINIMUM_SIZE, SizeConstraint.PORTS, SizeConstraint.PORT_LABELS));
            made.setProperty(CoreOptions.NODE_SIZE_MINIMUM, new KVector(size.width(), size.height() + 10));
            made.setProperty(
                    CoreOptions.PORT_LABELS_PLACEMENT,
                    EnumSet.of(isOpenBox ? PortLabelPlacement.OUTSIDE : PortLabelPlacement.INSIDE));
            made.setProperty(CoreOptions.SPACING_PORTS_SURROUNDING, new ElkMargin(BoxSizes.HEAD, 10, 12, 10));
            made.setProperty(CoreOptions.SPACING_PORT_PORT, 10.0);
            made.setProperty(CoreOptions.PORT_CONSTRAINTS, PortConstraints.FREE);
        }
        node.ports().forEach(port -> port(made, port));
    }

    private void port(ElkNode node, Diagram.Port port) {
        ElkPort made = ElkGraphUtil.createPort(node);
        made.setDimensions(PORT, PORT);
        made.setProperty(CoreOptions.PORT_BORDER_OFFSET, -PORT / 2);
        ElkLabel label = ElkGraphUtil.createLabel(port.name(), made);
        label.setDimensions(TextWidths.text(port.name(), BoxSizes.TEXT, false) + 8, BoxSizes.ROW);
        ports.put(port.key(), made);
        ways.put(port.key(), port.way());
    }

    private ElkEdge edge(Diagram.Edge edge) {
        ElkConnectableShape from = shape(edge.from());
        ElkConnectableShape to = shape(edge.to());
        boolean turned = isTurned(edge);
        ElkEdge made = ElkGraphUtil.createSimpleEdge(turned ? to : from, turned ? from : to);
        if (!edge.label().isEmpty()) {
            ElkLabel label = ElkGraphUtil.createLabel(edge.label(), made);
            label.setDimensions(TextWidths.text(edge.label(), BoxSizes.TEXT, false) + 6, BoxSizes.ROW);
        }
        return made;
    }

    /** What sends stands before what receives, what is general above what is special. */
    private boolean isTurned(Diagram.Edge edge) {
        return edge.relation().targetIsAbove()
                || ways.get(edge.from()) == PortFace.Way.IN && ways.get(edge.to()) != PortFace.Way.IN
                || ways.get(edge.to()) == PortFace.Way.OUT && ways.get(edge.from()) != PortFace.Way.OUT;
    }

    private ElkConnectableShape shape(String key) {
        return ports.containsKey(key) ? Objects.requireNonNull(ports.get(key)) : Objects.requireNonNull(nodes.get(key));
    }

    private DiagramLayout.Box box(Diagram.Node node) {
        ElkNode placed = Objects.requireNonNull(nodes.get(node.key()));
        return new DiagramLayout.Box(
                node,
                placed.getX(),
                placed.getY(),
                placed.getWidth(),
                placed.getHeight(),
                BoxSizes.parts(node, placed.getWidth()),
                node.ports().stream().map(port -> port(port, placed)).toList());
    }

    private DiagramLayout.Port port(Diagram.Port port, ElkNode node) {
        ElkPort placed = Objects.requireNonNull(ports.get(port.key()));
        return Settling.atBorder(
                port,
                new Point(placed.getX() + PORT / 2, placed.getY() + PORT / 2),
                new Size(node.getWidth(), node.getHeight()));
    }

    private DiagramLayout.Line line(Diagram.Edge edge, @Nullable ElkEdge placed) {
        if (placed == null) {
            return new DiagramLayout.Line(edge, List.of(), List.of(), null);
        }
        Point origin = origin(placed.getContainingNode());
        List<Point> points = new ArrayList<>();
        for (ElkEdgeSection section : placed.getSections()) {
            points.add(new Point(section.getStartX() + origin.x(), section.getStartY() + origin.y()));
            for (ElkBendPoint bend : section.getBendPoints()) {
                points.add(new Point(bend.getX() + origin.x(), bend.getY() + origin.y()));
            }
            points.add(new Point(section.getEndX() + origin.x(), section.getEndY() + origin.y()));
        }
        straighten(points);
        ElkLabel label =
                placed.getLabels().isEmpty() ? null : placed.getLabels().getFirst();
        return new DiagramLayout.Line(
                edge,
                isTurned(edge) ? points.reversed() : points,
                List.of(),
                label == null ? null : new Point(origin.x() + label.getX() + 3, origin.y() + label.getY() + 12));
    }

    private static Point origin(ElkNode container) {
        double x = 0;
        double y = 0;
        for (ElkNode at = container; at.getParent() != null; at = at.getParent()) {
            x += at.getX();
            y += at.getY();
        }
        return new Point(x, y);
    }

    /**
     * A step to the side that is too small to be seen as one is left out; the line then leans by less than the eye
     * notices.
     */
    private static void straighten(List<Point> points) {
        for (int i = 1; i + 2 < points.size(); i++) {
            if (Math.hypot(
                            points.get(i).x() - points.get(i + 1).x(),
                            points.get(i).y() - points.get(i + 1).y())
                    < SMALLEST_STEP) {
                points.remove(i + 1);
                points.remove(i);
                i--;
            }
        }
    }
}
