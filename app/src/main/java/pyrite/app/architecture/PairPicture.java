package pyrite.app.architecture;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import pyrite.core.structure.PairTable;

/** A small drawing of an interface definition: its two ends side by side, a line for each pair. */
public final class PairPicture {
    private static final int ROW = 26;
    private static final int TOP = 44;

    private final List<Label> left = new ArrayList<>();
    private final List<Label> right = new ArrayList<>();
    private final List<Line> lines = new ArrayList<>();

    /** A name with its height in the drawing. */
    public record Label(String name, int y, boolean isPaired) {}

    /** From a height on the left to one on the right. */
    public record Line(int from, int to) {}

    PairPicture(PairTable table) {
        Map<String, Integer> heights = new LinkedHashMap<>();
        table.rows().stream()
                .map(PairTable.Row::partner)
                .filter(partner -> !partner.isEmpty())
                .forEach(partner -> heights.putIfAbsent(partner, TOP + ROW * heights.size()));
        table.alone().forEach(name -> heights.putIfAbsent(name, TOP + ROW * heights.size()));
        heights.forEach((name, y) -> right.add(new Label(name, y, !table.alone().contains(name))));
        for (PairTable.Row row : table.rows()) {
            int y = TOP + ROW * left.size();
            Integer partner = heights.get(row.partner());
            left.add(new Label(row.name(), y, partner != null));
            if (partner != null) {
                lines.add(new Line(y, partner));
            }
        }
    }

    public List<Label> left() {
        return left;
    }

    public List<Label> right() {
        return right;
    }

    public List<Line> lines() {
        return lines;
    }

    public int height() {
        return TOP + ROW * Math.max(1, Math.max(left.size(), right.size()));
    }
}
