package pyrite.core.sequence;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import pyrite.core.expression.Name;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/** Writes what was noted as a recording in the notation. */
public final class SequenceText {
    private static final int INSTANT_DECIMALS = 6;

    private final Model model;

    public SequenceText(Model model) {
        this.model = model;
    }

    /**
     * What a recording is made from.
     *
     * @param system the part that was played
     * @param lasts s
     * @param tolerance s
     * @param remark what it shows, for people; may be empty
     */
    public record Session(
            String name,
            Element system,
            double lasts,
            double tolerance,
            long seed,
            String remark,
            List<SequenceStep> steps,
            List<Told> told) {}

    /** A step of a story that was told at an instant, s. */
    public record Told(double at, Element step) {}

    /** A verification case that replays a session; to stand anywhere. */
    public String of(Session session) {
        StringBuilder text = new StringBuilder();
        text.append("verification ").append(Name.quoted(session.name())).append(" : Recordings::Recording {\n");
        if (!session.remark().isBlank()) {
            text.append("doc /* ")
                    .append(session.remark().strip().replace("*/", "* /"))
                    .append(" */\n");
        }
        text.append("private import SI::*;\nprivate import Recordings::*;\n");
        String system = model.names().qualifiedName(session.system());
        text.append("subject :>> system = ").append(system).append(";\n");
        text.append("attribute :>> stopTime = ")
                .append(instant(session.lasts()))
                .append(";\n");
        text.append("attribute :>> timeTolerance = ")
                .append(instant(session.tolerance()))
                .append(";\n");
        if (session.seed() != 1) {
            text.append("attribute :>> seed = ").append(session.seed()).append(";\n");
        }
        session.steps().forEach(step -> text.append(line(step, system)).append('\n'));
        session.told()
                .forEach(told -> text.append("event ")
                        .append(model.names().qualifiedName(told.step()))
                        .append(" : Begins { attribute :>> at = ")
                        .append(exact(told.at()))
                        .append("; }\n"));
        return text.append("objective;\n}\n").toString();
    }

    private static String line(SequenceStep step, String system) {
        String at = "attribute :>> at = " + (step.isStimulus() ? exact(step.at()) : instant(step.at())) + ";";
        return switch (step) {
            case SequenceStep.Message message ->
                "message : Told of " + payload(message) + " from " + end(message.from(), system) + " to "
                        + end(message.to(), system) + " { " + at
                        + (message.isAccepted() ? "" : " attribute :>> accepted = false;") + " }";
            case SequenceStep.Turn turn ->
                "event " + end(turn.path(), system) + " : " + (turn.begins() ? "Begins" : "Ends") + " { " + at + " }";
            case SequenceStep.Setting setting ->
                "action : Sets assign " + end(setting.path(), system) + " := " + setting.shown() + " { " + at + " }";
        };
    }

    private static String payload(SequenceStep.Message message) {
        String type = message.type().isEmpty() ? "ScalarValues::Real" : message.type();
        if (message.content().isEmpty()) {
            return type;
        }
        return "content : " + type + " = new " + type
                + message.content().stream()
                        .map(each -> Name.quoted(each.name()) + " = " + each.shown())
                        .collect(Collectors.joining(", ", "(", ")"));
    }

    /** A path from the part that was played, by its qualified name. */
    private static String end(String path, String system) {
        if (path.isEmpty()) {
            return "outside";
        }
        String[] names = path.split("\\.");
        return Arrays.stream(names)
                .skip(1)
                .map(name -> "." + Name.quoted(name))
                .collect(Collectors.joining("", system, ""));
    }

    private static String exact(double seconds) {
        return BigDecimal.valueOf(seconds).stripTrailingZeros().toPlainString() + " [s]";
    }

    private static String instant(double seconds) {
        return BigDecimal.valueOf(seconds)
                        .setScale(INSTANT_DECIMALS, RoundingMode.HALF_UP)
                        .stripTrailingZeros()
                        .toPlainString()
                + " [s]";
    }
}
