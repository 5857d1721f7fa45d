package pyrite.core.notation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.CommonTokenStream;
import org.antlr.v4.runtime.Token;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Span;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Outcome;
import pyrite.core.model.Problem;

/**
 * Reads the textual notation in three steps: the text becomes elements with names still unresolved
 * ({@link ElementBuilder}), the names are resolved against the model they join ({@link Resolver}), and the result is
 * checked like any other edit. A text with a fault anywhere changes nothing.
 */
public final class NotationReader {
    private static final int DEEPEST = 200;

    private NotationReader() {
    }

    /** Reads whole texts, packages at the top, into a model; the texts may refer to each other in any order. */
    public static Reading read(Model base, List<Source> sources) {
        return read(base, null, sources, ElementBuilder.Ids.RANDOM);
    }

    /**
     * Reads members, such as one line {@code part pump : Pump;}, as if they stood at the end of {@code owner}'s body; null
     * stands for the top of the model.
     */
    public static Reading readMembers(Model base, @Nullable ElementId owner, Source source) {
        return read(base, owner, List.of(source), ElementBuilder.Ids.RANDOM);
    }

    /** Reads an expression as if it stood in {@code scope}. The spans count in the given text. */
    public static ExpressionReading readExpression(Model model, ElementId scope, String text) {
        Source source = new Source("", text);
        List<TextProblem> problems = new ArrayList<>();
        NotationParser parser = parser(source, problems);
        NotationParser.LoneExpressionContext tree = parser.loneExpression();
        if (!problems.isEmpty()) {
            return new ExpressionReading(null, problems);
        }
        Resolver resolver = new Resolver(model, List.of());
        Expression resolved = resolver.resolve(ExpressionBuilder.build(tree.expression()), scope,
                (span, message) -> problems.add(source.problem(span, message)));
        return new ExpressionReading(problems.isEmpty() ? resolved : null, problems);
    }

    /** Parses an expression without resolving its names. Meant for text that Pyrite wrote itself. */
    static Expression parseExpression(String text) {
        List<TextProblem> problems = new ArrayList<>();
        NotationParser.LoneExpressionContext tree = parser(new Source("", text), problems).loneExpression();
        if (!problems.isEmpty()) {
            throw new IllegalArgumentException(problems.getFirst().message() + " in " + text);
        }
        return ExpressionBuilder.build(tree.expression());
    }

    /** An expression with its names resolved, or the problems in it. */
    public record ExpressionReading(@Nullable Expression expression, List<TextProblem> problems) {
        public ExpressionReading {
            problems = List.copyOf(problems);
        }
    }

    static Reading read(Model base, @Nullable ElementId owner, List<Source> sources, ElementBuilder.Ids ids) {
        List<TextProblem> problems = new ArrayList<>();
        ElementBuilder builder = new ElementBuilder(ids, owner, base.rankAtEnd(owner));
        try {
            for (Source source : sources) {
                parse(source, builder, problems);
            }
            return problems.isEmpty() ? finish(base, builder, problems) : nothing(base, problems);
        } catch (StackOverflowError _) {
            problems.add(sources.getFirst().problem(Span.NONE, "an expression is nested too deeply to be read"));
            return nothing(base, problems);
        }
    }

    private static Reading nothing(Model base, List<TextProblem> problems) {
        return new Reading(base, new Edit(List.of(), Set.of()), List.of(), Map.of(), problems);
    }

    private static void parse(Source source, ElementBuilder builder, List<TextProblem> problems) {
        NotationParser parser = parser(source, problems);
        if (tooDeep(parser, source, problems)) {
            return;
        }
        NotationParser.FileContext tree = parser.file();
        if (!problems.isEmpty()) {
            // A tree that was mended after a syntax error has holes; names are looked up once the syntax is right.
            return;
        }
        builder.build(tree, source, (CommonTokenStream) parser.getTokenStream(),
                (span, message) -> problems.add(source.problem(span, message)));
    }

    private static Reading finish(Model base, ElementBuilder builder, List<TextProblem> problems) {
        Resolver resolver = new Resolver(base, builder.drafts());
        List<Element> elements = resolver.resolveAll((draft, span, message) ->
                problems.add(builder.places().get(draft).source().problem(span, message)));
        Edit edit = new Edit(elements, Set.of());
        Model model = base;
        if (problems.isEmpty()) {
            switch (base.apply(edit)) {
                case Outcome.Applied(Model next, var _) -> model = next;
                case Outcome.Refused(List<Problem> wrong) -> wrong.forEach(problem -> {
                    TextProblem located = Reading.locate(problem, builder.places());
                    problems.add(located != null ? located : new TextProblem("model", 1, 1, Span.NONE, problem.message()));
                });
            }
        }
        problems.sort(Comparator.comparing(TextProblem::source).thenComparing(TextProblem::line)
                .thenComparing(TextProblem::column));
        return new Reading(model, edit, elements, builder.places(), problems.stream().distinct().toList());
    }

    private static NotationParser parser(Source source, List<TextProblem> problems) {
        NotationLexer lexer = new NotationLexer(CharStreams.fromString(source.text(), source.name()));
        lexer.removeErrorListeners();
        NotationParser parser = new NotationParser(new CommonTokenStream(lexer));
        parser.removeErrorListeners();
        parser.addErrorListener(new SyntaxProblems(source, problems));
        return parser;
    }

    /** Nesting is limited before parsing, because parsing recurses with it. */
    private static boolean tooDeep(NotationParser parser, Source source, List<TextProblem> problems) {
        CommonTokenStream tokens = (CommonTokenStream) parser.getTokenStream();
        tokens.fill();
        int depth = 0;
        for (Token token : tokens.getTokens()) {
            depth += switch (token.getText()) {
                case "(", "[", "{" -> 1;
                case ")", "]", "}" -> -1;
                default -> 0;
            };
            if (depth > DEEPEST) {
                problems.add(source.problem(new Span(token.getStartIndex(), token.getStopIndex() + 1),
                        "nested more than " + DEEPEST + " levels deep"));
                return true;
            }
        }
        return false;
    }
}
