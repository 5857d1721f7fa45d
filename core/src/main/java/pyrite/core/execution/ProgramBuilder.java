package pyrite.core.execution;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.StateGraph;
import pyrite.core.behavior.StepGraph;
import pyrite.core.dynamics.FlatSystem;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Flattening.Counted;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Expression.FeatureReference;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.Span;
import pyrite.core.expression.Type;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.structure.ConnectorEnds;

/**
 * Prepares what the parts of a system perform and exhibit. First everything is built and what is assigned is noted;
 * then the expressions are lowered, because what is assigned is read otherwise.
 */
public final class ProgramBuilder {
    private static final ElementId DURATION = LibraryNames.id("Execution::TimedAction::duration");
    private static final ElementId INSIDE = LibraryNames.id("Execution::TimedAction::inside");
    private static final ElementId CLAIM = LibraryNames.id("Execution::Claim");
    private static final ElementId DRAW = LibraryNames.id("Execution::Draw");
    private static final ElementId FILL = LibraryNames.id("Execution::Fill");

    private final Model model;
    private final Flattening flattening;
    private final Layouts layouts;
    private final List<Runnable> later = new ArrayList<>();
    private final List<Subject> subjects = new ArrayList<>();
    private final Map<Instance, Integer> subjectOf = new IdentityHashMap<>();
    private final Map<Instance, StepNode> steps = new IdentityHashMap<>();
    private final Map<Instance, StateNode> states = new IdentityHashMap<>();
    private final Map<Instance, Program.PoolNode> pools = new IdentityHashMap<>();
    private final Map<Instance, Map<ElementId, List<StepNode.Endpoint>>> flows = new IdentityHashMap<>();
    private final Map<String, HeldAttribute> assigned = new LinkedHashMap<>();
    private final Map<Instance, StepNode.Trigger> triggerOf = new IdentityHashMap<>();
    /** The parameters that something flows to, by the identity of their step. */
    private final Map<Instance, Set<ElementId>> fed = new IdentityHashMap<>();

    private final Routes routes = new Routes();
    private int stepCount;

    private ProgramBuilder(Model model, Flattening flattening) {
        this.model = model;
        this.flattening = flattening;
        this.layouts = new Layouts(model, flattening);
    }

    /**
     * Prepares what runs, together with its system of equations: what is assigned is no unknown of it.
     *
     * @param flattening one in which what runs was built
     * @throws ModelFault if something cannot be run as it is written
     */
    public static Program build(Model model, Flattening flattening) {
        return new ProgramBuilder(model, flattening).build();
    }

    private Program build() {
        List<Program.Top> tops = new ArrayList<>();
        List<Instance> parts = flattening.built();
        for (Instance part : parts) {
            if (isPart(part)) {
                performed(part, tops);
            }
        }
        parts.forEach(this::joined);
        later.forEach(Runnable::run);
        parts.stream().filter(this::isPool).forEach(this::pool);
        FlatSystem flat = flattening.system();
        flattening.constants().forEach(constant -> {
            requireValue(constant);
            assigned.putIfAbsent(constant.path(), constant);
        });
        return new Program(
                tops,
                List.copyOf(assigned.values()),
                flattening.drawsAtStart(),
                pools,
                routes,
                List.copyOf(subjects),
                steps,
                List.copyOf(states.values()),
                stepCount,
                (type, general) -> model.inheritance().isA(type, general.id()),
                flattening.isRandom(),
                flat);
    }

    /** What is read where something happens, and neither assigned nor determined, keeps the value it begins with. */
    private static void requireValue(HeldAttribute constant) {
        if (constant.start() == null) {
            throw new ModelFault(
                    "'" + constant.path()
                            + "' is used by what happens, but nothing gives it a value; write '= …', or ':= …' if an action assigns it",
                    List.of(constant.feature().id()));
        }
    }

    private static boolean isPart(Instance instance) {
        return switch (instance.usage().kind()) {
            case PART, PART_DEFINITION, ITEM, REFERENCE, SUBJECT -> true;
            default -> false;
        };
    }

    private void performed(Instance part, List<Program.Top> tops) {
        for (Element feature : model.inheritance().features(part.usage())) {
            boolean isPerformed = feature.kind() == ElementKind.PERFORM || feature.kind() == ElementKind.EXHIBIT;
            if (isPerformed && !model.isLibrary(feature.id())) {
                flattening
                        .in(part, feature)
                        .forEach(instance -> tops.add(new Program.Top(part, step(feature, instance))));
            }
        }
    }

    // Steps

    private StepNode step(Element element, Instance instance) {
        StepNode known = steps.get(instance);
        if (known != null) {
            return known;
        }
        read(element);
        boolean isControl = control(element) != null || isEmpty(element);
        StepNode node = new StepNode(
                stepCount++,
                element,
                instance,
                isControl
                        ? -1
                        : subject(
                                StateGraph.isState(element.kind()) ? Subject.Kind.STATE : Subject.Kind.STEP, instance),
                isControl ? null : flattening.counted(instance));
        steps.put(instance, node);
        parameters(node);
        node.deed = deed(node);
        claims(node);
        later.add(() -> frame(node));
        return node;
    }

    /** What each performance of a step has values of its own for: its attributes, and those of its items. */
    private void frame(StepNode node) {
        node.frame.addAll(flattening.held(node.instance));
        model.inheritance().features(node.element).stream()
                .filter(feature -> feature.kind() == ElementKind.PAYLOAD
                        || feature.kind() == ElementKind.ITEM
                                && !model.inheritance().isA(feature, CLAIM))
                .filter(feature -> !model.isLibrary(feature.id()))
                .flatMap(feature -> flattening.in(node.instance, feature).stream())
                .forEach(item -> node.frame.addAll(flattening.held(item)));
    }

    /** {@code entry;} stands where nothing is done. */
    private boolean isEmpty(Element element) {
        return element.kind() == ElementKind.ACTION
                && !element.get(Property.ROLE).orElse("").isEmpty()
                && model.names().effectiveName(element) == null
                && StepGraph.of(model, element).steps().isEmpty();
    }

    /** A behaviour is read with all that is written in it, and in what it inherits from. */
    private void read(Element behavior) {
        flattening.noteRead(behavior);
        for (Element general : model.inheritance().generals(behavior)) {
            if (!model.isLibrary(general.id())) {
                model.children(general.id()).stream()
                        .filter(child -> child.kind().family() == ElementKind.Family.BEHAVIOR
                                || child.kind().isFlow()
                                || child.kind() == ElementKind.PAYLOAD)
                        .forEach(flattening::noteReadAlone);
            }
        }
    }

    private int subject(Subject.Kind kind, Instance instance) {
        int parent = -1;
        for (Instance at = instance.around(); at != null && parent < 0; at = at.around()) {
            parent = subjectOf.getOrDefault(at, -1);
        }
        subjects.add(new Subject(kind, instance.path(), instance.usage().id(), parent, false));
        subjectOf.put(instance, subjects.size() - 1);
        return subjects.size() - 1;
    }

    private static Deed.Control.@Nullable Node control(Element element) {
        return switch (element.kind()) {
            case MERGE -> Deed.Control.Node.MERGE;
            case DECIDE -> Deed.Control.Node.DECIDE;
            case FORK -> Deed.Control.Node.FORK;
            case JOIN -> Deed.Control.Node.JOIN;
            default -> null;
        };
    }

    /** What says which form a step has: it, or what it redefines. */
    private Element form(Element element) {
        return model.inheritance().generals(element).stream()
                .filter(each -> switch (each.kind()) {
                    case ACCEPT, SEND, ASSIGNMENT, TERMINATE, IF, WHILE, FOR, STATE, STATE_DEFINITION, EXHIBIT -> true;
                    default -> control(each) != null;
                })
                .findFirst()
                .orElse(element);
    }

    private Deed deed(StepNode node) {
        Element form = form(node.element);
        return switch (form.kind()) {
            case MERGE, DECIDE, FORK, JOIN -> new Deed.Control(Objects.requireNonNull(control(form)));
            case ACCEPT -> accept(node);
            case SEND -> send(node);
            case ASSIGNMENT -> assignment(node);
            case TERMINATE -> terminate(node);
            case IF -> choice(node, form);
            case WHILE -> repeated(node, form);
            case FOR -> forEach(node, form);
            case STATE, STATE_DEFINITION, EXHIBIT -> new Deed.Machine(state(node.element, node.instance, null, node));
            default -> timedOrSteps(node);
        };
    }

    private Deed timedOrSteps(StepNode node) {
        FeatureValue duration = attribute(node, DURATION);
        boolean hasInside = !StepGraph.of(model, node.element).steps().isEmpty();
        if (hasInside && (duration == null || isInsideRun(node))) {
            return new Deed.Steps(net(node.element, node.instance));
        }
        if (duration == null) {
            if (node.subject >= 0) {
                Subject subject = subjects.get(node.subject);
                subjects.set(
                        node.subject,
                        new Subject(subject.kind(), subject.path(), subject.element(), subject.parent(), true));
            }
            return new Deed.Nothing();
        }
        later.add(() -> node.deed = new Deed.Timed(formula(duration.expression(), node.instance)));
        return new Deed.Nothing();
    }

    private @Nullable FeatureValue attribute(StepNode node, ElementId feature) {
        return model.inheritance()
                .effective(node.element, feature)
                .flatMap(model.inheritance()::value)
                .orElse(null);
    }

    private boolean isInsideRun(StepNode node) {
        FeatureValue inside = attribute(node, INSIDE);
        return !(inside != null
                && inside.expression() instanceof Expression.BooleanLiteral(boolean value, var _)
                && !value);
    }

    /** The steps in the body of an element, in its instance. */
    private StepNet net(Element element, Instance instance) {
        StepGraph graph = StepGraph.of(model, element);
        Map<ElementId, Integer> places = new HashMap<>();
        List<StepNode> nodes = new ArrayList<>();
        for (Element step : graph.steps()) {
            List<Instance> instances = flattening.in(instance, step);
            if (instances.isEmpty() || !step.get(Property.ROLE).orElse("").isEmpty()) {
                continue;
            }
            places.put(step.id(), nodes.size());
            nodes.add(instances.size() == 1 ? step(step, instances.getFirst()) : several(step, instances));
        }
        flows(element, instance);
        List<StepNet.Succession> successions = new ArrayList<>();
        List<Integer> begin = new ArrayList<>();
        for (StepGraph.Succession each : graph.successions()) {
            Integer from =
                    each.from().equals(StepGraph.START) ? Integer.valueOf(StepNet.START) : places.get(each.from());
            Integer to = each.to().equals(StepGraph.DONE) ? Integer.valueOf(StepNet.DONE) : places.get(each.to());
            if (from == null || to == null) {
                throw new ModelFault(
                        "'" + instance.path() + "' leads to or from a step that is not in it",
                        List.of(each.carrier().id()));
            }
            int place = successions.size();
            successions.add(new StepNet.Succession(from, to, null, each.isElse()));
            if (from == StepNet.START) {
                begin.add(place);
            }
            Expression guard = each.guard();
            if (guard != null) {
                later.add(() ->
                        successions.set(place, new StepNet.Succession(from, to, question(guard, instance), false)));
            }
        }
        if (!graph.hasStart()) {
            for (ElementId first : graph.first()) {
                Integer place = places.get(first);
                if (place != null && startsAlone(nodes.get(place))) {
                    begin.add(successions.size());
                    successions.add(new StepNet.Succession(StepNet.START, place, null, false));
                }
            }
        }
        return StepNet.of(nodes, successions, begin);
    }

    /** What waits for items only begins whenever they have arrived. */
    private static boolean startsAlone(StepNode node) {
        return node.needs.isEmpty();
    }

    private StepNode several(Element element, List<Instance> instances) {
        List<StepNode> copies =
                instances.stream().map(each -> step(element, each)).toList();
        Instance first = Objects.requireNonNull(instances.getFirst().around());
        StepNode all = new StepNode(stepCount++, element, first, -1, null);
        all.deed = new Deed.Several(copies);
        return all;
    }

    private Deed accept(StepNode node) {
        trigger(node.element, node.instance, part(node.instance));
        later.add(() -> node.deed = new Deed.Accept(Objects.requireNonNull(triggerOf.get(node.instance))));
        return new Deed.Nothing();
    }

    /** The trigger of an accept action or a transition, if it has one, is lowered later. */
    private void trigger(Element element, Instance instance, Instance part) {
        String kind = model.inheritance().nearest(element, Property.TRIGGER).orElse("");
        Expression content =
                model.inheritance().nearest(element, Property.CONTENT).orElse(null);
        switch (kind) {
            case "" -> {}
            case "accept" -> later.add(() -> triggerOf.put(instance, acceptance(element, instance, part)));
            case "when" ->
                later.add(() -> triggerOf.put(
                        instance,
                        new StepNode.Trigger.OfChange(
                                watched(Objects.requireNonNull(content), instance),
                                words(Objects.requireNonNull(content), instance))));
            default ->
                later.add(() -> triggerOf.put(
                        instance,
                        new StepNode.Trigger.OfTime(
                                formula(Objects.requireNonNull(content), instance), kind.equals("at"))));
        }
    }

    private StepNode.Trigger acceptance(Element element, Instance instance, Instance part) {
        Element payload = model.inheritance().features(element).stream()
                .filter(feature -> feature.kind() == ElementKind.PAYLOAD)
                .findFirst()
                .orElse(null);
        Element type = payload == null ? null : typeOf(payload).orElse(null);
        ItemSlot slot = payload == null
                ? ItemSlot.NOTHING
                : new ItemSlot(
                        flattening.in(instance, payload).stream()
                                .flatMap(each -> flattening.held(each).stream())
                                .toList(),
                        false);
        Expression via = model.inheritance().nearest(element, Property.VIA).orElse(null);
        List<Instance> inboxes = via == null ? List.of(part) : ports(via, instance, element);
        String words = (type == null ? "anything" : "'" + name(type) + "'")
                + (via == null ? "" : " via " + inboxes.getFirst().path());
        return new StepNode.Trigger.OfItem(type, slot, inboxes, words);
    }

    private Optional<Element> typeOf(Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(each -> each.kind().isDefinition() && !model.isLibrary(each.id()))
                .findFirst();
    }

    private List<Instance> ports(Expression via, Instance scope, Element at) {
        List<Instance> ports =
                via instanceof FeatureReference reference ? flattening.instances(reference, scope) : List.of();
        if (ports.isEmpty()) {
            throw new ModelFault(
                    "'" + scope.path() + "' says 'via' what is no port of what runs",
                    List.of(at.id()),
                    Property.VIA,
                    via.span());
        }
        return ports;
    }

    private Deed send(StepNode node) {
        later.add(() -> node.deed = sending(node));
        return new Deed.Nothing();
    }

    private Deed sending(StepNode node) {
        Element element = node.element;
        Expression content =
                model.inheritance().nearest(element, Property.CONTENT).orElse(null);
        Expression via = model.inheritance().nearest(element, Property.VIA).orElse(null);
        Expression to = model.inheritance().nearest(element, Property.RECEIVER).orElse(null);
        List<Instance> ports = via == null ? List.of() : ports(via, node.instance, element);
        List<Instance> receivers = to == null
                ? via == null ? List.of(part(node.instance)) : List.of()
                : to instanceof FeatureReference reference ? flattening.instances(reference, node.instance) : List.of();
        if (content == null) {
            throw new ModelFault(
                    "'" + node.path() + "' does not say what it sends; write 'send new Signal()' with an item of yours",
                    List.of(element.id()));
        }
        if (content instanceof FeatureReference reference) {
            List<Instance> things = flattening.instances(reference, node.instance);
            if (!things.isEmpty()) {
                Element usage = things.getFirst().usage();
                return new Deed.Send(
                        layouts.of(typeOf(usage).orElse(usage)), List.of(), things.getFirst(), ports, receivers);
            }
        }
        Layouts.Made made = layouts.made(content, node.instance);
        return made == null
                ? new Deed.Send(Item.Layout.VALUE, List.of(formula(content, node.instance)), null, ports, receivers)
                : new Deed.Send(made.layout(), made.values(), null, ports, receivers);
    }

    private Deed assignment(StepNode node) {
        Reference target = model.inheritance()
                .nearest(node.element, Property.TARGET)
                .orElseThrow(() -> new ModelFault(
                        "'" + node.path() + "' does not say what it assigns to", List.of(node.element.id())));
        flattening.assigned(target.chain(), node.instance);
        later.add(() -> node.deed = assigning(node, target));
        return new Deed.Nothing();
    }

    private Deed assigning(StepNode node, Reference target) {
        List<HeldAttribute> targets = flattening.held(target.chain(), node.instance);
        Expression value = model.inheritance()
                .nearest(node.element, Property.CONTENT)
                .orElseThrow(() -> new ModelFault("'" + node.path() + "' assigns nothing", List.of(node.element.id())));
        if (targets.isEmpty()) {
            throw new ModelFault(
                    "'" + node.path()
                            + "' assigns to what is no number and no condition; other values cannot be assigned in a run yet",
                    List.of(node.element.id()),
                    Property.TARGET,
                    Span.NONE);
        }
        targets.forEach(each -> {
            requireFree(each, node);
            assigned.putIfAbsent(each.path(), each);
        });
        return new Deed.Assign(
                targets, number(value, node.instance, targets.getFirst().isTruth(), node.element));
    }

    private void requireFree(HeldAttribute target, StepNode node) {
        FeatureValue value = model.inheritance().value(target.feature()).orElse(null);
        if (value != null && !value.kind().isInitial()) {
            throw new ModelFault(
                    "'" + target.path() + "' is fixed with '=', so '" + node.path()
                            + "' cannot assign to it; give it its first value with ':='",
                    List.of(target.feature().id(), node.element.id()));
        }
    }

    private Deed terminate(StepNode node) {
        Expression content =
                model.inheritance().nearest(node.element, Property.CONTENT).orElse(null);
        if (content == null) {
            return new Deed.Terminate(null);
        }
        List<Instance> ended = content instanceof FeatureReference reference
                ? flattening.instances(reference, node.instance)
                : List.of();
        if (ended.isEmpty()) {
            throw new ModelFault("'" + node.path() + "' ends what is no step of what runs", List.of(node.element.id()));
        }
        return new Deed.Terminate(ended.getFirst());
    }

    private List<Element> blocks(Element form) {
        return model.children(form.id()).stream()
                .filter(child -> child.kind() == ElementKind.BLOCK || child.kind() == ElementKind.IF)
                .toList();
    }

    /** A block is a step of its own, without a place in the order of others. */
    private StepNode block(Element block, StepNode around) {
        Instance instance = flattening.inside(block, around.instance);
        if (block.kind() == ElementKind.IF) {
            return step(block, instance);
        }
        read(block);
        StepNode node = new StepNode(stepCount++, block, instance, -1, null);
        steps.put(instance, node);
        later.add(() -> frame(node));
        node.deed = new Deed.Steps(net(block, instance));
        return node;
    }

    private StepNode round(Element form, StepNode node) {
        List<Element> blocks = blocks(form);
        if (blocks.isEmpty()) {
            throw new ModelFault("'" + node.path() + "' has nothing to repeat", List.of(form.id()));
        }
        return block(blocks.getFirst(), node);
    }

    private Deed choice(StepNode node, Element form) {
        List<Element> blocks = blocks(form);
        StepNode yes = blocks.isEmpty() ? null : block(blocks.getFirst(), node);
        StepNode no = blocks.size() < 2 ? null : block(blocks.get(1), node);
        Expression condition = required(form, Property.CONDITION, node);
        later.add(() -> node.deed = new Deed.Choose(question(condition, node.instance), yes, no));
        return new Deed.Nothing();
    }

    private Deed repeated(StepNode node, Element form) {
        StepNode round = round(form, node);
        Expression before = form.get(Property.CONDITION).orElse(null);
        Expression until = form.get(Property.UNTIL).orElse(null);
        later.add(() -> node.deed = new Deed.Repeat(
                before == null ? null : question(before, node.instance),
                round,
                until == null ? null : question(until, node.instance)));
        return new Deed.Nothing();
    }

    private Deed forEach(StepNode node, Element form) {
        StepNode round = round(form, node);
        Expression values = required(form, Property.CONDITION, node);
        later.add(() -> {
            HeldAttribute variable = flattening.held(node.instance).stream()
                    .filter(each -> each.feature().kind() == ElementKind.LOOP_VARIABLE)
                    .findFirst()
                    .orElse(null);
            List<Formula> each = flattening.several(values, node.instance).stream()
                    .map(term -> new Formula(term, List.of()))
                    .toList();
            node.deed = new Deed.ForEach(variable, each, round);
        });
        return new Deed.Nothing();
    }

    private Expression required(Element form, Property<Expression> property, StepNode node) {
        return form.get(property)
                .orElseThrow(() -> new ModelFault("'" + node.path() + "' has no condition", List.of(form.id())));
    }

    // What goes in and out

    private void parameters(StepNode node) {
        for (Element feature : model.inheritance().features(node.element)) {
            String direction = feature.get(Property.DIRECTION).orElse("");
            if (direction.isEmpty() || model.isLibrary(feature.id())) {
                continue;
            }
            List<StepNode.Endpoint> endpoints = new ArrayList<>();
            if (direction.equals("in") || direction.equals("inout")) {
                later.add(() -> {
                    if (isFedByFlow(node.instance, feature)) {
                        node.needs.add(parameter(node, feature, endpoints));
                    }
                });
            }
            if (direction.equals("out") || direction.equals("inout")) {
                later.add(() -> {
                    endpoints.addAll(endpoints(node.instance, feature));
                    if (!endpoints.isEmpty()) {
                        node.gives.add(parameter(node, feature, endpoints));
                    }
                });
            }
        }
    }

    private StepNode.Parameter parameter(StepNode node, Element feature, List<StepNode.Endpoint> endpoints) {
        Formula value = model.environment().typeOf(feature.id()) instanceof Type.Thing
                ? null
                : model.inheritance()
                        .value(feature)
                        .filter(given -> !given.kind().isInitial())
                        .map(given -> number(
                                given.expression(),
                                node.instance,
                                model.environment().typeOf(feature.id()) instanceof Type.Truth,
                                feature))
                        .orElse(null);
        return new StepNode.Parameter(feature, slot(node.instance, feature), layout(feature), value, endpoints);
    }

    private ItemSlot slot(Instance instance, Element feature) {
        if (model.environment().typeOf(feature.id()) instanceof Type.Thing) {
            return new ItemSlot(
                    flattening.in(instance, feature).stream()
                            .flatMap(each -> flattening.held(each).stream())
                            .toList(),
                    false);
        }
        List<HeldAttribute> held = feature.kind() == ElementKind.ATTRIBUTE
                ? flattening.held(instance).stream()
                        .filter(each -> each.feature().id().equals(feature.id()))
                        .toList()
                : List.of();
        return new ItemSlot(held, true);
    }

    private Item.Layout layout(Element feature) {
        return typeOf(feature).map(layouts::of).orElse(Item.Layout.VALUE);
    }

    private boolean isFedByFlow(Instance instance, Element feature) {
        Set<ElementId> own = fed.getOrDefault(instance, Set.of());
        return model.inheritance().redefined(feature).stream().anyMatch(each -> own.contains(each.id()));
    }

    private List<StepNode.Endpoint> endpoints(Instance instance, Element feature) {
        Map<ElementId, List<StepNode.Endpoint>> own = flows.getOrDefault(instance, Map.of());
        return model.inheritance().redefined(feature).stream()
                .flatMap(each -> own.getOrDefault(each.id(), List.of()).stream())
                .toList();
    }

    /** The flows between the parameters of steps that stand in the body of an element. */
    private void flows(Element element, Instance instance) {
        for (Element general : model.inheritance().generals(element)) {
            for (Element member : model.children(general.id())) {
                if (member.kind().isFlow() && member.kind() != ElementKind.MESSAGE) {
                    later.addFirst(() -> flow(member, instance));
                }
            }
        }
    }

    private void flow(Element flow, Instance scope) {
        List<Reference> ends = ConnectorEnds.of(model, flow);
        if (ends.size() != 2) {
            return;
        }
        for (Instance from : owners(ends.getFirst(), scope)) {
            for (Instance to : owners(ends.getLast(), scope)) {
                ElementId target = ends.getLast().target();
                flows.computeIfAbsent(from, _ -> new HashMap<>())
                        .computeIfAbsent(ends.getFirst().target(), _ -> new ArrayList<>())
                        .add(new StepNode.Endpoint(to, target));
                fed.computeIfAbsent(to, _ -> new HashSet<>()).add(target);
            }
        }
    }

    /** What has the last feature of a way. */
    private List<Instance> owners(Reference end, Instance scope) {
        List<ElementId> chain = end.chain();
        if (chain.size() == 1) {
            return List.of(scope);
        }
        return flattening.instances(
                new FeatureReference(List.copyOf(chain.subList(0, chain.size() - 1)), Span.NONE), scope);
    }

    // Pools

    private void claims(StepNode node) {
        for (Element feature : model.inheritance().features(node.element)) {
            if (feature.kind() == ElementKind.ITEM
                    && model.inheritance().isA(feature, CLAIM)
                    && !model.isLibrary(feature.id())) {
                flattening.in(node.instance, feature).forEach(claim -> later.add(() -> claim(node, feature, claim)));
            }
        }
    }

    private void claim(StepNode node, Element feature, Instance claim) {
        Element pool = effective(feature, "Execution::Claim::pool");
        List<Instance> pooled = pool == null ? List.of() : flattening.in(claim, pool);
        if (pooled.size() != 1 || !isPool(pooled.getFirst())) {
            throw new ModelFault(
                    "'" + claim.path()
                            + "' does not say which pool it claims; write 'ref part :>> pool = …;' with a part that is a Pool",
                    List.of(feature.id()));
        }
        StepNode.ClaimNode.Use use = model.inheritance().isA(feature, DRAW)
                ? StepNode.ClaimNode.Use.DRAW
                : model.inheritance().isA(feature, FILL) ? StepNode.ClaimNode.Use.FILL : StepNode.ClaimNode.Use.HOLD;
        node.claims.add(new StepNode.ClaimNode(
                pooled.getFirst(),
                valueOf(claim, feature, "Execution::Claim::amount").orElse(Formula.ONE),
                valueOf(claim, feature, "Execution::Claim::priority")
                        .orElse(new Formula(new pyrite.core.dynamics.Term.Constant(0), List.of())),
                use));
        pool(pooled.getFirst());
    }

    private @Nullable Element effective(Element owner, String libraryFeature) {
        return model.inheritance()
                .effective(owner, LibraryNames.id(libraryFeature))
                .orElse(null);
    }

    private Optional<Formula> valueOf(Instance instance, Element owner, String libraryFeature) {
        return Optional.ofNullable(effective(owner, libraryFeature))
                .flatMap(model.inheritance()::value)
                .map(value -> formula(value.expression(), instance));
    }

    private boolean isPool(Instance instance) {
        return isPart(instance) && model.inheritance().isA(instance.usage(), LibraryNames.id(LibraryNames.POOL));
    }

    private void pool(Instance instance) {
        if (!pools.containsKey(instance)) {
            flattening.noteRead(instance.usage());
            pools.put(
                    instance,
                    new Program.PoolNode(
                            instance,
                            subject(Subject.Kind.POOL, instance),
                            flattening.pooled(instance),
                            valueOf(instance, instance.usage(), LibraryNames.CAPACITY)
                                    .orElse(Formula.ONE),
                            valueOf(instance, instance.usage(), "Execution::Pool::initially")
                                    .orElse(null)));
        }
    }

    // States

    private StateNode state(Element element, Instance instance, @Nullable StateNode around, @Nullable StepNode step) {
        StateGraph graph = StateGraph.of(model, element);
        read(element);
        int subject = step != null ? step.subject : subject(Subject.Kind.STATE, instance);
        Counted counted = flattening.counted(instance);
        StateNode node = new StateNode(element, instance, subject, counted, around, graph.isParallel());
        states.put(instance, node);
        Map<ElementId, StateNode> inner = new HashMap<>();
        for (Element state : graph.states()) {
            flattening.in(instance, state).stream().findFirst().ifPresent(each -> {
                StateNode within = state(state, each, node, null);
                node.states.add(within);
                inner.put(state.id(), within);
            });
        }
        node.entry = action(graph, "entry", instance);
        node.during = action(graph, "do", instance);
        node.exit = action(graph, "exit", instance);
        for (StateGraph.Beginning beginning : graph.beginnings()) {
            StateNode target = inner.get(beginning.state());
            if (target != null) {
                later.add(() -> node.beginnings.add(new StateNode.Beginning(
                        target, beginning.guard() == null ? null : question(beginning.guard(), instance))));
            }
        }
        graph.transitions().forEach(transition -> way(transition, node, instance, inner));
        return node;
    }

    private void way(
            StateGraph.Transition transition, StateNode around, Instance scope, Map<ElementId, StateNode> inner) {
        StateNode from = inner.getOrDefault(transition.from(), anywhere(transition.carrier(), Property.SOURCE, scope));
        boolean ends = transition.to().equals(StateGraph.DONE);
        StateNode to = ends
                ? null
                : inner.getOrDefault(transition.to(), anywhere(transition.carrier(), Property.TARGET, scope));
        if (from == null || !ends && to == null) {
            throw new ModelFault(
                    "a transition of '" + around.instance.path() + "' leads to or from what is no state in it",
                    List.of(transition.carrier().id()));
        }
        Element carrier = transition.carrier();
        read(carrier);
        Instance instance =
                flattening.in(scope, carrier).stream().findFirst().orElseGet(() -> flattening.inside(carrier, scope));
        StepNode effect = model.children(carrier.id()).stream()
                .filter(child -> child.get(Property.ROLE).orElse("").equals("do"))
                .findFirst()
                .map(action -> step(action, first(instance, action)))
                .orElse(null);
        trigger(carrier, instance, part(scope));
        Expression guard = model.inheritance().nearest(carrier, Property.GUARD).orElse(null);
        later.add(() -> from.ways.add(new StateNode.Way(
                carrier, triggerOf.get(instance), guard == null ? null : question(guard, instance), effect, to)));
    }

    /** A state that a transition names by a way of several steps. */
    private @Nullable StateNode anywhere(Element carrier, Property<Reference> property, Instance scope) {
        return model.inheritance()
                .nearest(carrier, property)
                .map(Reference::chain)
                .filter(chain -> chain.size() > 1)
                .map(chain -> flattening.instances(new FeatureReference(List.copyOf(chain), Span.NONE), scope))
                .filter(found -> !found.isEmpty())
                .map(found -> states.get(found.getFirst()))
                .orElse(null);
    }

    private @Nullable StepNode action(StateGraph graph, String role, Instance instance) {
        Element action = graph.action(role);
        return action == null ? null : step(action, first(instance, action));
    }

    private Instance first(Instance around, Element usage) {
        return flattening.in(around, usage).stream().findFirst().orElseGet(() -> flattening.inside(usage, around));
    }

    // Connections

    /** The ports that the connections and bindings of a part join, and the flows between what its parts perform. */
    private void joined(Instance part) {
        for (Element general : model.inheritance().generals(part.usage())) {
            for (Element member : model.children(general.id())) {
                if (member.kind() == ElementKind.BINDING) {
                    flattening.noteReadAlone(member);
                    ports(member, part, null);
                } else if (member.kind().isFlow() && member.kind() != ElementKind.MESSAGE) {
                    flattening.noteReadAlone(member);
                    later.addFirst(() -> flow(member, part));
                    flowBetweenPorts(member, part);
                }
            }
        }
        model.inheritance().features(part.usage()).stream()
                .filter(feature -> feature.kind() == ElementKind.CONNECTION || feature.kind() == ElementKind.INTERFACE)
                .forEach(connector -> connection(connector, part));
    }

    private void connection(Element connector, Instance part) {
        flattening.noteRead(connector);
        model.children(connector.id()).forEach(flattening::noteReadAlone);
        if (model.inheritance().isA(connector, LibraryNames.id(LibraryNames.CHANNEL))) {
            Instance instance = flattening.inside(connector, part);
            later.add(() -> ports(
                    connector,
                    part,
                    new Routes.ChannelNode(
                            instance,
                            valueOf(instance, connector, "Execution::Channel::rate")
                                    .orElse(null),
                            valueOf(instance, connector, "Execution::Channel::latency")
                                    .orElse(null))));
        } else {
            ports(connector, part, null);
        }
    }

    private void ports(Element connector, Instance part, Routes.@Nullable ChannelNode channel) {
        List<List<Instance>> ends = ConnectorEnds.of(model, connector).stream()
                .map(end -> instances(end.chain(), part))
                .toList();
        for (int i = 0; i < ends.size(); i++) {
            for (int j = i + 1; j < ends.size(); j++) {
                for (Instance one : ends.get(i)) {
                    ends.get(j).forEach(other -> routes.join(one, other, channel));
                }
            }
        }
    }

    private void flowBetweenPorts(Element flow, Instance part) {
        List<Reference> ends = ConnectorEnds.of(model, flow);
        if (ends.size() == 2) {
            for (Instance from : owners(ends.getFirst(), part)) {
                owners(ends.getLast(), part).stream()
                        .filter(to -> from.usage().kind() == ElementKind.PORT
                                && to.usage().kind() == ElementKind.PORT)
                        .forEach(to -> routes.hop(from, to, null));
            }
        }
    }

    private List<Instance> instances(List<ElementId> chain, Instance scope) {
        try {
            return flattening.instances(new FeatureReference(List.copyOf(chain), Span.NONE), scope);
        } catch (FaultException _) {
            // What is not there joins nothing; that it is not there is said elsewhere.
            return List.of();
        }
    }

    // Expressions

    private Formula formula(Expression expression, Instance scope) {
        return number(expression, scope, false, scope.usage());
    }

    private Formula number(Expression expression, Instance scope, boolean isTruth, Element at) {
        flattening.takeDraws();
        try {
            return new Formula(flattening.momentaryNumber(expression, scope, isTruth), flattening.takeDraws());
        } catch (FaultException e) {
            throw fault(e, scope, at);
        }
    }

    private Question question(Expression expression, Instance scope) {
        flattening.takeDraws();
        try {
            return new Question(flattening.momentaryCondition(expression, scope), flattening.takeDraws());
        } catch (FaultException e) {
            throw fault(e, scope, scope.usage());
        }
    }

    private pyrite.core.dynamics.Condition watched(Expression expression, Instance scope) {
        try {
            return flattening.condition(expression, scope);
        } catch (FaultException e) {
            throw fault(e, scope, scope.usage());
        }
    }

    private static ModelFault fault(FaultException e, Instance scope, Element at) {
        return new ModelFault(scope.path() + ": " + e.getMessage(), List.of(at.id()));
    }

    private String words(Expression expression, Instance scope) {
        return pyrite.core.expression.ExpressionText.of(
                expression, pyrite.core.expression.ExpressionText.byName(model.environment()::nameOf));
    }

    private String name(Element element) {
        return Objects.requireNonNullElse(
                model.names().effectiveName(element), element.kind().title());
    }

    /** The part that performs a step. */
    private static Instance part(Instance step) {
        Instance at = step;
        while (!isPart(at) && at.around() != null) {
            at = at.around();
        }
        return at;
    }
}
