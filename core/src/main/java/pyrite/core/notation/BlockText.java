package pyrite.core.notation;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;

/**
 * The text of documentation, comments and textual representations between the comment marks (KerML 8.2.3.3.2). A line
 * may begin with a star, which with one blank behind it is no part of the text. Where lines have none, the blanks that
 * all of them begin with are no part of it; what one is indented more than another is kept.
 */
public final class BlockText {
    private BlockText() {}

    /** The text without marks and without the stars and blanks that begin its lines. */
    static String read(String block) {
        String inside = block.substring(2, block.length() - 2);
        List<String> lines = inside.lines().toList();
        List<String> behind = lines.isEmpty() ? List.of() : lines.subList(1, lines.size());
        int margin = behind.stream()
                .filter(line -> !line.isBlank() && !isStarred(line))
                .mapToInt(BlockText::indentation)
                .min()
                .orElse(0);
        List<String> text = new ArrayList<>();
        if (!lines.isEmpty() && !lines.getFirst().isBlank()) {
            text.add(lines.getFirst().stripLeading());
        }
        behind.forEach(line -> text.add(unmarked(line, margin)));
        return normal(String.join("\n", text));
    }

    private static String unmarked(String line, int margin) {
        if (isStarred(line)) {
            String rest = line.substring(indentation(line) + 1);
            return rest.startsWith(" ") ? rest.substring(1) : rest;
        }
        return line.isBlank() ? "" : line.substring(margin);
    }

    private static boolean isStarred(String line) {
        return line.stripLeading().startsWith("*");
    }

    private static int indentation(String line) {
        return line.length() - line.stripLeading().length();
    }

    /** Without empty lines around the whole and without blanks at its end: the form in which a text is kept. */
    public static String normal(String text) {
        List<String> lines = new ArrayList<>(text.lines().toList());
        while (!lines.isEmpty() && lines.getFirst().isBlank()) {
            lines.removeFirst();
        }
        return String.join("\n", lines).stripTrailing();
    }

    /** Whether a text can stand between comment marks. */
    public static boolean isWritable(String text) {
        return !text.contains("*/");
    }

    static String write(String text, String indent) {
        String margin = "\n" + indent + " *";
        String marked =
                text.lines().map(line -> line.isEmpty() ? "" : " " + line).collect(Collectors.joining(margin));
        boolean isIndented = !text.isEmpty() && Character.isWhitespace(text.charAt(0));
        return "/*" + (isIndented ? margin : "") + (marked.isEmpty() ? " " : marked) + " */";
    }
}
