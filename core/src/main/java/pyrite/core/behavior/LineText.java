package pyrite.core.behavior;

import java.util.List;
import java.util.Optional;
import pyrite.core.expression.Name;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.notation.NotationWriter;

/**
 * The text of a transition or succession in its pieces.
 *
 * @param opening its keyword with its name and what it redefines; empty where that is not written
 * @param statesSource whether it says from where it leads, and does not follow from where it stands or what it
 *     redefines
 * @param says what is written between its ends
 * @param body from the semicolon or brace on
 */
record LineText(String opening, boolean statesSource, String source, String says, String target, String body) {

    static LineText of(Model model, Element carrier) {
        String text = NotationWriter.write(model, List.of(carrier)).strip();
        String head = text.startsWith("then ") ? text.substring("then ".length()) : text;
        String usual = NotationWriter.opening(model, carrier);
        String opening = head.startsWith(usual) ? usual : "";
        String rest = head.substring(opening.length()).strip();
        int then = lastThen(rest);
        if (then < 0) {
            throw new IllegalArgumentException("this order is written with 'then'; change it in the text");
        }
        boolean statesSource = rest.startsWith("first ");
        String before =
                rest.substring(statesSource ? "first ".length() : 0, then).strip();
        int gap = statesSource ? endOfName(before) : 0;
        String target = rest.substring(then + "then ".length()).strip();
        int end = endOfName(target);
        return new LineText(
                opening,
                statesSource,
                statesSource ? before.substring(0, gap) : source(model, carrier),
                before.substring(gap).strip(),
                target.substring(0, end),
                target.substring(end).isBlank() ? ";" : target.substring(end));
    }

    /** The text with other pieces; the source is written where it was, or where it is another one. */
    String with(String keyword, String otherSource, String otherSays, String otherTarget) {
        boolean needsSource = statesSource || !otherSource.equals(source);
        String begin = needsSource && opening.isEmpty() ? keyword : opening;
        return (begin + (needsSource ? " first " + otherSource : "") + " " + otherSays + " then " + otherTarget + body)
                .strip();
    }

    private static String source(Model model, Element carrier) {
        return carrier.get(Property.SOURCE)
                .map(Reference::target)
                .or(() -> Optional.ofNullable(carrier.owner())
                        .flatMap(owner -> StateGraph.of(model, model.get(owner)).transitions().stream()
                                .filter(transition -> transition.carrier().equals(carrier))
                                .map(StateGraph.Transition::from)
                                .findFirst()))
                .map(id -> model.names().effectiveName(model.get(id)))
                .map(Name::quoted)
                .orElse("");
    }

    /** Where the last {@code then} outside of braces and quotes begins. */
    private static int lastThen(String text) {
        int depth = 0;
        int last = -1;
        boolean isQuoted = false;
        for (int i = 0; i < text.length(); i++) {
            char c = text.charAt(i);
            isQuoted ^= c == '\'';
            depth += isQuoted ? 0 : c == '{' ? 1 : c == '}' ? -1 : 0;
            boolean isWord = (i == 0 || Character.isWhitespace(text.charAt(i - 1))) && text.startsWith("then ", i);
            last = isWord && depth == 0 && !isQuoted ? i : last;
        }
        return last;
    }

    /** Behind {@code a.'b c'.d}. */
    private static int endOfName(String text) {
        boolean isQuoted = false;
        int i = 0;
        while (i < text.length()) {
            char c = text.charAt(i);
            if (c == '\'') {
                isQuoted = !isQuoted;
            } else if (!isQuoted && !Character.isJavaIdentifierPart(c) && c != '.' && c != ':') {
                break;
            }
            i++;
        }
        return i;
    }
}
