package pyrite.core.sequence;

import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.ElementId;

/** One step of a sequence: a message, a step or state that begins or ends, or a value that is set from outside. */
public sealed interface SequenceStep {
    /** s. */
    double at();

    /** The part on whose lifeline it stands. */
    String part();

    /** What it is, without its time and content: steps of one label can be the same. */
    String label();

    /** What is selected with it; null if it is written nowhere yet. */
    @Nullable
    ElementId element();

    /** Whether it comes from outside. */
    boolean isStimulus();

    String words();

    /** A path from within the system that was played, whose own name every step would repeat. */
    static String within(String path) {
        return path.substring(path.indexOf('.') + 1);
    }

    /**
     * An attribute of an item.
     *
     * @param value coherent SI; 1 for true
     * @param shown the value with its unit, as it is written in the notation
     */
    record Content(String name, double value, String shown) {}

    /**
     * @param from the part that sent it; empty for outside
     * @param to the port or part where it arrived; empty if nobody was there
     * @param type the qualified name of the item's definition; empty for a value alone
     * @param isAccepted whether something took it
     */
    record Message(
            double at,
            String from,
            String to,
            String part,
            String type,
            List<Content> content,
            boolean isAccepted,
            @Nullable ElementId element)
            implements SequenceStep {
        @Override
        public String label() {
            return from + " → " + part + " " + type;
        }

        @Override
        public boolean isStimulus() {
            return from.isEmpty();
        }

        /** The name of the item's definition. */
        public String name() {
            return type.isEmpty() ? "value" : type.substring(type.lastIndexOf(':') + 1);
        }

        /** The item with its content, such as {@code Order (level = 3 [m])}. */
        public String item() {
            return name()
                    + content.stream()
                            .filter(each -> !Double.isNaN(each.value()))
                            .map(each -> each.name() + " = " + each.shown())
                            .collect(Collectors.joining(", ", " (", ")"))
                            .replace(" ()", "");
        }

        @Override
        public String words() {
            return item()
                    + " from " + (from.isEmpty() ? "outside" : within(from))
                    + (to.isEmpty() ? ", nobody there" : " to " + within(to) + (isAccepted ? "" : ", not accepted"));
        }

        Message accepted(double when) {
            return new Message(isStimulus() ? at : when, from, to, part, type, content, true, element);
        }
    }

    /** A step that begins or ends, or a state that is entered or left. */
    record Turn(
            double at,
            boolean begins,
            String path,
            String part,
            @Nullable ElementId element) implements SequenceStep {
        @Override
        public String label() {
            return path + (begins ? " begins" : " ends");
        }

        @Override
        public boolean isStimulus() {
            return false;
        }

        @Override
        public String words() {
            return within(path) + (begins ? " begins" : " ends");
        }
    }

    /** @param value as it is written, with its unit */
    record Setting(
            double at,
            String path,
            double value,
            String shown,
            @Nullable ElementId element) implements SequenceStep {
        @Override
        public String part() {
            int dot = path.lastIndexOf('.');
            return dot < 0 ? path : path.substring(0, dot);
        }

        @Override
        public String label() {
            return "set " + path;
        }

        @Override
        public boolean isStimulus() {
            return true;
        }

        @Override
        public String words() {
            return within(path) + " set to " + shown;
        }
    }
}
