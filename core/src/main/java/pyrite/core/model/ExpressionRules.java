package pyrite.core.model;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Type;
import pyrite.core.expression.TypeCheck;

/** The rules about the expressions of an element: their types, dimensions and what they lead to. */
final class ExpressionRules {
    private final Model model;
    private final ReferenceRules references;
    private final ValueCycles circles;
    private final ProblemNames names;
    private final List<Problem> problems;

    /** @param problems what is wrong is added to it */
    ExpressionRules(Model model, ReferenceRules references, List<Problem> problems) {
        this.model = model;
        this.references = references;
        this.circles = new ValueCycles(model);
        this.names = new ProblemNames(model);
        this.problems = problems;
    }

    void fit(Element element) {
        dimensionStays(element);
        FeatureValue value = element.get(Property.VALUE).orElse(null);
        if (value != null) {
            valueFits(element, value.expression());
            valueIsNoCircle(element, value);
            valueIsNotBoundAgain(element, value);
        }
        Expression result = element.get(Property.RESULT).orElse(null);
        if (result != null) {
            resultFits(element, result);
        }
        if (element.kind().family() == ElementKind.Family.BEHAVIOR) {
            behaviourFits(element);
        }
    }

    /** Conditions are true or false, waiting times are times, what is assigned fits (SysML 2.0, 8.3.17 and 8.3.18). */
    private void behaviourFits(Element element) {
        isTrueOrFalse(element, Property.GUARD, "a guard");
        isTrueOrFalse(element, Property.UNTIL, "the condition behind 'until'");
        if (element.kind() != ElementKind.FOR) {
            isTrueOrFalse(element, Property.CONDITION, "the condition");
        }
        String trigger = element.get(Property.TRIGGER).orElse("");
        if (trigger.equals("when")) {
            isTrueOrFalse(element, Property.CONTENT, "what is waited for behind 'when'");
        } else if (trigger.equals("after") || trigger.equals("at")) {
            isTime(element, trigger);
        }
        if (element.kind() == ElementKind.ASSIGNMENT) {
            assignmentFits(element);
        }
    }

    private void isTrueOrFalse(Element element, Property<Expression> property, String what) {
        Expression expression = element.get(property).orElse(null);
        if (expression == null) {
            return;
        }
        Type type = check(element, property, expression);
        if (!(type instanceof Type.Truth) && !(type instanceof Type.Unknown)) {
            problems.add(new Problem(
                    element.id(), property, expression.span(), what + " comes to true or false, but this is " + type));
        }
    }

    private void isTime(Element element, String trigger) {
        Expression expression = element.get(Property.CONTENT).orElse(null);
        if (expression == null) {
            return;
        }
        Type time = model.environment().typeOf(LibraryNames.id(LibraryNames.TIME));
        Type type = check(element, Property.CONTENT, expression);
        if (type instanceof Type.Number && !type.equals(time) || type instanceof Type.Truth) {
            problems.add(new Problem(
                    element.id(),
                    Property.CONTENT,
                    expression.span(),
                    "behind '" + trigger + "' stands a time, such as 3 [s], but this is " + type));
        }
    }

    private void assignmentFits(Element element) {
        Expression value = element.get(Property.CONTENT).orElse(null);
        Type declared = element.get(Property.TARGET)
                .map(reference -> model.environment().typeOf(reference.target()))
                .orElse(Type.UNKNOWN);
        if (value == null) {
            return;
        }
        Type type = check(element, Property.CONTENT, value);
        boolean known = !(type instanceof Type.Unknown) && !(declared instanceof Type.Unknown);
        boolean things = type instanceof Type.Thing && declared instanceof Type.Thing;
        if (known && !things && !type.equals(declared)) {
            problems.add(new Problem(
                    element.id(),
                    Property.CONTENT,
                    value.span(),
                    "what is assigned to is " + declared + ", but this is " + type));
        }
    }

    /** A fixed value does not rest on itself. Told once for each circle, at the first of its elements by name. */
    private void valueIsNoCircle(Element element, FeatureValue value) {
        if (!value.kind().isInitial()) {
            circles.reportedAt(element)
                    .forEach(circle -> problems.add(new Problem(
                            element.id(),
                            Property.VALUE,
                            value.expression().span(),
                            "these values depend on each other in a circle: " + way(circle))));
        }
    }

    /** Only a default is given again below (KerML 1.0, validateFeatureValueOverriding). */
    private void valueIsNotBoundAgain(Element element, FeatureValue value) {
        for (Element redefined : model.inheritance().redefined(element)) {
            FeatureValue bound = redefined.get(Property.VALUE).orElse(null);
            if (!redefined.equals(element) && bound != null && !bound.kind().isDefault()) {
                problems.add(new Problem(
                        element.id(),
                        Property.VALUE,
                        value.expression().span(),
                        "the value of " + "'" + model.names().qualifiedName(redefined) + "' is fixed with '"
                                + bound.kind().sign() + "', so none is given here; to allow it, write '"
                                + bound.kind().asDefault().sign() + "' there"));
                return;
            }
        }
    }

    /** From the first of a circle back to it; of a long one its beginning and its end. */
    private String way(List<Element> circle) {
        List<String> names = Stream.concat(circle.stream(), Stream.of(circle.getFirst()))
                .map(this.names::plain)
                .toList();
        return String.join(
                " → ",
                names.size() <= 12
                        ? names
                        : Stream.of(
                                        names.subList(0, 6),
                                        List.of("… " + (names.size() - 11) + " more …"),
                                        names.subList(names.size() - 5, names.size()))
                                .flatMap(List::stream)
                                .toList());
    }

    private void valueFits(Element element, Expression value) {
        Type type = check(element, Property.VALUE, value);
        Type declared = model.environment().typeOf(element.id());
        boolean reference = type instanceof Type.Thing
                || declared instanceof Type.Thing
                || type instanceof Type.Unknown
                || declared instanceof Type.Unknown;
        if (!reference && !type.equals(declared)) {
            problems.add(new Problem(
                    element.id(),
                    Property.VALUE,
                    value.span(),
                    names.of(element) + " is " + declared + ", but its value is " + type));
        }
        if (type instanceof Type.Thing && declared instanceof Type.Number) {
            problems.add(new Problem(
                    element.id(),
                    Property.VALUE,
                    value.span(),
                    names.of(element) + " is " + declared + ", but its value is " + type));
        }
    }

    /** What takes the place of a quantity is a quantity of the same kind. */
    private void dimensionStays(Element element) {
        Type own = model.environment().typeOf(element.id());
        for (Reference redefined : element.references(Property.REDEFINES)) {
            Type old = model.environment().typeOf(redefined.target());
            if (own instanceof Type.Number && old instanceof Type.Number && !own.equals(old)) {
                problems.add(Problem.at(
                        element, Property.REDEFINES, names.of(element) + " is " + own + ", but redefines " + old));
            }
        }
    }

    private void resultFits(Element element, Expression result) {
        Type type = check(element, Property.RESULT, result);
        boolean constraint = element.kind().keyword().endsWith("constraint");
        if (constraint && !(type instanceof Type.Truth) && !(type instanceof Type.Unknown)) {
            problems.add(new Problem(
                    element.id(),
                    Property.RESULT,
                    result.span(),
                    "a constraint comes to true or false, but this is " + type));
        }
    }

    private Type check(Element element, Property<?> property, Expression expression) {
        chainsHold(element, property, expression);
        TypeCheck.Result result = TypeCheck.check(expression, model.environment());
        result.faults()
                .forEach(fault -> problems.add(new Problem(element.id(), property, fault.span(), fault.message())));
        return result.type();
    }

    /** In {@code a.b}, b is a feature of a. It may cease to be when a's type changes. */
    private void chainsHold(Element element, Property<?> property, Expression expression) {
        expression.walk(part -> {
            if (part instanceof Expression.Construction construction) {
                constructionFits(element, property, construction);
            }
            if (part instanceof FeatureReference reference) {
                references
                        .unreachable(reference.chain(), element)
                        .ifPresent(message ->
                                problems.add(new Problem(element.id(), property, reference.span(), message)));
                for (int i = 1; i < reference.chain().size(); i++) {
                    chainStepHolds(element, property, reference, i);
                }
            }
        });
    }

    /** What {@code new} is given are features of what it makes (KerML 8.3.4.8, constructor expressions). */
    private void constructionFits(Element element, Property<?> property, Expression.Construction construction) {
        if (construction.type() instanceof ElementId id) {
            fault(model.get(id), construction.arguments())
                    .ifPresent(
                            message -> problems.add(new Problem(element.id(), property, construction.span(), message)));
        }
    }

    private Optional<String> fault(Element type, List<Expression> given) {
        if (!type.kind().isDefinition()) {
            return Optional.of("'new' makes an instance of a definition, but " + names.of(type) + " is "
                    + type.kind().titleWithArticle());
        }
        List<String> features = model.inheritance().features(type).stream()
                .filter(feature -> feature.kind().isFeature() && !Names.isPrivate(feature))
                .map(model.names()::effectiveName)
                .toList();
        if (given.size() > features.size()) {
            return Optional.of(names.of(type) + " has " + features.size()
                    + (features.size() == 1 ? " feature" : " features") + ", but is given " + given.size() + " values");
        }
        return given.stream()
                .filter(Expression.NamedArgument.class::isInstance)
                .map(argument -> ((Expression.NamedArgument) argument).parameter())
                .filter(name -> !features.contains(name))
                .findFirst()
                .map(name -> names.of(type) + " has no feature '" + name + "'");
    }

    private void chainStepHolds(Element element, Property<?> property, FeatureReference reference, int step) {
        if (reference.chain().get(step - 1) instanceof ElementId from
                && reference.chain().get(step) instanceof ElementId to
                && model.inheritance().effective(model.get(from), to).isEmpty()) {
            problems.add(new Problem(
                    element.id(),
                    property,
                    reference.span(),
                    names.of(model.get(from)) + " has no " + names.of(model.get(to))));
        }
    }
}
