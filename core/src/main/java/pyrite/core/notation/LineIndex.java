package pyrite.core.notation;

import java.util.Arrays;
import pyrite.core.expression.Span;

/** The start of each line of a text, for locating many places in it. */
final class LineIndex {
    private final Source source;
    private final int[] starts;

    LineIndex(Source source) {
        this.source = source;
        String text = source.text();
        int[] found = new int[16];
        int count = 1;
        for (int at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) {
            found = count == found.length ? Arrays.copyOf(found, 2 * count) : found;
            found[count++] = at + 1;
        }
        this.starts = Arrays.copyOf(found, count);
    }

    /** A problem with line and column, both counted from 1, of a character counted from 0. */
    TextProblem problem(Span span, String message) {
        int offset = Math.min(span.start(), source.text().length());
        int found = Arrays.binarySearch(starts, offset);
        int line = found >= 0 ? found : -found - 2;
        return new TextProblem(source.name(), line + 1, offset - starts[line] + 1, span, message);
    }
}
