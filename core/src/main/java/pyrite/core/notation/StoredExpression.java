package pyrite.core.notation;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Expression.UnitReference;
import pyrite.core.expression.ExpressionText;
import pyrite.core.expression.Name;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Span;
import pyrite.core.model.ElementId;

/**
 * An expression as one line of text that can be parsed without a model: the notation with quoted ids in place of names.
 * The store uses this form, because names change and ids do not.
 */
public final class StoredExpression {
    private static final String PREFIX_END = "|";

    private StoredExpression() {}

    public static String write(Expression expression) {
        return write(expression, Referent::toString);
    }

    /** @throws IllegalArgumentException if the text is not what {@link #write} made */
    public static Expression read(String text) {
        return NotationReader.parseExpression(text)
                .rewrite(new ByIds(ElementId::parse, UnaryOperator.identity(), Set.of()));
    }

    /**
     * An expression in parts: its text with ids and numbers replaced by their index from 0, which many expressions
     * share, and those ids and numbers.
     */
    public record Parts(String form, List<ElementId> ids, List<String> numbers) {
        public static Parts of(Expression expression) {
            Set<String> parameters = new HashSet<>();
            expression.walk(part -> {
                if (part instanceof Expression.Body body) {
                    body.parameters().forEach(parameter -> parameters.add(parameter.name()));
                }
            });
            List<String> numbers = new ArrayList<>();
            List<ElementId> ids = new ArrayList<>();
            String form = write(expression.rewrite(new Counting(numbers)), referent -> {
                // A parameter may be called '0'; that word is passed over.
                do {
                    ids.add((ElementId) referent);
                } while (parameters.contains(Integer.toString(ids.size() - 1)));
                return Integer.toString(ids.size() - 1);
            });
            return new Parts(form, ids, numbers);
        }
    }

    /** Replaces numbers by their index and keeps them. */
    private record Counting(List<String> numbers) implements Expression.Rewriter {
        @Override
        public NumberLiteral number(NumberLiteral literal) {
            numbers.add(literal.spelling());
            return new NumberLiteral(Integer.toString(numbers.size() - 1), literal.span());
        }

        @Override
        public Expression feature(FeatureReference reference) {
            return reference;
        }

        @Override
        public Expression unit(FeatureReference reference) {
            return reference;
        }

        @Override
        public Referent function(Referent function, Span span) {
            return function;
        }

        @Override
        public Referent type(Referent type, Span span) {
            return type;
        }

        @Override
        public List<Referent> steps(Expression source, List<Referent> chain, Span span) {
            return chain;
        }

        @Override
        public Expression.Rewriter inside(Expression.Body body) {
            return this;
        }
    }

    /** The shared form of many expressions, parsed once. */
    public static final class Form {
        private final Expression parsed;

        /** @throws IllegalArgumentException if the text is not the form that {@link Parts} has */
        public Form(String text) {
            parsed = NotationReader.parseExpression(text);
        }

        /** @throws IndexOutOfBoundsException if there are fewer ids or numbers than the form counts */
        public Expression with(List<ElementId> ids, List<String> numbers) {
            return parsed.rewrite(new ByIds(
                    word -> ids.get(Integer.parseInt(word)),
                    number -> new NumberLiteral(numbers.get(Integer.parseInt(number.spelling())), number.span()),
                    Set.of()));
        }
    }

    private static String write(Expression expression, Function<Referent, String> word) {
        return ExpressionText.of(expression, new ExpressionText.Naming() {
            @Override
            public String chain(FeatureReference reference) {
                return String.join(
                        ".",
                        reference.chain().stream()
                                .map(each -> each instanceof Expression.Local ? each.toString() : step(each))
                                .toList());
            }

            @Override
            public String name(String prefix, Referent referent) {
                return "'" + (prefix.isEmpty() ? "" : prefix + PREFIX_END) + word.apply(referent) + "'";
            }

            @Override
            public String step(Referent referent) {
                return "'" + word.apply(referent) + "'";
            }
        });
    }

    /** @param locals the parameters of the enclosing bodies, whose names are not ids */
    private record ByIds(Function<String, ElementId> idOf, UnaryOperator<NumberLiteral> numberOf, Set<String> locals)
            implements Expression.Rewriter {
        @Override
        public Expression feature(FeatureReference reference) {
            String first = ((Name) reference.chain().getFirst()).last();
            if (!locals.contains(first)) {
                return new FeatureReference(ids(reference.chain()), reference.span());
            }
            FeatureReference local = new FeatureReference(List.of(new Expression.Local(first)), reference.span());
            List<Referent> steps =
                    reference.chain().subList(1, reference.chain().size());
            return steps.isEmpty() ? local : new Expression.Access(local, ids(steps), reference.span());
        }

        @Override
        public Expression unit(FeatureReference reference) {
            String name = ((Name) reference.last()).last();
            int bar = name.indexOf(PREFIX_END);
            return new UnitReference(
                    bar < 0 ? "" : name.substring(0, bar), idOf.apply(name.substring(bar + 1)), reference.span());
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
            return new ByIds(idOf, numberOf, all);
        }

        @Override
        public NumberLiteral number(NumberLiteral literal) {
            return numberOf.apply(literal);
        }

        private List<Referent> ids(List<Referent> names) {
            if (names.size() == 1) {
                return List.of(id(names.getFirst()));
            }
            return names.stream().<Referent>map(this::id).toList();
        }

        private ElementId id(Referent name) {
            return idOf.apply(((Name) name).last());
        }
    }
}
