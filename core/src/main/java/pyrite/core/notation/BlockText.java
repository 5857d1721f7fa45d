package pyrite.core.notation;

import java.util.stream.Collectors;

/** The text of documentation and comments between the comment marks (KerML 8.2.3.3.2). */
public final class BlockText {
    private BlockText() {}

    /** The text without marks and without the stars and blanks that begin its lines. */
    static String read(String block) {
        String inside = block.substring(2, block.length() - 2);
        return normal(inside.lines()
                .map(line -> line.strip().startsWith("*") && !inside.startsWith(line)
                        ? line.strip().substring(1)
                        : line)
                .collect(Collectors.joining("\n")));
    }

    /** Lines without blanks around them, no empty lines around the whole: the form in which a text is kept. */
    public static String normal(String text) {
        return text.lines().map(String::strip).collect(Collectors.joining("\n")).strip();
    }

    /** Whether a text can stand between comment marks. */
    public static boolean isWritable(String text) {
        return !text.contains("*/");
    }

    static String write(String text, String indent) {
        return "/* " + text.replace("\n", "\n" + indent + " * ").replace(" * \n", " *\n") + " */";
    }
}
