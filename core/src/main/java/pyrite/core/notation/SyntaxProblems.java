package pyrite.core.notation;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.antlr.v4.runtime.BaseErrorListener;
import org.antlr.v4.runtime.Parser;
import org.antlr.v4.runtime.RecognitionException;
import org.antlr.v4.runtime.Recognizer;
import org.antlr.v4.runtime.Token;
import org.antlr.v4.runtime.misc.IntervalSet;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Span;

/** Turns the parser's complaints into sentences: what was expected, and what stands there instead. */
final class SyntaxProblems extends BaseErrorListener {
    private static final int MOST_NAMED = 6;

    private final Source source;
    private final List<TextProblem> problems;

    SyntaxProblems(Source source, List<TextProblem> problems) {
        this.source = source;
        this.problems = problems;
    }

    @Override
    public void syntaxError(Recognizer<?, ?> recognizer, @Nullable Object offending, int line, int column,
            String message, @Nullable RecognitionException cause) {
        Token token = (Token) offending;
        int start = Math.min(token.getStartIndex(), source.text().length());
        Span span = new Span(start, Math.max(start, token.getStopIndex() + 1));
        problems.add(source.problem(span, "expected " + expected((Parser) recognizer, cause, token) + ", found " + found(token)));
    }

    private static String found(Token token) {
        if (token.getType() == Token.EOF) {
            return "the end of the text";
        }
        String text = token.getText().lines().findFirst().orElse("");
        return "'" + (text.length() > 30 ? text.substring(0, 30) + "…" : text) + "'";
    }

    private static String expected(Parser parser, @Nullable RecognitionException cause, Token found) {
        IntervalSet tokens = cause != null && cause.getExpectedTokens() != null ? cause.getExpectedTokens()
                : parser.getExpectedTokens();
        Set<String> names = new TreeSet<>();
        tokens.toList().forEach(type -> names.add(describe(parser, type)));
        if (found.getType() == Token.EOF && names.contains("'}'")) {
            return "'}'";
        }
        List<String> shown = new ArrayList<>(closers(names));
        if (shown.isEmpty()) {
            shown.addAll(names);
        }
        if (shown.size() > MOST_NAMED) {
            return names.contains("a name") && names.contains("a number") ? "an expression" : "a declaration such as 'part' or 'attribute'";
        }
        return shown.size() == 1 ? shown.getFirst()
                : String.join(", ", shown.subList(0, shown.size() - 1)) + " or " + shown.getLast();
    }

    /** Where a declaration could end, that is what is missing as a rule. */
    private static List<String> closers(Set<String> names) {
        return names.contains("';'") && names.contains("'{'") ? List.of("';'", "'{'")
                : names.stream().filter(n -> n.equals("';'") || n.equals("')'") || n.equals("']'") || n.equals("'}'")).toList();
    }

    private static String describe(Parser parser, int type) {
        return switch (type) {
            case Token.EOF -> "the end of the text";
            case NotationParser.NAME, NotationParser.QUOTED -> "a name";
            case NotationParser.NUMBER -> "a number";
            case NotationParser.STRING -> "a text in quotes";
            case NotationParser.BLOCK -> "a comment /* … */";
            default -> parser.getVocabulary().getDisplayName(type);
        };
    }
}
