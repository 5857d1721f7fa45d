package pyrite.core.notation;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.UnitReference;
import pyrite.core.expression.ExpressionText;
import pyrite.core.expression.Name;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Span;
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
                return String.join(".", reference.chain().stream().map(StoredExpression::spelled).toList());
            }

            @Override
            public String name(String prefix, Referent referent) {
                return "'" + (prefix.isEmpty() ? "" : prefix + PREFIX_END) + referent + "'";
            }

            @Override
            public String step(Referent referent) {
                return "'" + referent + "'";
            }
        });
    }

    private static String spelled(Referent referent) {
        return referent instanceof Expression.Local ? referent.toString() : "'" + referent + "'";
    }

    /** @throws IllegalArgumentException if the text is not what {@link #write} made */
    public static Expression read(String text) {
        return NotationReader.parseExpression(text).rewrite(new ByIds(Set.of()));
    }

    private record ByIds(Set<String> locals) implements Expression.Rewriter {
        @Override
        public Expression feature(FeatureReference reference) {
            String first = ((Name) reference.chain().getFirst()).last();
            if (!locals.contains(first)) {
                return new FeatureReference(ids(reference.chain()), reference.span());
            }
            FeatureReference local = new FeatureReference(List.of(new Expression.Local(first)), reference.span());
            List<Referent> steps = reference.chain().subList(1, reference.chain().size());
            return steps.isEmpty() ? local : new Expression.Access(local, ids(steps), reference.span());
        }

        @Override
        public Expression unit(FeatureReference reference) {
            String name = ((Name) reference.last()).last();
            int bar = name.indexOf(PREFIX_END);
            return new UnitReference(bar < 0 ? "" : name.substring(0, bar), ElementId.parse(name.substring(bar + 1)),
                    reference.span());
        }

        @Override
        public Referent function(Referent function, Span span) {
            return id(function);
        }

        @Override
        public Referent type(Referent type, Span span) {
            return id(type);
        }

        @Override
        public List<Referent> steps(Expression source, List<Referent> steps, Span span) {
            return ids(steps);
        }

        @Override
        public Expression.Rewriter inside(Expression.Body body) {
            Set<String> all = new HashSet<>(locals);
            body.parameters().forEach(parameter -> all.add(parameter.name()));
            return new ByIds(all);
        }

        private static List<Referent> ids(List<Referent> names) {
            return names.stream().<Referent>map(ByIds::id).toList();
        }

        private static ElementId id(Referent name) {
            return ElementId.parse(((Name) name).last());
        }
    }
}
