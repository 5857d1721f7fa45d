package pyrite.core.execution;

import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.execution.EventLog.Kind;
import pyrite.core.execution.StepNode.Deed;
import pyrite.core.execution.StepNode.Parameter;

/** Performs steps, each from its beginning to its end (SysML 2.0, 7.17). */
final class Performances {
    private final Engine engine;
    private final StepTokens tokens;
    private final ItemFlows flows;
    private final @Nullable Performance[] loaded;
    private final int[] occasions;
    private final Set<Performance> tops = new LinkedHashSet<>();

    Performances(Engine engine, Program program) {
        this.engine = engine;
        this.tokens = new StepTokens(engine, this);
        this.flows = new ItemFlows(engine, program, this, tokens);
        this.loaded = new Performance[program.stepCount()];
        this.occasions = new int[program.stepCount()];
    }

    Performance begin(StepNode node, @Nullable Performance around, List<Item> items) {
        return begin(node, around, items, null);
    }

    ItemFlows flows() {
        return flows;
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
        } else {
            tops.add(performance);
        }
        load(around);
        reset(performance);
        for (int i = 0; i < items.size(); i++) {
            engine.put(items.get(i), node.needs.get(i).slot());
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

    /** Something came to a parameter of what is going on. */
    void receive(@Nullable Performance performance, Parameter parameter, Item item) {
        load(performance);
        engine.put(item, parameter.slot());
        saveAround(performance);
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

    /** After an attribute was set from outside: what goes on with it keeps it. */
    void saveLoaded() {
        for (Performance performance : loaded) {
            if (performance != null && !performance.isEnded && !performance.node.frame.isEmpty()) {
                save(performance);
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
            case Deed.Steps(StepNet net) -> tokens.begin(performance, net);
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
            engine.assign(target, value, performance.node.subject, performance.occasion);
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
        performance.blocked.forEach(engine::goesOn);
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
        } else {
            tops.remove(performance);
        }
    }

    /** What goes on, with what each has of its own. */
    void describe(StringBuilder words) {
        tops.forEach(top -> describe(top, words));
    }

    private static void describe(Performance performance, StringBuilder words) {
        words.append(performance.node.number)
                .append(Arrays.toString(performance.tokens))
                .append(Arrays.toString(performance.frame))
                .append(performance.round)
                .append(performance.pending)
                .append(performance.blocked.size());
        performance.arrived.values().forEach(items -> words.append('a').append(items.size()));
        words.append('(');
        performance.running.forEach(inner -> describe(inner, words));
        words.append(')');
    }

    void end(Performance performance) {
        if (performance.isEnded) {
            return;
        }
        performance.isEnded = true;
        StepNode node = performance.node;
        engine.goesOn(performance.stuck);
        performance.blocked.forEach(engine::goesOn);
        if (node.counted != null && !(node.deed instanceof Deed.Machine)) {
            engine.count(node.counted.second(), 1);
            engine.log(Kind.ENDED, node.subject, performance.occasion, "");
        }
        // After the event: who is granted what it held goes on because it has ended.
        engine.pools().release(performance, true);
        if (!node.gives.isEmpty()) {
            load(performance);
            node.gives.forEach(parameter -> flows.give(performance, parameter));
        }
        Performance around = performance.around;
        if (around != null) {
            around.running.remove(performance);
        } else {
            tops.remove(performance);
        }
        if (performance.behind != null) {
            performance.behind.run();
        } else if (around != null && around.node.deed instanceof Deed.Steps(StepNet net)) {
            tokens.ended(around, net, net.steps().indexOf(node));
        }
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
                Engine.Wait wait = engine.waitingUntil(
                        node.element.id(),
                        node.subject,
                        Engine.Wait.Kind.CONDITION,
                        "waits until " + words,
                        List.of(condition));
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
        engine.witness(Witness.Outcome.ACCEPTED, item, trigger.inboxes().getFirst(), performance.node.subject);
        end(performance);
    }
}
