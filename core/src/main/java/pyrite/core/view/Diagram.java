package pyrite.core.view;

import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.structure.PortFace;

/**
 * The content of a diagram before layout: boxes within boxes, ports on their borders, and the edges between them. Keys
 * are the ids on the way to what is shown, separated by points: an inherited part appears once under each expanded
 * usage.
 *
 * @param nodes each behind the one it stands in
 * @param left the number of elements left out, because a larger diagram could not be read
 * @param rows in a sequence what stands below each other, from the top down; empty in others
 */
public record Diagram(List<Node> nodes, List<Edge> edges, int left, List<ElementId> rows) {
    public Diagram {
        nodes = List.copyOf(nodes);
        edges = List.copyOf(edges);
        rows = List.copyOf(rows);
    }

    public Diagram(List<Node> nodes, List<Edge> edges, int left) {
        this(nodes, edges, left, List.of());
    }

    /** The outline of a box. */
    public enum Shape {
        BOX,
        /** A step that is told in words; its keyword is its number. */
        STEP,
        /** A decide or merge node. */
        DECISION,
        /** A fork or join node. */
        BAR,
        START,
        DONE,
        RECEIVE,
        SEND,
        USE_CASE,
        ACTOR,
        /** A part in a sequence, as tall as the sequence. */
        LIFELINE,
        /** What happens on a part by itself. */
        EVENT;

        /** Whether it has no texts. */
        boolean isBare() {
            return this == DECISION || this == BAR || this == START || this == DONE;
        }
    }

    /**
     * A box.
     *
     * @param parent the key of the box it stands in; empty at the top
     * @param keyword in the notation, such as {@code part def}
     * @param openable whether it has parts that can be, or are, shown as boxes of their own
     * @param isInherited whether its owner has it from a definition
     */
    public record Node(
            String key,
            String parent,
            Element element,
            String keyword,
            String title,
            List<Compartment> compartments,
            List<Port> ports,
            boolean openable,
            boolean open,
            boolean isInherited,
            Shape shape) {
        public Node {
            compartments = List.copyOf(compartments);
            ports = List.copyOf(ports);
        }

        public Node(
                String key,
                String parent,
                Element element,
                String keyword,
                String title,
                List<Compartment> compartments,
                List<Port> ports,
                boolean openable,
                boolean open,
                boolean isInherited) {
            this(key, parent, element, keyword, title, compartments, ports, openable, open, isInherited, Shape.BOX);
        }

        Node shaped(Shape other) {
            return new Node(
                    key, parent, element, keyword, title, compartments, ports, openable, open, isInherited, other);
        }

        Node within(String other) {
            return new Node(
                    key, other, element, keyword, title, compartments, ports, openable, open, isInherited, shape);
        }

        /** A box at the top without ports. */
        static Node plain(Element element, String keyword, String title, List<Compartment> compartments) {
            return new Node(
                    element.id().toString(), "", element, keyword, title, compartments, List.of(), false, false, false);
        }
    }

    /**
     * A port on the border of a box.
     *
     * @param name with its multiplicity
     * @param declaration with its type, as in the notation
     */
    public record Port(String key, Element element, String name, String declaration, PortFace.Way way) {}

    /** Lines under a heading within a box. */
    public record Compartment(String title, List<Line> lines) {}

    /** A line of a compartment and its element: notation, or prose from its documentation. */
    public record Line(ElementId element, String text, boolean prose) {}

    /** The relations drawn in General and Interconnection views (SysML 2.0, 8.2.3), with their labels. */
    public enum Relation {
        SPECIALIZATION,
        TYPING,
        REDEFINITION,
        SUBSETTING,
        COMPOSITION,
        REFERENCE,
        SATISFACTION,
        DEPENDENCY,
        CONNECTION,
        INTERFACE,
        BINDING,
        FLOW,
        /** An actor takes part in a use case of what the line leads to. */
        PARTICIPATION,
        /** A use case is told as a part of another one. */
        INCLUSION,
        /** One step comes behind another. */
        SUCCESSION,
        /** An item that one part gives another at an instant. */
        MESSAGE,
        /** A link of any kind that leads upward, as pictures of traces draw it. */
        TRACE;

        /** Whether the end it points at, or has its diamond at, belongs above the other. */
        boolean targetIsAbove() {
            return switch (this) {
                case SPECIALIZATION, TYPING, REDEFINITION, SUBSETTING, SATISFACTION, TRACE -> true;
                case COMPOSITION,
                        REFERENCE,
                        DEPENDENCY,
                        CONNECTION,
                        INTERFACE,
                        BINDING,
                        FLOW,
                        PARTICIPATION,
                        INCLUSION,
                        SUCCESSION,
                        MESSAGE -> false;
            };
        }
    }

    /**
     * A line from what has the relation to the other end.
     *
     * @param key tells it from the other edges of its diagram: the relation and the ids of the keys of both ends and of
     *     the element, by blanks
     * @param element what makes the relation, if it is an element of its own
     * @param from the key of a node or port
     * @param problem why what it joins does not fit; empty if nothing is known against it
     */
    public record Edge(
            String key,
            @Nullable ElementId element,
            String from,
            String to,
            Relation relation,
            String label,
            String problem) {
        static Edge of(String from, String to, Relation relation, String label, @Nullable ElementId element) {
            String ids = (from + "." + to + (element == null ? "" : "." + element)).replace('.', ' ');
            return new Edge(
                    relation.name().toLowerCase(Locale.ROOT) + " " + ids, element, from, to, relation, label, "");
        }

        Edge withProblem(String why) {
            return new Edge(key, element, from, to, relation, label, why);
        }
    }
}
