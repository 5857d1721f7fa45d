package pyrite.core.notation;

import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.Expression.UnitReference;
import pyrite.core.expression.ExpressionText;
import pyrite.core.expression.Name;
import pyrite.core.expression.Referent;
import pyrite.core.model.ElementId;

/**
 * An expression as one line of text that needs no model to be read: the notation with ids in place of names, in quotes.
 * The form in which a store keeps expressions, because names change and ids do not.
 */
public final class StoredExpression {
    private static final String PREFIX_END = "|";

    private StoredExpression() {
    }

    public static String write(Expression expression) {
        return ExpressionText.of(expression, new ExpressionText.Naming() {
            @Override
            public String chain(FeatureReference reference) {
                return String.join(".", reference.chain().stream().map(id -> "'" + id + "'").toList());
            }

            @Override
            public String name(String prefix, Referent referent) {
                return "'" + (prefix.isEmpty() ? "" : prefix + PREFIX_END) + referent + "'";
            }
        });
    }

    /** @throws IllegalArgumentException if the text is not what {@link #write} made */
    public static Expression read(String text) {
        return NotationReader.parseExpression(text).rewrite(new ByIds());
    }

    private static final class ByIds implements Expression.Rewriter {
        @Override
        public Expression feature(FeatureReference reference) {
            return new FeatureReference(reference.chain().stream().<Referent>map(ByIds::id).toList(), reference.span());
        }

        @Override
        public Expression unit(FeatureReference reference) {
            String name = ((Name) reference.last()).last();
            int bar = name.indexOf(PREFIX_END);
            return new UnitReference(bar < 0 ? "" : name.substring(0, bar), ElementId.parse(name.substring(bar + 1)),
                    reference.span());
        }

        @Override
        public Referent function(Invocation call) {
            return id(call.function());
        }

        private static ElementId id(Referent name) {
            return ElementId.parse(((Name) name).last());
        }
    }
}
