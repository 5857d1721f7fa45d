package pyrite.core.view;

import java.util.ArrayList;
import java.util.List;
import pyrite.core.view.Placement.Size;

/** The sizes of boxes by their texts, px, and where the texts stand in them. */
final class BoxSizes {
    static final double KEYWORD = 10.5;
    static final double TITLE = 13.5;
    static final double TEXT = 11.5;
    static final double ROW = 16;
    /** Keyword and title. */
    static final double HEAD = 44;

    static final double SIDE = 12;
    private static final double NARROWEST = 130;
    private static final double WIDEST = 330;

    private BoxSizes() {}

    /** The smallest box that holds the texts of a node; longer ones are cut. */
    static Size of(Diagram.Node node) {
        return switch (node.shape()) {
            case DECISION -> new Size(36, 36);
            case BAR -> new Size(96, 8);
            case START, DONE -> new Size(22, 22);
            case STEP, RECEIVE, SEND, ACTOR, USE_CASE, LIFELINE, EVENT, BOX -> ofTexts(node);
        };
    }

    private static Size ofTexts(Diagram.Node node) {
        double width = Math.max(
                        TextWidths.text(node.title(), TITLE, true) + (node.isInherited() ? 12 : 0),
                        TextWidths.text("«" + node.keyword() + "»", KEYWORD, false))
                + (node.openable() ? 20 : 0);
        for (Diagram.Compartment compartment : node.compartments()) {
            for (Diagram.Line line : compartment.lines()) {
                width = Math.max(width, width(line));
            }
        }
        double more = node.shape() == Diagram.Shape.BOX || node.shape() == Diagram.Shape.STEP ? 0 : 2 * SIDE;
        return new Size(Math.clamp(width + 2 * SIDE + more, NARROWEST, WIDEST), headHeight(node));
    }

    /** Keyword and, if it has one, title. */
    private static double head(Diagram.Node node) {
        return node.title().isEmpty() ? HEAD - ROW : HEAD;
    }

    /** Keyword, title and compartments. */
    static double headHeight(Diagram.Node node) {
        if (node.shape().isBare()) {
            return 0;
        }
        double height = head(node);
        for (Diagram.Compartment compartment : node.compartments()) {
            height += height(compartment);
        }
        return height;
    }

    private static double height(Diagram.Compartment compartment) {
        return compartment.lines().size() * ROW + (compartment.title().isEmpty() ? 0 : ROW) + 10;
    }

    /** The compartments of a node in a box of a width. */
    static List<DiagramLayout.Part> parts(Diagram.Node node, double width) {
        List<DiagramLayout.Part> parts = new ArrayList<>();
        double y = head(node);
        for (Diagram.Compartment compartment : node.compartments()) {
            double first = y + 15 + (compartment.title().isEmpty() ? 0 : ROW);
            List<DiagramLayout.Row> rows = new ArrayList<>();
            for (int i = 0; i < compartment.lines().size(); i++) {
                Diagram.Line line = compartment.lines().get(i);
                rows.add(new DiagramLayout.Row(line, cut(line, width - 2 * SIDE), first + i * ROW));
            }
            parts.add(new DiagramLayout.Part(compartment.title(), y, rows));
            y += height(compartment);
        }
        return parts;
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
}
