package pyrite.core.notation;

import java.util.ArrayList;
import java.util.List;

/** What people write who know other languages, and how the notation has it. */
final class Habits {
    private static final int FARTHEST_BACK = 40;

    private Habits() {}

    /** What would be right in place of a token that cannot stand where a declaration should end; empty if unknown. */
    static String hint(Tokens tokens, int at) {
        List<String> before = declaration(tokens, at);
        return switch (tokens.text(at)) {
            case "extends", "implements", "inherits" ->
                "; what a definition specialises stands behind ':>' or 'specializes'";
            case "to", "satisfies" ->
                before.contains("satisfy") ? "; what satisfies it stands behind 'by', as in 'satisfy r by gate;'" : "";
            case "->", "." ->
                before.contains("flow") || before.contains("message")
                        ? "; write 'flow from a to b' or 'flow of Water from a to b'"
                        : before.contains("connect") ? "; write 'connect a to b'" : "";
            case "}" ->
                before.contains("=") && tokens.type(at - before.size()) == Tokens.Type.NAME
                        ? "; '==' compares two values, '=' gives a feature its value"
                        : "";
            default -> "";
        };
    }

    /** The tokens since the declaration began, in order. */
    private static List<String> declaration(Tokens tokens, int at) {
        List<String> words = new ArrayList<>();
        for (int i = at - 1; i >= 0 && words.size() < FARTHEST_BACK; i--) {
            String word = tokens.text(i);
            if (word.equals(";") || word.equals("{") || word.equals("}")) {
                break;
            }
            words.addFirst(word);
        }
        return words;
    }
}
