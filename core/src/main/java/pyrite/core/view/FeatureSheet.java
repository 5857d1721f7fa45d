package pyrite.core.view;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.expression.Expression;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.Type;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Inheritance;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.notation.NotationWriter;

/**
 * The features of one element as a page shows them: attributes with values, parts, equations, and all other members;
 * own and inherited ones, each with its origin.
 */
public record FeatureSheet(
        List<Attribute> attributes, List<Part> parts, List<Equation> equations, List<Member> members) {

    /**
     * The kind of an attribute's value: fixed by a formula, an initial value, determined by an equation, or, for a
     * parameter, given by its user.
     */
    public enum Role {
        FIXED,
        INITIAL,
        OPEN,
        PARAMETER;

        /** Whether a value stands with the attribute itself. */
        public boolean hasValue() {
            return this == FIXED || this == INITIAL;
        }
    }

    /**
     * An attribute.
     *
     * @param from the owner it is inherited from; null for an own attribute
     * @param valueFrom the owner of its value, if that is neither this element nor {@code from}
     * @param text the value as written; empty if there is none
     * @param computed the value of a formula in {@code unit}; null for a literal number, for values that are no
     *     numbers, and for varying ones
     * @param result the value of a formula that is not a number; null if it is a number, a literal, or varies
     */
    public record Attribute(
            Element feature,
            String name,
            String type,
            Role role,
            String text,
            @Nullable Double computed,
            DisplayUnit unit,
            @Nullable String result,
            @Nullable Element from,
            @Nullable Element valueFrom) {}

    /** A part with its type, if it has one. */
    public record Part(
            Element feature,
            String name,
            @Nullable Element type,
            String multiplicity,
            @Nullable Element from) {}

    /**
     * An asserted constraint with its documentation.
     *
     * @param known the constant names in it with their values here
     */
    public record Equation(
            Element constraint,
            String name,
            String text,
            String documentation,
            List<Known> known,
            @Nullable Element from) {}

    /** A name in an equation with its value in {@code unit}. */
    public record Known(String name, double value, DisplayUnit unit) {}

    /** Any other member, by its declaration: steps, ports, connections, definitions. */
    public record Member(
            Element element, String declaration, @Nullable Element from) {}

    public static FeatureSheet of(Model model, Element holder) {
        return new Builder(model, holder).build();
    }

    private static final class Builder {
        private final Model model;
        private final Inheritance inheritance;
        private final Element holder;
        private final Flattening flattening;
        private final @Nullable Instance instance;

        Builder(Model model, Element holder) {
            this.model = model;
            this.inheritance = model.inheritance();
            this.holder = holder;
            this.flattening = Flattening.asNeeded(model);
            this.instance = instance();
        }

        /** Values are computed where the element can stand alone; an open multiplicity, for instance, prevents that. */
        private @Nullable Instance instance() {
            try {
                return flattening.root(holder);
            } catch (ModelFault _) {
                return null;
            }
        }

        FeatureSheet build() {
            List<Attribute> attributes = new ArrayList<>();
            List<Part> parts = new ArrayList<>();
            List<Equation> equations = new ArrayList<>();
            for (Element feature : inDefinitionOrder()) {
                switch (feature.kind()) {
                    case ATTRIBUTE, REFERENCE -> attributes.add(attribute(feature));
                    case PART ->
                        parts.add(new Part(
                                feature,
                                name(feature),
                                type(feature).orElse(null),
                                inheritance.multiplicity(feature).toString(),
                                from(feature)));
                    case ASSERTED_CONSTRAINT, REQUIRED_CONSTRAINT ->
                        equation(feature).ifPresent(equations::add);
                    default -> {}
                }
            }
            return new FeatureSheet(attributes, parts, equations, members());
        }

        /**
         * Inherited features first, then what the element owns itself, in order; without what stands on the page
         * already.
         */
        private List<Member> members() {
            List<Element> all = new ArrayList<>(inheritance.features(holder).stream()
                    .filter(feature -> from(feature) != null)
                    .toList());
            all.addAll(model.children(holder.id()));
            return all.stream()
                    .filter(member -> !member.kind().hasOwnSection()
                            && !member.kind().standsInHead()
                            && member.kind().family() != ElementKind.Family.ANNOTATION)
                    .map(member -> new Member(member, NotationWriter.head(model, member), from(member)))
                    .toList();
        }

        /**
         * Inherited features first, in the order of their definition; one that redefines stands where the redefined
         * stood.
         */
        private List<Element> inDefinitionOrder() {
            Map<Element, Integer> places = new HashMap<>();
            inheritance.generals(holder).reversed().stream()
                    .flatMap(general -> model.children(general.id()).stream())
                    .forEach(member -> places.putIfAbsent(member, places.size()));
            return inheritance.features(holder).stream()
                    .sorted(Comparator.comparingInt(feature ->
                            places.getOrDefault(inheritance.redefined(feature).getLast(), places.size())))
                    .toList();
        }

        private Attribute attribute(Element feature) {
            FeatureValue value = inheritance.value(feature).orElse(null);
            Element valueOwner = inheritance
                    .owning(feature, Property.VALUE)
                    .map(Element::owner)
                    .map(model::get)
                    .orElse(null);
            Element from = from(feature);
            Role open = feature.get(Property.DIRECTION).isPresent() ? Role.PARAMETER : Role.OPEN;
            Role role = value == null ? open : value.kind().isInitial() ? Role.INITIAL : Role.FIXED;
            String text = value == null ? "" : NotationWriter.expression(model, value.expression(), holder.id());
            Element elsewhere = valueOwner == null || valueOwner.id().equals(holder.id()) || valueOwner.equals(from)
                    ? null
                    : valueOwner;
            return new Attribute(
                    feature,
                    name(feature),
                    type(feature).map(this::name).orElse(""),
                    role,
                    text,
                    value == null ? null : computed(feature, value),
                    new DisplayUnits(model).of(feature),
                    value == null ? null : result(value),
                    from,
                    elsewhere);
        }

        private @Nullable Double computed(Element feature, FeatureValue value) {
            if (isPlain(value.expression())
                    || instance == null
                    || !(model.environment().typeOf(feature.id()) instanceof Type.Number)) {
                return null;
            }
            try {
                return flattening
                        .constant(value.expression(), instance)
                        .map(si -> new DisplayUnits(model).of(feature).unit().fromSi(si))
                        .orElse(null);
            } catch (FaultException | ModelFault _) {
                return null;
            }
        }

        private @Nullable String result(FeatureValue value) {
            if (isPlain(value.expression()) || instance == null) {
                return null;
            }
            try {
                return flattening.constantText(value.expression(), instance).orElse(null);
            } catch (FaultException | ModelFault _) {
                return null;
            }
        }

        /** A number, perhaps with sign and unit, is its own result, and so is a word. */
        private boolean isPlain(Expression expression) {
            return switch (expression) {
                case Expression.FeatureReference reference ->
                    reference.last() instanceof ElementId id && model.get(id).kind() == ElementKind.ENUMERATION;
                case Expression.NumberLiteral _, Expression.BooleanLiteral _, Expression.StringLiteral _ -> true;
                case Expression.Quantity quantity -> isPlain(quantity.magnitude());
                case Expression.Unary unary -> isPlain(unary.operand());
                default -> false;
            };
        }

        private Optional<Equation> equation(Element constraint) {
            return inheritance
                    .owning(constraint, Property.RESULT)
                    .map(owner -> new Equation(
                            constraint,
                            name(constraint),
                            NotationWriter.expression(
                                    model, owner.get(Property.RESULT).orElseThrow(), owner.id()),
                            inheritance.documentation(constraint),
                            known(owner.get(Property.RESULT).orElseThrow(), owner.id()),
                            from(constraint)));
        }

        private List<Known> known(Expression equation, ElementId scope) {
            Set<Known> known = new LinkedHashSet<>();
            collectKnown(equation, scope, known);
            return List.copyOf(known);
        }

        private void collectKnown(Expression expression, ElementId scope, Set<Known> known) {
            if (expression instanceof Expression.FeatureReference reference
                    && reference.last() instanceof ElementId id
                    && instance != null) {
                try {
                    DisplayUnit unit = new DisplayUnits(model).of(model.get(id));
                    flattening
                            .constant(reference, instance)
                            .ifPresent(si -> known.add(new Known(
                                    NotationWriter.expression(model, reference, scope),
                                    unit.unit().fromSi(si),
                                    unit)));
                } catch (FaultException | ModelFault _) {
                    // What cannot be computed here, such as a condition or one of many, is left out.
                }
                return;
            }
            expression.parts().forEach(part -> collectKnown(part, scope, known));
        }

        private Optional<Element> type(Element feature) {
            return inheritance.generals(feature).stream()
                    .filter(e -> e.kind().isDefinition())
                    .findFirst();
        }

        private @Nullable Element from(Element feature) {
            return holder.id().equals(feature.owner()) || feature.owner() == null ? null : model.get(feature.owner());
        }

        private String name(Element element) {
            boolean isNameless = element.kind() == ElementKind.REQUIRED_CONSTRAINT
                    && model.names().effectiveName(element) == null;
            return isNameless ? "" : model.names().nameOrKind(element);
        }
    }
}
