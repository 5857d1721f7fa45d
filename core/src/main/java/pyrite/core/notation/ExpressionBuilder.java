package pyrite.core.notation;

import java.util.ArrayList;
import java.util.List;
import org.antlr.v4.runtime.ParserRuleContext;
import org.antlr.v4.runtime.Token;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.Conditional;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Expression.Quantity;
import pyrite.core.expression.Expression.TextLiteral;
import pyrite.core.expression.Expression.TruthLiteral;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.Name;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Span;

/** Makes expressions of parse trees; referents are names, and units are still plain references. */
final class ExpressionBuilder {
    private ExpressionBuilder() {
    }

    static Expression build(NotationParser.ExpressionContext tree) {
        Span span = span(tree);
        return switch (tree) {
            case NotationParser.AtomContext atom -> primary(atom.primary());
            case NotationParser.UnaryContext unary -> new Unary(
                    Operator.unary(unary.getStart().getText()).orElseThrow(), build(unary.expression()), span);
            case NotationParser.BinaryContext binary -> new Binary(
                    Operator.binary(binary.getChild(1).getText()).orElseThrow(), build(binary.expression(0)),
                    build(binary.expression(1)), span);
            case NotationParser.ConditionalContext c ->
                new Conditional(build(c.expression(0)), build(c.expression(1)), build(c.expression(2)), span);
            default -> throw new IllegalStateException("unknown expression " + tree.getText());
        };
    }

    private static Expression primary(NotationParser.PrimaryContext tree) {
        Span span = span(tree);
        return switch (tree) {
            case NotationParser.QuantityContext q -> new Quantity(primary(q.primary()), build(q.expression()), span);
            case NotationParser.NumberContext n -> new NumberLiteral(n.getText(), span);
            case NotationParser.StringContext s -> new TextLiteral(unescape(s.getText()), span);
            case NotationParser.TruthContext t -> new TruthLiteral(t.getText().equals("true"), span);
            case NotationParser.InvocationContext i -> new Invocation(name(i.qualifiedName()),
                    i.expression().stream().map(ExpressionBuilder::build).toList(), span);
            case NotationParser.ReferenceContext r -> new FeatureReference(chain(r.chain()), span);
            case NotationParser.ParenthesisContext p -> build(p.expression());
            default -> throw new IllegalStateException("unknown expression " + tree.getText());
        };
    }

    static List<Referent> chain(NotationParser.ChainContext tree) {
        List<Referent> chain = new ArrayList<>();
        chain.add(name(tree.qualifiedName()));
        tree.name().forEach(step -> chain.add(Name.of(name(step))));
        return chain;
    }

    static Name name(NotationParser.QualifiedNameContext tree) {
        return new Name(tree.name().stream().map(ExpressionBuilder::name).toList());
    }

    static String name(NotationParser.NameContext tree) {
        return tree.QUOTED() != null ? unescape(tree.getText()) : tree.getText();
    }

    /** The text between quotes with its escapes undone (KerML 8.2.2.4). */
    private static String unescape(String quoted) {
        StringBuilder text = new StringBuilder();
        for (int i = 1; i < quoted.length() - 1; i++) {
            char c = quoted.charAt(i);
            if (c == '\\') {
                c = switch (quoted.charAt(++i)) {
                    case 'n' -> '\n';
                    case 't' -> '\t';
                    case 'r' -> '\r';
                    case 'b' -> '\b';
                    case 'f' -> '\f';
                    default -> quoted.charAt(i);
                };
            }
            text.append(c);
        }
        return text.toString();
    }

    static Span span(ParserRuleContext tree) {
        Token stop = tree.getStop() == null ? tree.getStart() : tree.getStop();
        int start = tree.getStart().getStartIndex();
        return new Span(start, Math.max(start, stop.getStopIndex() + 1));
    }
}
