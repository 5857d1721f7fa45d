package pyrite.core.notation;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import pyrite.core.expression.ExplainedException;
import pyrite.core.expression.Name;
import pyrite.core.expression.Span;

/**
 * A position in the tokens of a text that moves forward: it looks ahead, takes a token, or reports what was expected.
 */
final class Cursor {
    /** What is wrong where something begins and does not end, by its first character. */
    private static final Map<Character, String> UNENDED = Map.of(
            '/',
            "the comment that begins here is not ended by '*/'",
            '"',
            "the text that begins here is not ended by '\"'",
            '\'',
            "the name in quotes that begins here is not ended on its line");

    private final Tokens tokens;
    private int at;
    /** The token that comes next, kept because it is looked at many times before it is taken. */
    private String text;

    private Tokens.Type type;
    private int depth;
    private final List<Hint> hints = new ArrayList<>();

    /** What is right and may be meant otherwise. */
    record Hint(Span span, String message) {}

    /** A syntax error with its place and a message for the reader. */
    static final class SyntaxFault extends ExplainedException {
        private final transient Span span;

        SyntaxFault(Span span, String message) {
            super(message, null, false, false);
            this.span = span;
        }

        Span span() {
            return span;
        }
    }

    Cursor(Tokens tokens) {
        this.tokens = tokens;
        this.text = tokens.text(0);
        this.type = tokens.type(0);
    }

    private void step() {
        at++;
        text = tokens.text(at);
        type = tokens.type(at);
    }

    Tokens tokens() {
        return tokens;
    }

    int at() {
        return at;
    }

    String text() {
        return text;
    }

    Tokens.Type type() {
        return type;
    }

    /** A place that is looked at twice has its hint once. */
    void hint(Hint hint) {
        if (!hints.contains(hint)) {
            hints.add(hint);
        }
    }

    List<Hint> hints() {
        return hints;
    }

    boolean isAtEnd() {
        return type() == Tokens.Type.END;
    }

    /** Whether a keyword or sign comes next; a name in quotes is neither. */
    boolean sees(String word) {
        return text.equals(word) && isMark(type);
    }

    boolean sees(int ahead, String word) {
        return tokens.text(at + ahead).equals(word) && isMark(tokens.type(at + ahead));
    }

    private static boolean isMark(Tokens.Type type) {
        return type == Tokens.Type.SIGN || type == Tokens.Type.KEYWORD;
    }

    /** Whether a word comes next that is no keyword everywhere, such as {@code at} behind {@code accept}. */
    boolean seesWord(String word) {
        return text().equals(word) && (type() == Tokens.Type.NAME || type() == Tokens.Type.KEYWORD);
    }

    boolean seesName() {
        return type() == Tokens.Type.NAME;
    }

    boolean seesName(int ahead) {
        return tokens.type(at + ahead) == Tokens.Type.NAME;
    }

    boolean takes(String word) {
        boolean there = sees(word);
        if (there) {
            step();
        }
        return there;
    }

    /** Takes the token that comes next, whatever it is, and gives its text. */
    String take() {
        String taken = text;
        if (!isAtEnd()) {
            step();
        }
        return taken;
    }

    void require(String word) {
        if (!takes(word)) {
            throw expected("'" + word + "'");
        }
    }

    String requireName() {
        if (!seesName()) {
            throw expected("a name");
        }
        return take();
    }

    /** {@code A::B::c}. */
    Name requireQualifiedName() {
        String first = requireName();
        if (!(sees("::") && seesName(1))) {
            return Name.of(first);
        }
        java.util.List<String> parts = new java.util.ArrayList<>();
        parts.add(first);
        while (sees("::") && seesName(1)) {
            step();
            parts.add(take());
        }
        return new Name(parts);
    }

    /** The fault of finding something else than what was expected, in a sentence. */
    SyntaxFault expected(String what) {
        String unended = type() == Tokens.Type.UNKNOWN && text().length() > 1 ? UNENDED.get(text().charAt(0)) : null;
        if (unended != null) {
            int start = tokens.start(at);
            return new SyntaxFault(new Span(start, start + 1), unended);
        }
        if (type() == Tokens.Type.UNKNOWN && Character.isLetterOrDigit(text().codePointAt(0))
                || type() == Tokens.Type.UNKNOWN && text().startsWith("°")) {
            return new SyntaxFault(
                    tokens.span(at),
                    "a name with other characters than a–z, digits and '_' is written in quotes: "
                            + Name.quoted(text()));
        }
        if (sees("%") && what.equals("an expression")) {
            return new SyntaxFault(tokens.span(at), "the unit percent is written in quotes: ['%']");
        }
        boolean ending = what.equals("';' or '{'");
        if (ending && at > 0 && tokens.beginsLine(at)) {
            int end = tokens.end(at - 1);
            return new SyntaxFault(new Span(end, end), "expected " + what + " at the end of this declaration");
        }
        String habit = ending ? Habits.hint(tokens, at) : "";
        boolean kept = habit.isEmpty() && type() == Tokens.Type.KEYWORD && (what.equals("a name") || ending);
        return new SyntaxFault(
                tokens.span(at),
                "expected " + what + ", found " + tokens.shown(at) + habit
                        + (kept
                                ? "; " + tokens.shown(at)
                                        + " is a word of the notation; as a name it is written in quotes"
                                : ""));
    }

    Span spanFrom(int first) {
        int last = Math.max(first, at - 1);
        return new Span(tokens.start(first), tokens.end(last));
    }

    /** Guards recursion: a text nested deeper than people write is refused before the stack ends. */
    void enter() {
        if (++depth > NotationReader.DEEPEST) {
            throw new SyntaxFault(tokens.span(at), "nested more than " + NotationReader.DEEPEST + " levels deep");
        }
    }

    void leave() {
        depth--;
    }

    void resetDepth(int to) {
        depth = to;
    }

    int depth() {
        return depth;
    }
}
