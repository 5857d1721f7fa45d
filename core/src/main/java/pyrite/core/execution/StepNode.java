package pyrite.core.execution;

import java.util.ArrayList;
import java.util.List;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Flattening.Counted;
import pyrite.core.dynamics.HeldAttribute;
import pyrite.core.dynamics.Instance;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;

/** One step in one place of what runs, ready to be performed. */
final class StepNode {
    /** Its place among all steps of the program. */
    final int number;

    final Element element;
    final Instance instance;
    /** Its index among the subjects of the log; -1 for a control node. */
    final int subject;

    final @Nullable Counted counted;
    /** What it has of its own, with the items that arrive: each performance has its own values of these. */
    final List<HeldAttribute> frame = new ArrayList<>();
    /** The parameters for which an item must have arrived. */
    final List<Parameter> needs = new ArrayList<>();

    final List<Parameter> gives = new ArrayList<>();
    final List<ClaimNode> claims = new ArrayList<>();
    Deed deed = new Deed.Nothing();
    /**
     * What goes in or out.
     *
     * @param value what it is worked out from where it goes out; null for what it holds
     * @param endpoints where it flows to
     */
    record Parameter(
            Element feature,
            ItemSlot slot,
            Item.Layout layout,
            @Nullable Formula value,
            List<Endpoint> endpoints) {}

    /**
     * A parameter of a step that something flows to.
     *
     * @param over what takes time on the way; null if nothing does
     */
    record Endpoint(Instance step, ElementId feature, Routes.@Nullable ChannelNode over) {}

    /** An amount of a pool. */
    record ClaimNode(Instance pool, Formula amount, Formula priority, Use use) {
        enum Use {
            HOLD,
            DRAW,
            FILL
        }
    }

    StepNode(int number, Element element, Instance instance, int subject, @Nullable Counted counted) {
        this.number = number;
        this.element = element;
        this.instance = instance;
        this.subject = subject;
        this.counted = counted;
    }

    String path() {
        return instance.path();
    }

    /** What a step does while it is performed. */
    sealed interface Deed {
        /** It takes no time. */
        record Nothing() implements Deed {}

        record Timed(Formula duration) implements Deed {}

        record Steps(StepNet net) implements Deed {}

        /** The same step several times at once. */
        record Several(List<StepNode> copies) implements Deed {}

        /**
         * @param layout what is made; null to send on what one of the slots holds
         * @param values of a made item, one for each attribute; of a value alone itself
         * @param from where an item to send on is kept
         */
        record Send(
                Item.Layout layout,
                List<@Nullable Formula> values,
                @Nullable Instance from,
                List<Instance> ports,
                List<Instance> receivers)
                implements Deed {}

        /** @param inboxes where it waits for an item */
        record Accept(Trigger trigger) implements Deed {}

        record Assign(List<HeldAttribute> targets, Formula value) implements Deed {}

        record Choose(
                Question condition,
                @Nullable StepNode yes,
                @Nullable StepNode no) implements Deed {}

        /** @param before asked before each round, {@code until} after it */
        record Repeat(
                @Nullable Question before,
                StepNode round,
                @Nullable Question until) implements Deed {}

        record ForEach(@Nullable HeldAttribute variable, List<Formula> values, StepNode round) implements Deed {}

        /** @param target what is ended; null for the behaviour around */
        record Terminate(@Nullable Instance target) implements Deed {}

        record Control(Node node) implements Deed {
            enum Node {
                MERGE,
                DECIDE,
                FORK,
                JOIN
            }
        }

        record Machine(StateNode state) implements Deed {}
    }

    /** What something waits for. */
    sealed interface Trigger {
        /**
         * @param type of what is accepted; null for anything
         * @param words for messages
         */
        record OfItem(@Nullable Element type, ItemSlot slot, List<Instance> inboxes, String words) implements Trigger {
            /** Where it comes through, if that is said. */
            String place() {
                int via = words.indexOf(" via ");
                return via < 0 ? "" : words.substring(via);
            }
        }

        /** @param isAbsolute whether it is an instant of the run, s, and not how long to wait */
        record OfTime(Formula time, boolean isAbsolute) implements Trigger {}

        record OfChange(pyrite.core.dynamics.Condition condition, String words) implements Trigger {}
    }
}
