package pyrite.core.dynamics;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.CollectionFunction;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.BooleanLiteral;
import pyrite.core.expression.Expression.Conditional;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.Expression.Invocation;
import pyrite.core.expression.Expression.NumberLiteral;
import pyrite.core.expression.Expression.Unary;
import pyrite.core.expression.ExpressionText;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.MathFunction;
import pyrite.core.expression.ModelFunction;
import pyrite.core.expression.ObservationFunction;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Unit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.ModelEnvironment;
import pyrite.core.model.Names;
import pyrite.core.model.Property;

/**
 * Translates expressions, read in an instance, to terms and conditions over the system's variables. Fixed values are
 * substituted; a fixed value that varies in time becomes a variable with an equation of its own.
 */
final class Lowering {
    private static final ElementId TIME = LibraryNames.id(LibraryNames.TIME);
    /** So many values may each rest on the next: more than anybody writes, few enough for recursion. */
    private static final int FARTHEST = 1000;

    private final Model model;
    private final ModelEnvironment environment;
    private final InstanceBuilder builder;
    private final Budget budget;
    private final ReferenceLookup targets;
    private final CollectionLowering collections;
    private final CallLowering calls;
    private final TotalLowering totals;
    private final BinaryConditionLowering twoSides;
    private final BehaviorLowering behaviors;
    private final Deque<FlatAttribute> circle = new ArrayDeque<>();
    private final List<Condition.Relation> relations = new ArrayList<>();
    private final List<String> relationLabels = new ArrayList<>();
    private final Map<Integer, FlatAttribute> variables = new LinkedHashMap<>();
    private final List<Equation> definitions = new ArrayList<>();
    private Map<Integer, String> lost = new LinkedHashMap<>();
    private int count;
    private String label = "";
    private boolean frozen;
    /** Whether conditions are asked for only at single instants, so that nobody watches when they change. */
    private boolean momentary;

    Lowering(Model model, InstanceBuilder builder, Budget budget) {
        this.budget = budget;
        this.model = model;
        this.environment = model.environment();
        this.builder = builder;
        this.targets = new ReferenceLookup(model, builder, this);
        this.collections = new CollectionLowering(model, this);
        this.calls = new CallLowering(model, builder, this);
        this.totals = new TotalLowering(model, this);
        this.twoSides = new BinaryConditionLowering(this, environment);
        this.behaviors = new BehaviorLowering(this, environment);
    }

    ReferenceLookup targets() {
        return targets;
    }

    CallLowering calls() {
        return calls;
    }

    CollectionLowering collections() {
        return collections;
    }

    BehaviorLowering behaviors() {
        return behaviors;
    }

    boolean isFrozen() {
        return frozen;
    }

    boolean isMomentary() {
        return momentary;
    }

    String label() {
        return label;
    }

    /** A variable that counts something or keeps what was drawn. */
    int count(Element of, Instance owner, String name, boolean isShown) {
        return count(of, owner, name, isShown, null);
    }

    private int count(Element of, Instance owner, String name, boolean isShown, @Nullable Element like) {
        FlatAttribute counted = builder.counter(of, owner, name, like);
        counted.counts = !isShown;
        return ((Term.Variable) variable(counted)).index();
    }

    /** A variable for how much of a pool is held, in the unit of its capacity. */
    int used(Instance pool) {
        Element capacity = model.inheritance()
                .effective(pool.usage(), LibraryNames.id(LibraryNames.CAPACITY))
                .orElse(null);
        return count(pool.usage(), pool, "used", true, capacity);
    }

    /** Lowers what is asked for at single instants only: its conditions are not watched. */
    <T> T momentarily(Supplier<T> work) {
        boolean outer = momentary;
        momentary = true;
        try {
            return work.get();
        } finally {
            momentary = outer;
        }
    }

    List<Condition.Relation> relations() {
        return relations;
    }

    List<String> relationLabels() {
        return relationLabels;
    }

    /** The quantities that became variables or derivatives, by index. */
    Map<Integer, FlatAttribute> variables() {
        return variables;
    }

    /** Equations that come from fixed values which vary. */
    List<Equation> definitions() {
        return definitions;
    }

    int variableCount() {
        return count;
    }

    /** From here on there are no new variables: what is lowered later is expressed by those there are. */
    void freeze() {
        frozen = true;
    }

    /**
     * Notes calls or values that take work, because a few lines of calls within calls may ask for more of it than there
     * is time.
     *
     * @throws FaultException if it is too much
     */
    void spend(int work, Expression at) {
        if (!budget.allowsSteps(work)) {
            throw new FaultException(
                    at.span(),
                    "working this out takes more calls and values than there is time for; "
                            + "calculations that call themselves twice, and ranges within ranges, grow that fast");
        }
    }

    /** Says what following messages about switching are about. */
    void labelled(String text) {
        label = text;
    }

    /** The variables that a factor of zero has removed since the last call, each with the text of that factor. */
    Map<Integer, String> takeLost() {
        Map<Integer, String> taken = lost;
        lost = new LinkedHashMap<>();
        return taken;
    }

    Term term(Expression expression, Instance scope) {
        return switch (expression) {
            case NumberLiteral n -> Terms.constant(n.value());
            case FeatureReference r -> referred(r, scope);
            case Expression.Quantity q -> quantity(q, scope);
            case Unary u ->
                u.operator() == Operator.NEGATE ? Terms.negate(term(u.operand(), scope)) : term(u.operand(), scope);
            case Binary b -> arithmetic(b, scope);
            case Conditional c -> conditional(c, scope);
            case Invocation i -> invocation(i.function(), i.arguments(), scope, i);
            case Expression.ArrowInvocation a ->
                invocation(a.function(), a.asCall().arguments(), scope, a);
            case Expression.NamedArgument n -> term(n.value(), scope);
            case Expression.Body b -> term(b.result(), scope);
            case Expression.Classification c
            when c.relation() == Expression.Classification.Relation.AS -> term(c.operand(), scope);
            case Expression.Access _, Expression.Item _, Expression.Sequence _, Expression.Filtered _ ->
                termOf(targets.single(collections.values(expression, scope), expression), expression);
            case Expression.UnitReference _ ->
                quantity(
                        new Expression.Quantity(
                                new NumberLiteral("1", expression.span()), expression, expression.span()),
                        scope);
            case BooleanLiteral _,
                    Expression.StringLiteral _,
                    Expression.Classification _,
                    Expression.Construction _,
                    Expression.Extent _,
                    Expression.MetadataAccess _,
                    Expression.NullLiteral _,
                    Expression.Unbounded _ -> throw new FaultException(expression.span(), "a number is needed here");
        };
    }

    private Term quantity(Expression.Quantity quantity, Instance scope) {
        Unit unit = environment
                .unit(quantity.unit())
                .orElseThrow(() -> new FaultException(quantity.unit().span(), "this is no unit"));
        return Terms.plus(
                Terms.times(term(quantity.magnitude(), scope), Terms.constant(unit.factor())),
                Terms.constant(unit.offset()));
    }

    /** Where it is settled from the start which side counts, the other one is not part of the system. */
    private Term conditional(Conditional c, Instance scope) {
        Condition condition = condition(c.condition(), scope);
        if (condition instanceof Condition.Fixed(boolean holds)) {
            return term(holds ? c.whenTrue() : c.whenFalse(), scope);
        }
        return Terms.choice(condition, term(c.whenTrue(), scope), term(c.whenFalse(), scope));
    }

    private Term arithmetic(Binary b, Instance scope) {
        Term left = term(b.left(), scope);
        Term right = term(b.right(), scope);
        return switch (b.operator()) {
            case ADD -> Terms.plus(left, right);
            case SUBTRACT -> Terms.minus(left, right);
            case MULTIPLY -> {
                noteLost(b.left(), left, right);
                noteLost(b.right(), right, left);
                yield Terms.times(left, right);
            }
            case DIVIDE -> Terms.over(left, right);
            case POWER -> Terms.power(left, right);
            case MODULO -> rest(left, right, b);
            default -> throw new FaultException(b.span(), "a number is needed here, not a condition");
        };
    }

    /** Of known values what is left of a division, with the sign of what is divided (ISO/IEC 9899, 6.5.5). */
    private static Term rest(Term left, Term right, Expression at) {
        if (left instanceof Term.Constant(double dividend) && right instanceof Term.Constant(double divisor)) {
            return Terms.constant(dividend % divisor);
        }
        throw new FaultException(
                at.span(), "a rest of a division of what varies jumps, which a run cannot follow; write it with 'if'");
    }

    private void noteLost(Expression factor, Term value, Term other) {
        if (value.isConstant(0)) {
            other.variables(index ->
                    lost.putIfAbsent(index, ExpressionText.of(factor, ExpressionText.byName(environment::nameOf))));
        }
    }

    private Term invocation(Referent called, List<Expression> arguments, Instance scope, Expression at) {
        return switch (functionOf(called, at).with(arguments.size())) {
            case ModelFunction.Mathematical(MathFunction f) -> mathematical(f, arguments, scope);
            case ModelFunction.Derivative() -> derivative((FeatureReference) arguments.getFirst(), scope, at);
            case ModelFunction.OverCollection(CollectionFunction f) -> collections.term(f, arguments, scope, at);
            case ModelFunction.Random(var distribution) -> behaviors.drawn(distribution, arguments, scope, at);
            case ModelFunction.OfPerformance(var f) -> behaviors.term(f, arguments, scope);
            case ModelFunction.Total() -> totals.term((FeatureReference) arguments.getFirst(), scope);
            case ModelFunction.Defined defined -> calls.term(defined, (ElementId) called, arguments, scope, at);
            case ModelFunction.Observing(var observation) -> throw wholeRun(observation, at);
        };
    }

    private static FaultException wholeRun(ObservationFunction observation, Expression at) {
        return new FaultException(
                at.span(),
                observation.functionName()
                        + " looks at a whole run; it can stand in a requirement, not in an equation, a value or another observation");
    }

    private ModelFunction functionOf(Referent called, Expression at) {
        return environment
                .function(called)
                .orElseThrow(
                        () -> new FaultException(at.span(), "'" + environment.nameOf(called) + "' cannot be computed"));
    }

    /** The smallest or largest of several values. */
    Term extreme(MathFunction function, List<Object> values, Expression at) {
        if (values.isEmpty()) {
            throw new FaultException(
                    at.span(), "of no values there is no " + (function == MathFunction.MIN ? "smallest" : "largest"));
        }
        return values.stream()
                .map(value -> termOf(value, at))
                .reduce((a, b) -> switching(function, a, b))
                .orElseThrow();
    }

    private Term mathematical(MathFunction function, List<Expression> arguments, Instance scope) {
        Term first = term(arguments.getFirst(), scope);
        if (function.jumps() && !(first instanceof Term.Constant)) {
            throw new FaultException(
                    arguments.getFirst().span(),
                    function.functionName() + " of what varies jumps, which a run cannot follow; write it with 'if'");
        }
        if (!function.switches()) {
            return Terms.call(function, first);
        }
        return switching(function, first, function == MathFunction.ABS ? Terms.ZERO : term(arguments.get(1), scope));
    }

    private Term switching(MathFunction function, Term first, Term second) {
        if (first instanceof Term.Constant(double x) && second instanceof Term.Constant(double y)) {
            return Terms.constant(function.apply(x, y));
        }
        Condition larger = relation(first, second, false, true);
        return switch (function) {
            case ABS -> Terms.choice(larger, first, Terms.negate(first));
            case MAX -> Terms.choice(larger, first, second);
            default -> Terms.choice(larger, second, first);
        };
    }

    private Term derivative(FeatureReference reference, Instance scope, Expression call) {
        FlatAttribute quantity =
                targets.single(targets.of(reference, scope), reference) instanceof FlatAttribute q ? q : null;
        if (quantity == null) {
            throw new FaultException(call.span(), "der takes an attribute that changes");
        }
        if (term(quantity) instanceof Term.Constant) {
            return Terms.ZERO;
        }
        if (quantity.held) {
            throw new FaultException(
                    call.span(),
                    "'" + quantity.path
                            + "' is assigned by an action and keeps its value until then, so its derivative "
                            + "cannot be used");
        }
        if (quantity.isFixed()) {
            throw new FaultException(
                    call.span(),
                    "'" + quantity.path + "' is given by a formula (=), so its derivative "
                            + "cannot be used; give it a start value (:=) and an equation for its derivative");
        }
        if (quantity.rate < 0) {
            quantity.rate = count++;
            variables.put(quantity.rate, quantity);
        }
        return new Term.Variable(quantity.rate);
    }

    Condition condition(Expression expression, Instance scope) {
        return switch (expression) {
            case BooleanLiteral t -> t.value() ? Terms.TRUE : Terms.FALSE;
            case FeatureReference r -> conditionOf(targets.single(targets.of(r, scope), r), r);
            case Unary u when u.operator() == Operator.NOT -> Terms.not(condition(u.operand(), scope));
            case Binary b when b.operator().family() == Operator.Family.LOGIC -> twoSides.logic(b, scope);
            case Binary b when b.operator().family() == Operator.Family.COMPARISON -> twoSides.comparison(b, scope);
            case Conditional c -> {
                Condition test = condition(c.condition(), scope);
                yield Terms.either(
                        Terms.both(test, condition(c.whenTrue(), scope)),
                        Terms.both(Terms.not(test), condition(c.whenFalse(), scope)));
            }
            case Invocation i -> test(i.function(), i.arguments(), scope, i);
            case Expression.ArrowInvocation a -> test(a.function(), a.asCall().arguments(), scope, a);
            case Expression.Classification c -> collections.isOfType(c, scope) ? Terms.TRUE : Terms.FALSE;
            case Expression.Access _, Expression.Item _, Expression.Filtered _ ->
                conditionOf(targets.single(collections.values(expression, scope), expression), expression);
            default -> throw new FaultException(expression.span(), "a condition is needed here");
        };
    }

    private Condition test(Referent called, List<Expression> arguments, Instance scope, Expression at) {
        return switch (functionOf(called, at)) {
            case ModelFunction.OverCollection(CollectionFunction f) -> collections.condition(f, arguments, scope, at);
            case ModelFunction.Defined defined -> calls.condition(defined, (ElementId) called, arguments, scope, at);
            case ModelFunction.Observing(var observation) -> throw wholeRun(observation, at);
            case ModelFunction.OfPerformance(var f) -> behaviors.condition(f, arguments, scope);
            case ModelFunction.Random(var _) -> behaviors.chance(arguments, scope, at);
            default -> throw new FaultException(at.span(), "a condition is needed here");
        };
    }

    /** The condition {@code left >= right}, or {@code >} if strict. */
    Condition relation(Term left, Term right, boolean strict, boolean kink) {
        if (Terms.minus(left, right) instanceof Term.Constant(double margin)) {
            return (strict ? margin > 0 : margin >= 0) ? Terms.TRUE : Terms.FALSE;
        }
        if (momentary) {
            return new Condition.Relation(Condition.UNWATCHED, left, right, strict, kink);
        }
        Condition.Relation relation = new Condition.Relation(relations.size(), left, right, strict, kink);
        relations.add(relation);
        relationLabels.add(label);
        return relation;
    }

    private Term referred(FeatureReference reference, Instance scope) {
        if (reference.last() instanceof ElementId id) {
            if (id.equals(TIME)) {
                return new Term.Time();
            }
            Unit unit = environment.unit(id).orElse(null);
            if (unit != null) {
                return Terms.constant(unit.toSi(1));
            }
        }
        return termOf(targets.single(targets.of(reference, scope), reference), reference);
    }

    Term termOf(Object target, Expression at) {
        return switch (target) {
            case Term term -> term;
            case FlatAttribute quantity when !quantity.truth -> term(quantity);
            case Instance.Slot.Alias alias -> term(alias.expression(), alias.scope());
            default -> throw new FaultException(at.span(), "a number is needed here");
        };
    }

    Condition conditionOf(Object target, Expression at) {
        return switch (target) {
            case Condition condition -> condition;
            case FlatAttribute quantity when quantity.truth -> condition(quantity, at);
            case Instance.Slot.Alias alias -> condition(alias.expression(), alias.scope());
            default -> throw new FaultException(at.span(), "a condition is needed here");
        };
    }

    /** What a quantity comes to: a constant, or a variable. */
    Term term(FlatAttribute quantity) {
        if (quantity.term == null) {
            quantity.term = quantity.isFixed() && !quantity.held ? fixed(quantity) : variable(quantity);
        }
        return quantity.term;
    }

    private Term fixed(FlatAttribute quantity) {
        Expression expression = Objects.requireNonNull(quantity.value).expression();
        return within(quantity, () -> {
            Term term = term(expression, quantity.owner);
            if (term instanceof Term.Constant || frozen) {
                return term;
            }
            Term variable = variable(quantity);
            definitions.add(
                    new Equation(variable, term, valueOwner(quantity).id(), quantity.path + " = …", takeLost()));
            return variable;
        });
    }

    private Term variable(FlatAttribute quantity) {
        if (frozen) {
            throw new ModelFault(
                    "'" + quantity.path
                            + (quantity.owner.outermost().usage().kind() == ElementKind.PART
                                    ? "' changes in time or is given no value, and is not part of what runs"
                                    : "' is given no value and no equation determines it"),
                    List.of(quantity.feature.id()));
        }
        int index = count++;
        variables.put(index, quantity);
        return new Term.Variable(index);
    }

    private Condition condition(FlatAttribute quantity, Expression at) {
        if (quantity.held) {
            return relation(term(quantity), Terms.constant(0.5), false, false);
        }
        if (quantity.condition == null) {
            if (!quantity.isFixed()) {
                throw new FaultException(
                        at.span(),
                        "'" + quantity.path + "' is not given a value; write '= true', " + "'= false' or a condition");
            }
            Expression expression = Objects.requireNonNull(quantity.value).expression();
            quantity.condition = within(quantity, () -> condition(expression, quantity.owner));
        }
        return quantity.condition;
    }

    private <T> T within(FlatAttribute quantity, Supplier<T> work) {
        if (quantity.inProgress) {
            String path = Stream.concat(circle.reversed().stream().dropWhile(q -> q != quantity), Stream.of(quantity))
                    .map(q -> q.path)
                    .collect(Collectors.joining(" → "));
            throw new ModelFault(
                    "these values depend on each other in a circle: " + path,
                    circle.stream().map(q -> q.feature.id()).distinct().toList());
        }
        if (circle.size() >= FARTHEST) {
            throw new ModelFault(
                    "'" + quantity.path + "' is reached over more than " + FARTHEST
                            + " values that each rest on the next, beginning with '" + circle.peekLast().path
                            + "'; give one of them a number",
                    List.of(quantity.feature.id()));
        }
        quantity.inProgress = true;
        circle.push(quantity);
        String outer = label;
        Map<Integer, String> outerLost = takeLost();
        boolean outerMomentary = momentary;
        momentary = false;
        label = quantity.path;
        try {
            return work.get();
        } catch (FaultException e) {
            throw new ModelFault(
                    quantity.path + ": " + e.getMessage(),
                    List.of(valueOwner(quantity).id()),
                    Property.VALUE,
                    e.fault().span());
        } finally {
            label = outer;
            lost = outerLost;
            momentary = outerMomentary;
            circle.pop();
            quantity.inProgress = false;
        }
    }

    private Element valueOwner(FlatAttribute quantity) {
        return model.inheritance().owning(quantity.feature, Property.VALUE).orElse(quantity.feature);
    }

    static String nameOf(Names names, Element element) {
        return Objects.requireNonNullElse(
                names.effectiveName(element), element.kind().title());
    }
}
