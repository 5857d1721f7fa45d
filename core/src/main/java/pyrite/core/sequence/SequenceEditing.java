package pyrite.core.sequence;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Name;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.notation.Authoring;
import pyrite.core.structure.PortFace;

/**
 * The edits of a sequence drawing: messages and events are made, put between others, led elsewhere and said anew. A row
 * is where something is dropped: counted from 0, between two rows where it lies between them; the instants of what is
 * above and below say when it happens.
 */
public final class SequenceEditing {
    /** Behind everything that there is. */
    public static final double LAST = Double.POSITIVE_INFINITY;

    private static final Pattern ITEM = Pattern.compile("\\s*([^(]+?)\\s*(\\(.*\\))?\\s*", Pattern.DOTALL);
    private static final Pattern SETTING = Pattern.compile("\\s*(.+?)\\s*:=\\s*(.+)", Pattern.DOTALL);
    private static final Pattern ENDING = Pattern.compile("\\s*(.+?)\\s+(begins|ends)\\s*");
    private static final int MOST_DECIMALS = 6;

    private final Model model;
    private final Element recording;
    private final Authoring authoring;
    private final List<Sequence.Written> steps;

    /** @throws pyrite.core.dynamics.ModelFault if a step of the recording lacks its instant or refers to nothing */
    public SequenceEditing(Model model, Element recording) {
        this.model = model;
        this.recording = recording;
        this.authoring = new Authoring(model);
        this.steps = Sequence.written(model, recording);
    }

    /** An edit with its line for the history. */
    public record Made(Edit edit, String summary) {}

    /**
     * A message from one part to another.
     *
     * @param from the way to a part; {@link Sequence#OUTSIDE} alone for what comes from outside
     * @param text the name of what is sent, perhaps with its content: {@code Order(level = 3 [m])}
     * @throws IllegalArgumentException if the text names nothing that can be sent, or the model refuses it
     */
    public Made message(List<ElementId> from, List<ElementId> to, String text, double row) {
        return made(message(from, to, text, row, null), "message " + text.strip() + " added to " + name(recording));
    }

    private String message(
            List<ElementId> from, List<ElementId> to, String text, double row, @Nullable Element instead) {
        Matcher item = ITEM.matcher(text);
        if (!item.matches()) {
            throw new IllegalArgumentException(
                    "say what is sent, for instance Order, or with its content: Order(level = 3 [m])");
        }
        Element type = type(item.group(1));
        String arguments = Optional.ofNullable(item.group(2)).orElse("");
        String named = seen(type);
        return "message : " + kind("Told") + " of "
                + (arguments.isEmpty() ? named : "content : " + named + " = new " + named + arguments)
                + " from " + end(from) + " to " + end(arrival(to, type)) + at(row, instead);
    }

    private Element type(String name) {
        List<String> parts = List.of(name.replace("'", "").split("::"));
        return model.names()
                .resolve(new Name(parts), recording.id())
                .map(model::get)
                .or(() -> model.ownElements().stream()
                        .filter(element ->
                                element.kind().isDefinition() && parts.getLast().equals(element.name()))
                        .filter(element -> parts.size() == 1)
                        .findFirst())
                .filter(element -> element.kind().isDefinition())
                .orElseThrow(() -> new IllegalArgumentException(
                        "there is no item definition '" + name + "'; a message is of something that can be sent"));
    }

    /** The port of a part that takes such items; the part itself if none does. */
    private List<ElementId> arrival(List<ElementId> part, Element type) {
        if (Sequence.isOutside(model, part)) {
            return part;
        }
        return model.inheritance().features(model.get(part.getLast())).stream()
                .filter(feature -> feature.kind() == ElementKind.PORT && takes(feature, type))
                .findFirst()
                .map(port -> {
                    List<ElementId> way = new ArrayList<>(part);
                    way.add(port.id());
                    return way;
                })
                .orElse(new ArrayList<>(part));
    }

    private boolean takes(Element port, Element type) {
        return PortFace.of(model, port).features().stream()
                .filter(feature -> feature.way().receives())
                .flatMap(feature -> model.inheritance().generals(feature.element()).stream())
                .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                .anyMatch(general -> model.inheritance().isA(type, general.id()));
    }

    /**
     * What happens on a part by itself: {@code modes.closing} begins, {@code modes.closing ends}, or {@code level := 3
     * [m]} is set from outside.
     *
     * @throws IllegalArgumentException if the part has nothing of that name, or the model refuses it
     */
    public Made event(List<ElementId> part, String text, double row) {
        return made(event(part, text, row, null), text.strip() + " added to " + name(recording));
    }

    private String event(List<ElementId> part, String text, double row, @Nullable Element instead) {
        if (text.isBlank() || Sequence.isOutside(model, part)) {
            throw new IllegalArgumentException(
                    text.isBlank()
                            ? "say what happens, for instance modes.closing, modes.closing ends, or level := 3 [m]"
                            : "nothing is known of what happens outside; draw a line from there to a part");
        }
        Matcher setting = SETTING.matcher(text);
        if (setting.matches()) {
            return "action : " + kind("Sets") + " assign " + end(part) + "." + setting.group(1) + " := "
                    + setting.group(2) + at(row, instead);
        }
        Matcher ending = ENDING.matcher(text);
        boolean isNamed = ending.matches();
        String path = isNamed ? ending.group(1) : text.strip();
        boolean ends = isNamed && ending.group(2).equals("ends");
        return "event " + end(part) + "." + path + " : " + kind(ends ? "Ends" : "Begins") + at(row, instead);
    }

    /** Puts a step between others: it gets an instant between theirs. */
    public Made place(Element member, double row) {
        Element at = feature(member);
        String seconds = instant(row, member);
        String instant = seconds + " [s]";
        if (seconds.equals(exact(written(member).step().at()))) {
            throw new IllegalArgumentException("what stands above and below happens at " + instant
                    + ", as this does; type another instant beside the drawing");
        }
        return switch (authoring.value(member, at, instant)) {
            case Authoring.Proposal.Rejected(var problems) ->
                throw new IllegalArgumentException(problems.getFirst().message());
            case Authoring.Proposal.Accepted(Edit edit, String summary) -> new Made(edit, summary);
        };
    }

    private Element feature(Element member) {
        return model.inheritance().features(member).stream()
                .filter(feature -> "at".equals(model.names().effectiveName(feature)))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("this step has no instant"));
    }

    /** Leads an end of a message to another part. */
    public Made reend(Element member, boolean isSource, List<ElementId> part) {
        if (member.kind() != ElementKind.MESSAGE) {
            throw new IllegalArgumentException("only a message leads from one part to another");
        }
        Element sent = model.children(member.id()).stream()
                .filter(child -> child.kind() == ElementKind.PAYLOAD)
                .flatMap(payload -> model.inheritance().generals(payload).stream())
                .filter(general -> general.kind().isDefinition())
                .findFirst()
                .orElse(null);
        List<ElementId> way = isSource || sent == null ? part : arrival(part, sent);
        Reference end = Sequence.isOutside(model, part) ? Reference.to(outside()) : new Reference(way);
        Edit edit = Edit.put(member.with(isSource ? Property.SOURCE : Property.TARGET, end));
        return checked(edit, "message of " + name(recording) + " leads " + (isSource ? "from " : "to ") + end(part));
    }

    private ElementId outside() {
        return model.inheritance()
                .effective(recording, Sequence.OUTSIDE)
                .map(Element::id)
                .orElse(Sequence.OUTSIDE);
    }

    /** What a step says, to be changed: what {@link #message} or {@link #event} takes. */
    public String says(Element member) {
        return switch (written(member).step()) {
            case SequenceStep.Message message -> message.item().replace(" (", "(");
            case SequenceStep.Turn turn ->
                turn.path().substring(turn.part().length() + 1) + (turn.begins() ? "" : " ends");
            case SequenceStep.Setting setting ->
                setting.path().substring(setting.part().length() + 1) + " := " + setting.shown();
        };
    }

    /** Says a step anew; it stays where it is. */
    public Made say(Element member, String text) {
        List<ElementId> target = member.get(Property.TARGET).orElseThrow().chain();
        double row = steps.indexOf(written(member));
        boolean isMessage = member.kind() == ElementKind.MESSAGE;
        String line = isMessage
                ? message(partOf(member.get(Property.SOURCE).orElseThrow().chain()), partOf(target), text, row, member)
                : event(partOf(target), text, row, member);
        Made made = made(line, says(member) + " → " + text.strip());
        return checked(Edit.joined(List.of(made.edit(), Edit.remove(member.id()))), made.summary());
    }

    private List<ElementId> partOf(List<ElementId> way) {
        return Sequence.isOutside(model, way) ? List.of(Sequence.OUTSIDE) : Sequence.part(model, way);
    }

    private Sequence.Written written(Element member) {
        return steps.stream()
                .filter(step -> step.member().id().equals(member.id()))
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("this is no step of " + name(recording)));
    }

    /** The names on the way to a part, from the system on. */
    private String end(List<ElementId> way) {
        if (Sequence.isOutside(model, way)) {
            return "outside";
        }
        return seen(model.get(way.getFirst()))
                + way.stream()
                        .skip(1)
                        .map(id -> "." + Name.quoted(name(model.get(id))))
                        .collect(Collectors.joining());
    }

    private String kind(String ofStep) {
        return seen(model.get(LibraryNames.id("Recordings::" + ofStep)));
    }

    /** The name by which the recording sees something: its own where an import brings it, else the qualified one. */
    private String seen(Element element) {
        return Stream.of(element.shortName(), element.name())
                .filter(Objects::nonNull)
                .filter(name -> model.names()
                        .resolve(Name.of(name), recording.id())
                        .filter(element.id()::equals)
                        .isPresent())
                .findFirst()
                .map(Name::quoted)
                .orElseGet(() -> model.names().qualifiedName(element));
    }

    private String at(double row, @Nullable Element instead) {
        String when = instead == null
                ? instant(row, null)
                : exact(written(instead).step().at());
        return " { attribute :>> at = " + when + " [" + seen(model.get(LibraryNames.id("SI::second"))) + "]; }";
    }

    /**
     * The instant for a row, s: in the middle between what is above and below, with as few decimals as tell them apart.
     */
    private String instant(double row, @Nullable Element moved) {
        List<Double> above = new ArrayList<>();
        List<Double> below = new ArrayList<>();
        for (int i = 0; i < steps.size(); i++) {
            if (moved == null || !steps.get(i).member().id().equals(moved.id())) {
                (i < row ? above : below).add(steps.get(i).step().at());
            }
        }
        Double from = above.stream().max(Comparator.naturalOrder()).orElse(null);
        Double to = below.stream().min(Comparator.naturalOrder()).orElse(null);
        if (to == null) {
            return exact(from == null ? 0 : from + 1);
        }
        return between(Objects.requireNonNullElse(from, 0.0), to);
    }

    private static String between(double from, double to) {
        double middle = (from + to) / 2;
        for (int decimals = 0; decimals <= MOST_DECIMALS; decimals++) {
            BigDecimal rounded = BigDecimal.valueOf(middle).setScale(decimals, RoundingMode.HALF_EVEN);
            if (rounded.doubleValue() > from && rounded.doubleValue() < to) {
                return rounded.stripTrailingZeros().toPlainString();
            }
        }
        return exact(from);
    }

    private static String exact(double seconds) {
        return BigDecimal.valueOf(seconds).stripTrailingZeros().toPlainString();
    }

    private Made made(String line, String summary) {
        return switch (authoring.members(recording, line)) {
            case Authoring.Proposal.Rejected(var problems) ->
                throw new IllegalArgumentException(problems.getFirst().message());
            case Authoring.Proposal.Accepted(Edit edit, var _) -> new Made(edit, summary);
        };
    }

    private Made checked(Edit edit, String summary) {
        return switch (model.apply(edit)) {
            case EditResult.Applied _ -> new Made(edit, summary);
            case EditResult.Refused(var problems) ->
                throw new IllegalArgumentException(problems.getFirst().message());
        };
    }

    private String name(Element element) {
        return Objects.requireNonNullElseGet(
                model.names().effectiveName(element), () -> element.kind().title());
    }
}
