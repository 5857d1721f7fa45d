package pyrite.core.view;

import java.util.List;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;

/**
 * What a diagram shows, before it has a layout: nodes by their keys and the edges between them.
 *
 * @param left how many elements were left out because a diagram of that size cannot be read
 */
public record Diagram(List<Node> nodes, List<Edge> edges, int left) {
    public Diagram {
        nodes = List.copyOf(nodes);
        edges = List.copyOf(edges);
    }

    /**
     * A box.
     *
     * @param key the ids on the way to it, by points: an inherited part stands once under each usage that was expanded
     * @param keyword in the notation, such as {@code part def}
     * @param openable whether it holds parts that can be shown as boxes of their own, or does so already
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

    /** A line of a compartment with the element it stands for: notation, or prose from its documentation. */
    public record Line(ElementId element, String text, boolean prose) {}

    /** The relations that a General view draws (SysML 2.0, 8.2.3), with the words on the line. */
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
