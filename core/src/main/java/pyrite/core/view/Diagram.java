package pyrite.core.view;

import java.util.List;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;

/**
 * The content of a diagram before layout: nodes by key, and the edges between them.
 *
 * @param left the number of elements left out, because a larger diagram could not be read
 */
public record Diagram(List<Node> nodes, List<Edge> edges, int left) {
    public Diagram {
        nodes = List.copyOf(nodes);
        edges = List.copyOf(edges);
    }

    /**
     * A box.
     *
     * @param key the ids on the path to it, separated by points: an inherited part appears once under each expanded
     *     usage
     * @param keyword in the notation, such as {@code part def}
     * @param openable whether it has parts that can be, or are, shown as boxes of their own
     */
    public record Node(
            String key,
            Element element,
            String keyword,
            String title,
            List<Compartment> compartments,
            boolean openable,
            boolean open) {}

    /** Lines under a heading within a box. */
    public record Compartment(String title, List<Line> lines) {}

    /** A line of a compartment and its element: notation, or prose from its documentation. */
    public record Line(ElementId element, String text, boolean prose) {}

    /** The relations drawn in a General view (SysML 2.0, 8.2.3), with their labels. */
    public enum Relation {
        SPECIALIZATION,
        TYPING,
        COMPOSITION,
        REFERENCE,
        SATISFACTION,
        DEPENDENCY,
        /** A link of any kind that leads upward, as pictures of traces draw it. */
        TRACE;

        /** Whether the end it points at, or has its diamond at, belongs above the other. */
        boolean targetIsAbove() {
            return this == SPECIALIZATION || this == TYPING || this == SATISFACTION || this == TRACE;
        }
    }

    /** A line from the element that has the relation to the other end. */
    public record Edge(String from, String to, Relation relation, String label) {}
}
