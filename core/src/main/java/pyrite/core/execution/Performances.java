package pyrite.core.execution;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.execution.EventLog.Kind;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.execution.StepNode.Endpoint;
import pyrite.core.execution.StepNode.Parameter;

/**
 * Performs steps. A succession hands on a token when the step it comes from ends; a step begins when each succession
 * that leads to it has one and each item that flows to it has arrived (SysML 2.0, 7.17.4; KerML 1.0, 9.2.4).
 */
final class Performances {
    private final Engine engine;
    private final Program program;
    private final @Nullable Performance[] loaded;
    private final int[] occasions;

    Performances(Engine engine, Program program) {
        this.engine = engine;
        this.program = program;
        this.loaded = new Performance[program.stepCount()];
        this.occasions = new int[program.stepCount()];
    }

    Performance begin(StepNode node, @Nullable Performance around, List<Item> items) {
        return begin(node, around, items, null);
    }

    /**
     * Begins a step.
     *
     * @param items one for each parameter that needs one
     * @param behind told when it has ended; null to go on with the steps around
     */
    Performance begin(StepNode node, @Nullable Performance around, List<Item> items, @Nullable Runnable behind) {
        Performance performance = new Performance(node, around, behind, ++occasions[node.number]);
        if (around != null) {
            around.running.add(performance);
        }
        load(around);
        reset(performance);
        for (int i = 0; i < items.size(); i++) {
            receive(performance, node.needs.get(i), items.get(i));
        }
        save(performance);
        if (node.claims.isEmpty()) {
            start(performance);
        } else {
            engine.pools().claim(performance, () -> start(performance));
        }
        return performance;
    }

    private void reset(Performance performance) {
        loaded[performance.node.number] = performance;
        for (HeldAttribute attribute : performance.node.frame) {
            if (attribute.start() != null) {
                engine.initial(attribute);
            }
        }
    }

    private void receive(Performance performance, Parameter parameter, Item item) {
        engine.put(item, parameter.slot());
    }

    /** Keeps the values of a performance's own attributes, which another performance of the step may overwrite. */
    private void save(Performance performance) {
        List<HeldAttribute> frame = performance.node.frame;
        for (int i = 0; i < frame.size(); i++) {
            performance.frame[i] = engine.get(frame.get(i).variable());
        }
    }

    /** Makes the variables have the values of a performance and of those around it. */
    void load(@Nullable Performance performance) {
        for (Performance at = performance; at != null; at = at.around) {
            if (loaded[at.node.number] != at) {
                loaded[at.node.number] = at;
                List<HeldAttribute> frame = at.node.frame;
                for (int i = 0; i < frame.size(); i++) {
                    engine.set(frame.get(i).variable(), at.frame[i]);
                }
            }
        }
    }

    /** After something was assigned: whoever owns the attribute keeps it. */
    void saveAround(@Nullable Performance performance) {
        for (Performance at = performance; at != null; at = at.around) {
            if (!at.node.frame.isEmpty()) {
                save(at);
            }
        }
    }

    private void start(Performance performance) {
        if (performance.isEnded) {
            return;
        }
        StepNode node = performance.node;
        performance.isBegun = true;
        if (node.counted != null && !(node.deed instanceof Deed.Machine)) {
            engine.count(node.counted.first(), 1);
            engine.log(Kind.STARTED, node.subject, performance.occasion, "");
        }
        load(performance);
        carryOut(performance);
    }

    private void carryOut(Performance performance) {
        StepNode node = performance.node;
        switch (node.deed) {
            case Deed.Nothing _, Deed.Control _ -> end(performance);
            case Deed.Timed(Formula duration) -> endLater(performance, engine.number(duration));
            case Deed.Steps(StepNet net) -> steps(performance, net);
            case Deed.Several(List<StepNode> copies) -> several(performance, copies);
            case Deed.Send send -> {
                engine.mail().send(performance, send);
                end(performance);
            }
            case Deed.Accept(StepNode.Trigger trigger) -> accept(performance, trigger);
            case Deed.Assign(List<HeldAttribute> targets, Formula value) -> {
                assign(performance, targets, engine.number(value));
                end(performance);
            }
            case Deed.Choose(Question condition, @Nullable StepNode yes, @Nullable StepNode no) -> {
                StepNode chosen = engine.holds(condition) ? yes : no;
                if (chosen == null) {
                    end(performance);
                } else {
                    begin(chosen, performance, List.of(), () -> end(performance));
                }
            }
            case Deed.Repeat repeat -> round(performance, repeat);
            case Deed.ForEach each -> next(performance, each);
            case Deed.Terminate(@Nullable Instance target) -> terminate(performance, target);
            case Deed.Machine(StateNode state) -> engine.machines().start(state, performance, () -> end(performance));
        }
    }

    private void endLater(Performance performance, double duration) {
        if (!(duration >= 0)) {
            throw engine.failure(
                    "'" + performance.node.path() + "' would take " + duration + " s; a duration is not negative",
                    List.of(performance.node.element.id()));
        }
        if (duration == Double.POSITIVE_INFINITY) {
            return;
        }
        Engine.Timer timer = engine.plan(engine.now() + duration, () -> end(performance));
        performance.callOff.add(timer::callOff);
    }

    private void several(Performance performance, List<StepNode> copies) {
        int[] left = {copies.size()};
        for (StepNode copy : copies) {
            begin(copy, performance, List.of(), () -> {
                if (--left[0] == 0) {
                    end(performance);
                }
            });
        }
    }

    private void assign(Performance performance, List<HeldAttribute> targets, double value) {
        for (HeldAttribute target : targets) {
            engine.set(target.variable(), value);
            engine.log(Kind.ASSIGNED, performance.node.subject, performance.occasion, target.path() + " := " + value);
        }
        saveAround(performance.around);
    }

    private void round(Performance performance, Deed.Repeat repeat) {
        load(performance);
        if (!engine.holds(repeat.before())) {
            end(performance);
            return;
        }
        begin(repeat.round(), performance, List.of(), () -> {
            load(performance);
            if (repeat.until() != null && engine.holds(repeat.until())) {
                end(performance);
            } else {
                engine.soon(() -> {
                    if (!performance.isEnded) {
                        round(performance, repeat);
                    }
                });
            }
        });
    }

    private void next(Performance performance, Deed.ForEach each) {
        if (performance.round == each.values().size()) {
            end(performance);
            return;
        }
        load(performance);
        double value = engine.number(each.values().get(performance.round++));
        if (each.variable() != null) {
            engine.set(each.variable().variable(), value);
            save(performance);
        }
        begin(
                each.round(),
                performance,
                List.of(),
                () -> engine.soon(() -> {
                    if (!performance.isEnded) {
                        next(performance, each);
                    }
                }));
    }

    private void terminate(Performance performance, @Nullable Instance target) {
        Performance around = Objects.requireNonNull(performance.around, "a step stands in a behaviour");
        if (target == null) {
            end(performance);
            // A block belongs to the action around it, whose end is meant (SysML 2.0, 7.17.10).
            Performance ended = around;
            while (ended.node.subject < 0 && ended.around != null) {
                ended = ended.around;
            }
            finish(ended);
            return;
        }
        end(performance);
        for (Performance at = around; at != null; at = at.around) {
            Performance ended = at.running.stream()
                    .filter(each -> each.node.instance == target)
                    .findFirst()
                    .orElse(null);
            if (ended != null) {
                finish(ended);
                return;
            }
        }
    }

    /** Ends what goes on in it, and then it. */
    private void finish(Performance performance) {
        List.copyOf(performance.running).forEach(this::cut);
        performance.running.clear();
        Arrays.fill(performance.tokens, 0);
        performance.callOff.forEach(Runnable::run);
        end(performance);
    }

    /** Cuts a performance short, and all that goes on in it. */
    void cut(Performance performance) {
        if (performance.isEnded) {
            return;
        }
        performance.isEnded = true;
        List.copyOf(performance.running).forEach(this::cut);
        performance.callOff.forEach(Runnable::run);
        engine.goesOn(performance.stuck);
        engine.pools().release(performance, false);
        StepNode node = performance.node;
        if (performance.isBegun && node.counted != null) {
            engine.count(node.counted.second(), 1);
            engine.log(Kind.CUT, node.subject, performance.occasion, "");
        }
        if (node.deed instanceof Deed.Machine) {
            engine.machines().cut(performance);
        }
        if (performance.around != null) {
            performance.around.running.remove(performance);
        }
    }

    void end(Performance performance) {
        if (performance.isEnded) {
            return;
        }
        performance.isEnded = true;
        StepNode node = performance.node;
        engine.goesOn(performance.stuck);
        engine.pools().release(performance, true);
        if (node.counted != null && !(node.deed instanceof Deed.Machine)) {
            engine.count(node.counted.second(), 1);
            engine.log(Kind.ENDED, node.subject, performance.occasion, "");
        }
        if (!node.gives.isEmpty()) {
            load(performance);
            node.gives.forEach(parameter -> give(performance, parameter));
        }
        Performance around = performance.around;
        if (around != null) {
            around.running.remove(performance);
        }
        if (performance.behind != null) {
            performance.behind.run();
        } else if (around != null && around.node.deed instanceof Deed.Steps(StepNet net)) {
            ended(around, net, net.steps().indexOf(node));
        }
    }

    // Steps and the tokens between them

    private void steps(Performance performance, StepNet net) {
        performance.tokens = new int[net.successions().size()];
        for (Parameter parameter : performance.node.needs) {
            handOn(performance, parameter);
        }
        for (StepNode step : net.steps()) {
            step.needs.forEach(
                    need -> performance.arrived(need).addAll(engine.mail().kept(need)));
            step.needs.forEach(need -> engine.mail().kept(need).clear());
        }
        for (int place : net.begin()) {
            hand(performance, net, place);
        }
        settle(performance, net);
    }

    /** An item that came in goes on to the steps inside that take it. */
    private void handOn(Performance performance, Parameter parameter) {
        if (!parameter.endpoints().isEmpty()) {
            deliver(performance, parameter.endpoints(), item(parameter));
        }
    }

    private void ended(Performance around, StepNet net, int step) {
        if (around.isEnded) {
            return;
        }
        load(around);
        boolean isDecision =
                net.steps().get(step).deed instanceof Deed.Control(var kind) && kind == Deed.Control.Node.DECIDE;
        boolean anyTaken = false;
        boolean anyConditional = false;
        int otherwise = -1;
        for (int place : net.out().get(step)) {
            StepNet.Succession succession = net.successions().get(place);
            if (succession.isElse()) {
                otherwise = place;
                continue;
            }
            anyConditional |= succession.guard() != null;
            boolean isOpen = !(isDecision && anyTaken) && engine.holds(succession.guard());
            if (isOpen) {
                anyTaken |= succession.guard() != null || isDecision;
                hand(around, net, place);
            }
        }
        if (otherwise >= 0 && !anyTaken) {
            hand(around, net, otherwise);
            anyTaken = true;
        }
        if (!anyTaken && anyConditional && isDecision) {
            around.stuck = engine.waiting(
                    around.node.subject,
                    Engine.Wait.Kind.BRANCH,
                    "no branch of '" + net.steps().get(step).path() + "' is open",
                    List.of());
            return;
        }
        settle(around, net);
    }

    private void hand(Performance around, StepNet net, int place) {
        int to = net.successions().get(place).to();
        if (to == StepNet.DONE) {
            return;
        }
        around.tokens[place]++;
        offer(around, net, to);
    }

    /** Begins a step as often as what it waits for is there. */
    private void offer(Performance around, StepNet net, int to) {
        StepNode step = net.steps().get(to);
        boolean isMerge = step.deed instanceof Deed.Control(var kind) && kind == Deed.Control.Node.MERGE;
        int[] in = net.in().get(to);
        while (isReady(around, step, in, isMerge)) {
            for (int place : in) {
                if (around.tokens[place] > 0) {
                    around.tokens[place]--;
                    if (isMerge) {
                        break;
                    }
                }
            }
            List<Item> items = new ArrayList<>(step.needs.size());
            step.needs.forEach(need -> items.add(around.arrived(need).removeFirst()));
            around.pending++;
            engine.soon(() -> {
                around.pending--;
                if (!around.isEnded) {
                    begin(step, around, items);
                }
            });
        }
    }

    private static boolean isReady(Performance around, StepNode step, int[] in, boolean isMerge) {
        if (in.length == 0 && step.needs.isEmpty()) {
            return false;
        }
        boolean hasTokens = isMerge
                ? Arrays.stream(in).anyMatch(place -> around.tokens[place] > 0)
                : Arrays.stream(in).allMatch(place -> around.tokens[place] > 0);
        return hasTokens
                && step.needs.stream().noneMatch(need -> around.arrived(need).isEmpty());
    }

    /** A behaviour is done when nothing goes on in it and nothing in it waits. */
    private void settle(Performance around, StepNet net) {
        if (around.isEnded || around.pending > 0 || !around.running.isEmpty()) {
            return;
        }
        engine.goesOn(around.stuck);
        around.stuck = null;
        for (int to = 0; to < net.steps().size(); to++) {
            int[] in = net.in().get(to);
            if (Arrays.stream(in).anyMatch(place -> around.tokens[place] > 0)) {
                around.stuck = missing(around, net, to);
                return;
            }
        }
        boolean isOpen = net.begin().isEmpty() && !net.steps().isEmpty();
        if (!isOpen) {
            end(around);
        }
    }

    /** What a step waits for that has a token already. */
    private Engine.Wait missing(Performance around, StepNet net, int to) {
        StepNode step = net.steps().get(to);
        List<String> what = new ArrayList<>();
        List<Instance> from = new ArrayList<>();
        for (int place : net.in().get(to)) {
            int source = net.successions().get(place).from();
            if (around.tokens[place] == 0 && source >= 0) {
                what.add("'" + net.steps().get(source).path() + "' to end");
                from.add(net.steps().get(source).instance);
            }
        }
        for (Parameter need : step.needs) {
            if (around.arrived(need).isEmpty()) {
                what.add("'" + need.feature().name() + "' to arrive");
            }
        }
        int subject = step.subject >= 0 ? step.subject : around.node.subject;
        return engine.waiting(
                subject, Engine.Wait.Kind.STEP, "'" + step.path() + "' waits for " + String.join(" and ", what), from);
    }

    // Items

    private Item item(Parameter parameter) {
        double[] values = new double
                [Math.max(
                        parameter.layout().attributes().size(), parameter.slot().isValue() ? 1 : 0)];
        Arrays.fill(values, Double.NaN);
        for (HeldAttribute attribute : parameter.slot().attributes()) {
            int place = parameter.slot().isValue() ? 0 : parameter.layout().place(attribute.features());
            if (place >= 0) {
                values[place] = engine.get(attribute.variable());
            }
        }
        return new Item(parameter.layout(), engine.nextItem(), values);
    }

    private void give(Performance performance, Parameter parameter) {
        for (HeldAttribute attribute : parameter.slot().attributes()) {
            if (attribute.isFixed() && attribute.start() != null) {
                engine.initial(attribute);
            }
        }
        deliver(
                performance,
                parameter.endpoints(),
                parameter.value() == null
                        ? item(parameter)
                        : new Item(
                                Item.Layout.VALUE, engine.nextItem(), new double[] {engine.number(parameter.value())}));
    }

    private void deliver(Performance from, List<Endpoint> endpoints, Item item) {
        for (Endpoint endpoint : endpoints) {
            StepNode step = program.steps().get(endpoint.step());
            Parameter need = step == null ? null : needOf(step, endpoint);
            if (step == null) {
                continue;
            }
            if (need == null) {
                // An out of the behaviour around: what it holds is given on when that ends.
                outOf(step, endpoint, item);
                continue;
            }
            Performance around = within(from, step);
            if (around != null && around.node.deed instanceof Deed.Steps(StepNet net)) {
                around.arrived(need).add(item);
                offer(around, net, net.steps().indexOf(step));
            } else {
                engine.mail().keep(step, need, item);
            }
        }
    }

    private void outOf(StepNode step, Endpoint endpoint, Item item) {
        step.gives.stream()
                .filter(each -> isFeature(each, endpoint))
                .findFirst()
                .ifPresent(each -> engine.put(item, each.slot()));
    }

    private @Nullable Parameter needOf(StepNode step, Endpoint endpoint) {
        return step.needs.stream()
                .filter(each -> isFeature(each, endpoint))
                .findFirst()
                .orElse(null);
    }

    private static boolean isFeature(Parameter parameter, Endpoint endpoint) {
        return parameter.feature().id().equals(endpoint.feature())
                || parameter.slot().attributes().stream()
                        .anyMatch(attribute -> attribute.features().contains(endpoint.feature()));
    }

    /** The performance around a step that is nearest to where an item comes from. */
    private static @Nullable Performance within(Performance from, StepNode step) {
        for (Performance at = from; at != null; at = at.around) {
            if (at.node.instance == step.instance.around()) {
                return at;
            }
        }
        return null;
    }

    // Waiting

    private void accept(Performance performance, StepNode.Trigger trigger) {
        StepNode node = performance.node;
        switch (trigger) {
            case StepNode.Trigger.OfTime(Formula formula, boolean isAbsolute) -> {
                double time = engine.number(formula);
                endLater(performance, isAbsolute ? Math.max(0, time - engine.now()) : time);
            }
            case StepNode.Trigger.OfChange(var condition, String words) -> {
                Engine.Wait wait =
                        engine.waiting(node.subject, Engine.Wait.Kind.CONDITION, "waits until " + words, List.of());
                Engine.Watch watch = engine.watch(condition, () -> {
                    engine.goesOn(wait);
                    end(performance);
                });
                performance.callOff.add(watch::callOff);
                performance.callOff.add(() -> engine.goesOn(wait));
            }
            case StepNode.Trigger.OfItem of -> engine.mail().await(performance, of);
        }
    }

    /** An accept action has what it waited for. */
    void accepted(Performance performance, StepNode.Trigger.OfItem trigger, Item item) {
        load(performance);
        engine.put(item, trigger.slot());
        saveAround(performance);
        engine.log(Kind.ACCEPTED, performance.node.subject, performance.occasion, Mail.words(item) + trigger.place());
        end(performance);
    }
}
