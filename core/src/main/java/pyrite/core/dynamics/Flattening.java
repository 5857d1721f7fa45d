package pyrite.core.dynamics;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.Binary;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.ModelFunction;
import pyrite.core.expression.ObservationFunction;
import pyrite.core.expression.Operator;
import pyrite.core.expression.Referent;
import pyrite.core.expression.Span;
import pyrite.core.expression.Type;
import pyrite.core.expression.TypeCheck;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * Flattens the part tree of a usage into variables and equations. One instance serves one run: it first builds the
 * {@link #root}, then the {@link #system}, and can lower further expressions (those of requirements) over the same
 * variables.
 */
public final class Flattening {
    private final Model model;
    private final RunControl control;
    private final Budget budget;
    private final InstanceBuilder builder;
    private final Lowering lowering;
    private final List<HeldAttribute> constants = new ArrayList<>();

    public Flattening(Model model) {
        this(model, RunControl.NONE);
    }

    /** @param control can end the flattening, which then throws a {@link RunFailure} */
    public Flattening(Model model, RunControl control) {
        this(model, control, Budget.ofRun(), true);
    }

    private Flattening(Model model, RunControl control, Budget budget, boolean isWhole) {
        this.model = model;
        this.control = control;
        this.budget = budget;
        this.builder = new InstanceBuilder(model, control, budget, isWhole);
        this.lowering = new Lowering(model, builder, budget);
    }

    /**
     * For results that take no run: parts are built only as far as something looks into them, and there is less time. A
     * {@link #system} cannot be made of it.
     */
    public static Flattening asNeeded(Model model) {
        return new Flattening(model, RunControl.NONE, Budget.ofPage(), false);
    }

    /** Whether something was given up because it would take too much. */
    public boolean isOverBudget() {
        return budget.isExceeded();
    }

    /**
     * The instance tree of a usage or definition.
     *
     * @throws ModelFault if it cannot be built, for instance because a multiplicity is open
     */
    public Instance root(Element usage) {
        return builder.build(usage, Lowering.nameOf(model.names(), usage), null, Map.of());
    }

    /**
     * The instance tree of what runs. References to it from outside of it, as in a requirement, lead to it.
     *
     * @throws ModelFault if it cannot be built
     */
    public Instance running(Element usage) {
        Instance running = root(usage);
        lowering.targets().runs(running);
        return running;
    }

    /** An instance of a requirement or case in which some features are instances that exist already: its subject. */
    public Instance root(Element usage, Map<ElementId, Instance> links) {
        return builder.build(usage, Lowering.nameOf(model.names(), usage), null, links);
    }

    /** The elements read since the last call: what a result computed meanwhile rests on. */
    public Set<ElementId> drainRead() {
        return builder.drainRead();
    }

    /** An instance of a usage inside another instance, for instance of a constraint in its requirement. */
    public Instance inside(Element usage, Instance around) {
        return builder.build(usage, around.path(), around, Map.of());
    }

    public void noteRead(Element element) {
        builder.noteRead(element);
    }

    /** Notes that an element was read, but nothing from which it inherits. */
    public void noteReadAlone(Element element) {
        builder.noteReadAlone(element);
    }

    public Term term(Expression expression, Instance scope) {
        return lowering.term(expression, scope);
    }

    /** What an expression comes to if nothing in it varies, in the coherent SI unit. */
    public Optional<Double> constant(Expression expression, Instance scope) {
        return lowering.term(expression, scope) instanceof Term.Constant(double value)
                ? Optional.of(value)
                : Optional.empty();
    }

    /**
     * What an expression that is no number comes to if nothing in it varies: true or false, a text, or an enumeration's
     * value by its name.
     */
    public Optional<String> constantText(Expression expression, Instance scope) {
        Type type = TypeCheck.check(expression, model.environment()).type();
        if (type instanceof Type.Truth) {
            return lowering.condition(expression, scope) instanceof Condition.Fixed(boolean holds)
                    ? Optional.of(Boolean.toString(holds))
                    : Optional.empty();
        }
        return type instanceof Type.Text || type instanceof Type.Enumerated
                ? Optional.of(
                        switch (lowering.collections().symbol(expression, scope)) {
                            case ElementId id -> model.environment().nameOf((Referent) id);
                            case Object other -> other.toString();
                        })
                : Optional.empty();
    }

    /** What is read at single instants, such as what is assigned. */
    public Term momentary(Expression expression, Instance scope) {
        return lowering.momentarily(() -> lowering.term(expression, scope));
    }

    /**
     * A condition that is asked for at single instants, such as a guard. One on what changes continuously is watched
     * all the same, so that it changes at the very instant at which others that say the same do.
     */
    public Condition momentaryCondition(Expression expression, Instance scope) {
        Condition condition = lowering.momentarily(() -> lowering.condition(expression, scope));
        BitSet used = new BitSet();
        condition.variables(used::set);
        boolean isHeld = used.stream()
                .allMatch(index -> Objects.requireNonNull(lowering.variables().get(index)).held);
        if (isHeld) {
            return condition;
        }
        if (!lowering.behaviors().isEmpty()) {
            return condition;
        }
        return lowering.condition(expression, scope);
    }

    /** The values drawn in what was lowered since the last call. */
    public List<Draw> takeDraws() {
        return lowering.behaviors().take();
    }

    /** Whether anything is drawn at random. */
    public boolean isRandom() {
        return lowering.behaviors().isRandom();
    }

    /** The values that are drawn once, before a run begins. */
    public List<Draw> drawsAtStart() {
        return List.copyOf(lowering.behaviors().atStart());
    }

    /** What an expression with several values comes to, each of them a number. */
    public List<Term> several(Expression expression, Instance scope) {
        return lowering.momentarily(() -> lowering.collections().values(expression, scope).stream()
                .map(value -> lowering.termOf(value, expression))
                .toList());
    }

    /** An instance of a definition that is no part of the system: what its features are given. */
    public Instance sample(Element definition, Instance scope) {
        return builder.call(definition, scope.path());
    }

    /** All instances built so far. */
    public List<Instance> built() {
        return List.copyOf(builder.built());
    }

    /** What stands for a feature in an instance: as many as there are. */
    public List<Instance> in(Instance instance, Element feature) {
        return instance.slot(feature.id())
                .map(slot -> switch (slot) {
                    case Instance.Slot.Parts(List<Instance> parts) -> parts;
                    case Instance.Slot.Later later -> later.instances();
                    case Instance.Slot.Alias(FeatureReference reference, Instance scope) -> instances(reference, scope);
                    default -> List.<Instance>of();
                })
                .orElse(List.of());
    }

    /** Says that something that happens assigns what a way leads to. */
    public void assigned(List<ElementId> chain, Instance scope) {
        attributes(chain, scope).forEach(attribute -> {
            if (attribute.term != null && !attribute.held) {
                throw new IllegalStateException("what is assigned is said before anything is lowered");
            }
            attribute.held = true;
        });
    }

    private List<FlatAttribute> attributes(List<ElementId> chain, Instance scope) {
        return lowering.targets().of(new FeatureReference(List.copyOf(chain), Span.NONE), scope).stream()
                .filter(FlatAttribute.class::isInstance)
                .map(FlatAttribute.class::cast)
                .toList();
    }

    /** The attributes that a way leads to, which are assigned. */
    public List<HeldAttribute> held(List<ElementId> chain, Instance scope) {
        return attributes(chain, scope).stream().map(this::held).toList();
    }

    /** The attributes of an instance that hold from one event to the next, without those of its parts. */
    public List<HeldAttribute> held(Instance instance) {
        // Lowering a value may build what it reaches, whose attributes come to the quantities meanwhile.
        List<FlatAttribute> attributes = builder.quantities().stream()
                .filter(quantity -> quantity.owner == instance && quantity.held)
                .toList();
        return attributes.stream().map(this::held).toList();
    }

    private HeldAttribute held(FlatAttribute attribute) {
        int variable = ((Term.Variable) lowering.term(attribute)).index();
        lowering.behaviors().take();
        Term start = attribute.value == null
                ? null
                : momentaryNumber(attribute.value.expression(), attribute.owner, attribute.truth);
        List<Draw> draws = lowering.behaviors().take();
        Set<ElementId> features = new LinkedHashSet<>();
        model.inheritance().redefined(attribute.feature).forEach(each -> features.add(each.id()));
        return new HeldAttribute(
                attribute.feature,
                features,
                attribute.path,
                variable,
                attribute.truth,
                start,
                attribute.isFixed(),
                draws);
    }

    /** A number, or 1 and 0 for what is true and false. */
    public Term momentaryNumber(Expression expression, Instance scope, boolean isTruth) {
        return isTruth
                ? lowering.momentarily(() -> Terms.choice(lowering.condition(expression, scope), Terms.ONE, Terms.ZERO))
                : momentary(expression, scope);
    }

    /** Counts how often a step or state is started and ended. */
    public Counted counted(Instance instance) {
        return counts(instance, false);
    }

    /** Counts how much of a pool is held, and how many wait for it. */
    public Counted pooled(Instance instance) {
        return counts(instance, true);
    }

    private Counted counts(Instance instance, boolean isOfPool) {
        Instance.Counts counts = lowering.behaviors().counts(instance, isOfPool);
        return new Counted(counts.first(), counts.second());
    }

    /** The indices of what is counted: started and ended, or held and waiting. */
    public record Counted(int first, int second) {}

    public Condition condition(Expression expression, Instance scope) {
        return lowering.condition(expression, scope);
    }

    /**
     * The expression a reference stands for where it leads to an attribute with a fixed value, and where to read it.
     */
    public Optional<Defined> definition(FeatureReference reference, Instance scope) {
        List<Object> targets = lowering.targets().of(reference, scope);
        return switch (targets.size() == 1 ? targets.getFirst() : null) {
            case FlatAttribute q
            when q.isFixed() ->
                Optional.of(new Defined(Objects.requireNonNull(q.value).expression(), q.owner));
            case Instance.Slot.Alias alias -> Optional.of(new Defined(alias.expression(), alias.scope()));
            case null, default -> Optional.empty();
        };
    }

    /** An expression and the instance its names are read in. */
    public record Defined(Expression expression, Instance scope) {}

    /**
     * What a call of a calculation or constraint that somebody defined comes to, not worked out yet; nothing if it
     * calls something else.
     */
    public Optional<Defined> opened(Expression.Invocation call, Instance scope) {
        return model.environment().function(call.function()).orElse(null) instanceof ModelFunction.Defined function
                ? Optional.of(
                        lowering.calls().opened(function, (ElementId) call.function(), call.arguments(), scope, call))
                : Optional.empty();
    }

    /**
     * A constraint on one of several values.
     *
     * @param of the path of the value; empty if it has none
     */
    public record Claim(String of, Defined claim) {}

    /** What a body with one parameter says of each value of an expression. */
    public List<Claim> claims(Expression receiver, Expression.Body body, Instance scope) {
        return lowering.collections().claims(receiver, body, scope);
    }

    /** The instances a reference leads to. */
    public List<Instance> instances(FeatureReference reference, Instance scope) {
        return lowering.targets().of(reference, scope).stream()
                .filter(Instance.class::isInstance)
                .map(Instance.class::cast)
                .toList();
    }

    /**
     * The variables and equations of everything built so far.
     *
     * @throws ModelFault if a constraint is no equation or an expression cannot be computed
     */
    public FlatSystem system() {
        List<Equation> equations = new ArrayList<>();
        for (int i = 0; i < builder.built().size(); i++) {
            Instance instance = builder.built().get(i);
            control.requireGoingOn();
            List.copyOf(instance.constraints()).forEach(constraint -> constraint(instance, constraint, equations));
            instance.bindings().forEach(binding -> binding(instance, binding, equations));
        }
        for (int i = 0; i < builder.quantities().size(); i++) {
            FlatAttribute quantity = builder.quantities().get(i);
            if (quantity.isFixed()
                    && !quantity.held
                    && !InstanceBuilder.isWithinBehavior(quantity.owner)
                    && !quantity.truth
                    && isNumber(quantity)
                    && lowering.collections().isOne(quantity)) {
                lowering.term(quantity);
            }
        }
        equations.addAll(lowering.definitions());
        Map<Integer, Integer> rates = rates();
        keepConstant(equations, rates);
        lowering.freeze();
        return new FlatSystem(variables(rates), equations, rates, lowering.relations(), lowering.relationLabels());
    }

    /** What no equation mentions, and nothing assigns, stays as it begins. */
    private void keepConstant(List<Equation> equations, Map<Integer, Integer> rates) {
        BitSet mentioned = new BitSet();
        equations.forEach(equation -> equation.residual().variables(mentioned::set));
        equations.forEach(equation -> equation.lost().keySet().forEach(mentioned::set));
        rates.forEach((state, rate) -> {
            mentioned.set(state);
            mentioned.set(rate);
        });
        List.copyOf(lowering.variables().entrySet()).forEach(entry -> {
            FlatAttribute quantity = entry.getValue();
            if (!mentioned.get(entry.getKey()) && !quantity.held) {
                quantity.held = true;
                constants.add(held(quantity));
            }
        });
    }

    /** What nothing determines or assigns although it is read where something happens. */
    public List<HeldAttribute> constants() {
        return List.copyOf(constants);
    }

    private boolean isNumber(FlatAttribute quantity) {
        return model.environment().typeOf(quantity.feature.id()) instanceof Type.Number;
    }

    private void constraint(Instance instance, Element constraint, List<Equation> equations) {
        String label = instance.pathOf(Lowering.nameOf(model.names(), constraint));
        Element owner = model.inheritance().owning(constraint, Property.RESULT).orElse(constraint);
        Expression result = owner.get(Property.RESULT).orElse(null);
        if (result == null) {
            return;
        }
        Instance scope = builder.build(constraint, instance.path(), instance, Map.of());
        builder.noteRead(owner);
        lowering.labelled(label);
        lowering.takeLost();
        try {
            conjuncts(result).forEach(part -> equations.add(equation(part, scope, owner, label)));
        } catch (FaultException e) {
            throw new ModelFault(
                    label + ": " + e.getMessage(),
                    List.of(owner.id()),
                    Property.RESULT,
                    e.fault().span());
        }
    }

    private static List<Expression> conjuncts(Expression expression) {
        if (expression instanceof Binary b && (b.operator() == Operator.AND || b.operator() == Operator.AND_BOTH)) {
            List<Expression> parts = new ArrayList<>(conjuncts(b.left()));
            parts.addAll(conjuncts(b.right()));
            return parts;
        }
        return List.of(expression);
    }

    private Equation equation(Expression part, Instance scope, Element source, String label) {
        if (!(part instanceof Binary b) || b.operator() != Operator.EQUAL) {
            throw new FaultException(
                    part.span(),
                    "an asserted constraint of something that runs is an equation with '==';"
                            + " what is to be checked belongs in a requirement");
        }
        Term left = lowering.term(b.left(), scope);
        Term right = lowering.term(b.right(), scope);
        boolean isDecided = left instanceof Term.Constant && right instanceof Term.Constant;
        return isDecided
                ? new Equation(left, right, source.id(), label, lowering.takeLost(), given(part, scope), size(b, scope))
                : new Equation(left, right, source.id(), label, lowering.takeLost());
    }

    /** The largest size of what an equation of given values is made of, among that of its own dimension. */
    private double size(Binary equation, Instance scope) {
        Type type = typeOf(equation.left());
        return Math.max(size(equation.left(), type, scope), size(equation.right(), type, scope));
    }

    private double size(Expression expression, Type type, Instance scope) {
        double own = type.equals(typeOf(expression))
                        && lowering.term(expression, scope) instanceof Term.Constant(double value)
                ? Math.abs(value)
                : 0;
        return expression instanceof Binary(var _, Expression left, Expression right, var _)
                ? Math.max(own, Math.max(size(left, type, scope), size(right, type, scope)))
                : own;
    }

    private Type typeOf(Expression expression) {
        return TypeCheck.check(expression, model.environment()).type();
    }

    /** The values that an expression takes, by their paths. */
    private List<String> given(Expression part, Instance scope) {
        Set<String> given = new LinkedHashSet<>();
        part.walk(each -> {
            if (each instanceof FeatureReference reference) {
                lowering.targets().of(reference, scope).stream()
                        .filter(FlatAttribute.class::isInstance)
                        .map(FlatAttribute.class::cast)
                        .filter(quantity -> quantity.term instanceof Term.Constant)
                        .forEach(quantity -> given.add(quantity.path + " = " + shown(quantity)));
            }
        });
        return List.copyOf(given);
    }

    private static String shown(FlatAttribute quantity) {
        double si = ((Term.Constant) Objects.requireNonNull(quantity.term)).value();
        double shown = quantity.unit.unit().fromSi(si);
        String number = Double.isFinite(shown)
                ? new BigDecimal(shown)
                        .round(new MathContext(6))
                        .stripTrailingZeros()
                        .toString()
                : Double.toString(shown);
        return quantity.unit.symbol().isEmpty() ? number : number + " " + quantity.unit.symbol();
    }

    /** The paths of all attributes, in the order in which they are declared. */
    public List<String> declared() {
        return builder.quantities().stream().map(quantity -> quantity.path).toList();
    }

    private void binding(Instance instance, Element binding, List<Equation> equations) {
        builder.noteRead(binding);
        if (isOfWhatFlows(binding)) {
            // Like a connection, it says what is joined; what flows there is not computed.
            return;
        }
        try {
            equations.add(new Equation(
                    end(binding, Property.LEFT, instance),
                    end(binding, Property.RIGHT, instance),
                    binding.id(),
                    instance.pathOf("bind"),
                    Map.of()));
        } catch (FaultException e) {
            throw new ModelFault(instance.pathOf("bind") + ": " + e.getMessage(), List.of(binding.id()));
        }
    }

    private boolean isOfWhatFlows(Element binding) {
        return Stream.of(Property.LEFT, Property.RIGHT)
                .map(property -> binding.get(property).orElseThrow().target())
                .map(end -> model.get(end).kind())
                .allMatch(kind -> switch (kind) {
                    case PORT, ITEM, ACTION -> true;
                    default -> false;
                });
    }

    private Term end(Element binding, Property<Reference> property, Instance scope) {
        List<ElementId> chain = binding.get(property).orElseThrow().chain();
        return lowering.term(new FeatureReference(List.copyOf(chain), Span.NONE), scope);
    }

    private Map<Integer, Integer> rates() {
        Map<Integer, Integer> rates = new TreeMap<>();
        lowering.variables().forEach((index, quantity) -> {
            if (quantity.rate >= 0 && index != quantity.rate) {
                rates.put(index, quantity.rate);
            }
        });
        return rates;
    }

    private List<Variable> variables(Map<Integer, Integer> rates) {
        Set<Integer> derivatives = new HashSet<>(rates.values());
        List<Variable> variables = new ArrayList<>();
        for (int i = 0; i < lowering.variableCount(); i++) {
            FlatAttribute quantity = Objects.requireNonNull(lowering.variables().get(i));
            if (quantity.held) {
                variables.add(new Variable(
                        quantity.path,
                        quantity.feature.id(),
                        quantity.dimension,
                        quantity.unit,
                        quantity.counts ? Variable.Role.COUNT : Variable.Role.HELD,
                        Double.NaN));
            } else if (derivatives.contains(i)) {
                var dimension = quantity.dimension.per(ObservationFunction.TIME);
                variables.add(new Variable(
                        "der(" + quantity.path + ")",
                        quantity.feature.id(),
                        dimension,
                        DisplayUnit.coherent(dimension),
                        Variable.Role.RATE,
                        0));
            } else {
                boolean state = rates.containsKey(i);
                variables.add(new Variable(
                        quantity.path,
                        quantity.feature.id(),
                        quantity.dimension,
                        quantity.unit,
                        state ? Variable.Role.STATE : Variable.Role.ALGEBRAIC,
                        state ? start(quantity) : 0));
            }
        }
        return variables;
    }

    private double start(FlatAttribute quantity) {
        FeatureValue value = quantity.value;
        if (value == null) {
            throw new ModelFault(
                    "'" + quantity.path + "' changes in time (its derivative is used) but has no start value; "
                            + "give it one with :=",
                    List.of(quantity.feature.id()));
        }
        try {
            if (lowering.term(value.expression(), quantity.owner) instanceof Term.Constant(double start)) {
                return start;
            }
        } catch (FaultException e) {
            throw new ModelFault(
                    quantity.path + ": " + e.getMessage(),
                    List.of(quantity.feature.id()),
                    Property.VALUE,
                    e.fault().span());
        }
        throw new ModelFault(
                "the start value of '" + quantity.path + "' depends on what changes; it must be known before "
                        + "the run",
                List.of(quantity.feature.id()),
                Property.VALUE,
                value.expression().span());
    }
}
