package pyrite.core.model;

import java.util.List;
import java.util.Map;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Body;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Span;

/**
 * Lets what an element refers to lead elsewhere: in its references, its value and its expressions.
 *
 * @param to by what is referred to now
 */
public record Redirection(Map<ElementId, ElementId> to) {

    /** An element with its references redirected. */
    public Element of(Element element) {
        Element redirected = element;
        for (Map.Entry<Property<?>, Object> entry : element.properties().entrySet()) {
            redirected = set(redirected, entry.getKey(), value(entry.getValue()));
        }
        return redirected;
    }

    @SuppressWarnings("unchecked")
    private static <T> Element set(Element element, Property<T> property, Object value) {
        return element.with(property, (T) value);
    }

    private Object value(Object value) {
        return switch (value) {
            case Reference reference ->
                new Reference(reference.chain().stream()
                        .map(id -> to.getOrDefault(id, id))
                        .toList());
            case List<?> list -> list.stream().map(this::value).toList();
            case FeatureValue given ->
                new FeatureValue(given.kind(), given.expression().rewrite(new Rewriting()));
            case Expression expression -> expression.rewrite(new Rewriting());
            default -> value;
        };
    }

    private Referent redirected(Referent referent) {
        return referent instanceof ElementId id ? to.getOrDefault(id, id) : referent;
    }

    private final class Rewriting implements Expression.Rewriter {
        @Override
        public Expression feature(FeatureReference reference) {
            return new FeatureReference(
                    reference.chain().stream().map(Redirection.this::redirected).toList(), reference.span());
        }

        @Override
        public Expression unit(FeatureReference reference) {
            return reference;
        }

        @Override
        public Referent function(Referent function, Span span) {
            return redirected(function);
        }

        @Override
        public Referent type(Referent type, Span span) {
            return redirected(type);
        }

        @Override
        public List<Referent> steps(Expression source, List<Referent> chain, Span span) {
            return chain.stream().map(Redirection.this::redirected).toList();
        }

        @Override
        public Expression.Rewriter inside(Body body) {
            return this;
        }
    }
}
