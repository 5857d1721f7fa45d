package pyrite.core.sequence;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Instance;
import pyrite.core.execution.Subject;
import pyrite.core.execution.Witness;
import pyrite.core.expression.Type;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * Notes what happens in a run as the steps of a sequence: messages when they are accepted, states when they are
 * entered, and steps that take time when they begin and end. What has no name is left out, since nothing could refer to
 * it.
 */
public final class SequenceNotes implements Witness {
    private static final MathContext SHOWN = new MathContext(9);

    private final Model model;
    private final DisplayUnits units;
    private final List<Subject> subjects;
    private final List<SequenceStep> steps = new ArrayList<>();
    private final Map<Integer, String> senders = new HashMap<>();
    private final Map<Integer, Integer> given = new HashMap<>();

    public SequenceNotes(Model model, List<Subject> subjects) {
        this.model = model;
        this.units = new DisplayUnits(model);
        this.subjects = subjects;
    }

    /** What was noted so far, in the order in which it happened. */
    public List<SequenceStep> steps() {
        return List.copyOf(steps);
    }

    @Override
    public void item(double time, Outcome outcome, Thing thing, @Nullable Instance place, int subject) {
        switch (outcome) {
            case SENT -> senders.put(thing.number(), Subject.part(subjects, subject));
            case GIVEN -> {
                given.put(thing.number(), steps.size());
                steps.add(message(time, thing, place, false));
            }
            case ACCEPTED -> accepted(time, thing, place);
            case DROPPED -> {
                if (!given.containsKey(thing.number())) {
                    steps.add(message(time, thing, place, false));
                }
            }
            case LOST -> steps.add(message(time, thing, null, false));
        }
    }

    private void accepted(double time, Thing thing, @Nullable Instance place) {
        Integer index = given.get(thing.number());
        SequenceStep.Message message = message(time, thing, place, true);
        if (index != null) {
            steps.set(index, ((SequenceStep.Message) steps.get(index)).accepted(time));
        } else if (!isTakenTwice(message)) {
            steps.add(message);
        }
    }

    /** Parallel states of one part may take one item. */
    private boolean isTakenTwice(SequenceStep.Message message) {
        for (int i = steps.size() - 1; i >= 0 && steps.get(i).at() == message.at(); i--) {
            if (steps.get(i).equals(message)) {
                return true;
            }
        }
        return false;
    }

    private SequenceStep.Message message(double time, Thing thing, @Nullable Instance place, boolean isAccepted) {
        String from = bare(senders.getOrDefault(thing.number(), ""));
        String to = place == null ? "" : bare(place.path());
        String part = place == null ? from : place.usage().kind() == ElementKind.PORT ? Subject.before(to) : to;
        return new SequenceStep.Message(
                time,
                from,
                to,
                part,
                thing.type() == null ? "" : model.names().qualifiedName(thing.type()),
                content(thing),
                isAccepted,
                thing.type() == null ? null : thing.type().id());
    }

    private List<SequenceStep.Content> content(Thing thing) {
        return thing.content().entrySet().stream()
                .filter(entry -> !Double.isNaN(entry.getValue()))
                .map(entry -> content(entry.getKey(), entry.getValue()))
                .toList();
    }

    private SequenceStep.Content content(Element attribute, double value) {
        return new SequenceStep.Content(
                Objects.requireNonNullElse(model.names().effectiveName(attribute), "value"),
                value,
                shown(attribute, value));
    }

    /** A value as it is written in the notation. */
    String shown(Element attribute, double value) {
        if (model.environment().typeOf(attribute.id()) instanceof Type.Truth) {
            return value != 0 ? "true" : "false";
        }
        DisplayUnit unit = units.of(attribute);
        return number(unit.unit().fromSi(value)) + (unit.symbol().isEmpty() ? "" : " [" + unit.symbol() + "]");
    }

    static String number(double value) {
        return Double.isFinite(value)
                ? new BigDecimal(value).round(SHOWN).stripTrailingZeros().toPlainString()
                : Double.toString(value);
    }

    @Override
    public void set(double time, String path, double value, Element attribute) {
        steps.add(new SequenceStep.Setting(time, bare(path), value, shown(attribute, value), attribute.id()));
    }

    @Override
    public void turn(double time, boolean begins, int subject) {
        Subject of = subjects.get(subject);
        if (isNoted(of, begins) && isNamed(subject)) {
            steps.add(new SequenceStep.Turn(
                    time, begins, bare(of.path()), bare(Subject.part(subjects, subject)), of.element()));
        }
    }

    private boolean isNoted(Subject subject, boolean begins) {
        if (subject.parent() < 0 && begins || subject.isTimeless()) {
            return false;
        }
        return switch (subject.kind()) {
            case STATE -> begins;
            case STEP ->
                switch (model.get(subject.element()).kind()) {
                    case ACTION, PERFORM -> true;
                    default -> false;
                };
            case POOL, PORT -> false;
        };
    }

    private boolean isNamed(int subject) {
        for (int at = subject; at >= 0; at = subjects.get(at).parent()) {
            if (model.names().effectiveName(model.get(subjects.get(at).element())) == null) {
                return false;
            }
        }
        return true;
    }

    /** A path without the numbers of several things of one name, which the notation cannot refer to. */
    static String bare(String path) {
        return path.indexOf('#') < 0 ? path : path.replaceAll("#\\(\\d+\\)", "");
    }
}
