package pyrite.core.sequence;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.execution.Outside;
import pyrite.core.execution.Stimulus;
import pyrite.core.expression.Expression;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.Referent;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Names;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * The sequence that a recording holds: messages (SysML 2.0, 7.16), events (7.9) and assignments in its body, each with
 * its instant, in the order of these.
 *
 * @param tolerance so far, s, may an instant be from what was recorded
 * @param isComplete whether the parts in it do nothing else
 */
public record Sequence(List<SequenceStep> steps, double tolerance, boolean isComplete) {
    public static final ElementId OUTSIDE = LibraryNames.id("Recordings::Recording::outside");

    /** Whether a case is a recording. */
    public static boolean isRecording(Model model, Element usage) {
        return usage.kind().isCase() && model.inheritance().isA(usage, LibraryNames.id(LibraryNames.RECORDING));
    }

    /** The elements that are its steps, in the order in which they are written. */
    public static List<Element> members(Model model, Element recording) {
        return model.inheritance().features(recording).stream()
                .filter(feature -> !model.isLibrary(feature.id()))
                .filter(feature -> switch (feature.kind()) {
                    case MESSAGE, ASSIGNMENT -> true;
                    case EVENT -> !isOfStory(model, feature);
                    default -> false;
                })
                .toList();
    }

    /** A step of a story that was told while the recording was made, and the event that says so. */
    public record Mark(Element member, Element step, double at) {}

    /** The steps of stories that were told, in the order of their instants. */
    public static List<Mark> marks(Model model, Element recording) {
        Reading reading = new Reading(model, recording, new Flattening(model));
        return model.inheritance().features(recording).stream()
                .filter(feature -> feature.kind() == ElementKind.EVENT && isOfStory(model, feature))
                .map(feature -> new Mark(
                        feature,
                        model.get(feature.get(Property.TARGET).orElseThrow().target()),
                        reading.number(feature, "at").orElse(0.0)))
                .sorted(Comparator.comparingDouble(Mark::at))
                .toList();
    }

    /** Whether an event is a step of a use case, which no system performs. */
    private static boolean isOfStory(Model model, Element event) {
        Element at = event.get(Property.TARGET)
                .flatMap(reference -> model.find(reference.target()))
                .orElse(null);
        while (at != null && at.kind() != ElementKind.USE_CASE && at.kind() != ElementKind.USE_CASE_DEFINITION) {
            at = at.owner() == null ? null : model.find(at.owner()).orElse(null);
        }
        return at != null;
    }

    /**
     * Reads a recording.
     *
     * @param flattening notes what is read
     * @throws ModelFault if a step lacks its instant or refers to nothing
     */
    public static Sequence of(Model model, Element recording, Flattening flattening) {
        return new Reading(model, recording, flattening).read();
    }

    /** A step and the element that says it. */
    public record Written(Element member, SequenceStep step) {}

    /**
     * The steps in the order of their instants, each with its element.
     *
     * @throws ModelFault if a step lacks its instant or refers to nothing
     */
    public static List<Written> written(Model model, Element recording) {
        return new Reading(model, recording, new Flattening(model)).written();
    }

    /** Whether an end of a message is what lies outside of the system. */
    public static boolean isOutside(Model model, List<ElementId> end) {
        return end.size() == 1
                && model.inheritance().redefined(model.get(end.getFirst())).stream()
                        .anyMatch(each -> each.id().equals(OUTSIDE));
    }

    /** The way to the part that something stands in: up to the last part on its way. */
    public static List<ElementId> part(Model model, List<ElementId> way) {
        int last = way.size();
        while (last > 1
                && switch (model.get(way.get(last - 1)).kind()) {
                    case PART, ITEM, REFERENCE -> false;
                    default -> true;
                }) {
            last--;
        }
        return way.subList(0, last);
    }

    /** The way to the system that a recording plays; empty if it names none. */
    public static List<ElementId> system(Model model, Element recording) {
        return model.inheritance().features(recording).stream()
                .filter(feature -> feature.kind() == ElementKind.SUBJECT)
                .findFirst()
                .flatMap(model.inheritance()::value)
                .map(FeatureValue::expression)
                .map(expression -> expression instanceof Expression.FeatureReference(List<Referent> chain, var _)
                                && chain.stream().allMatch(ElementId.class::isInstance)
                        ? chain.stream().map(ElementId.class::cast).toList()
                        : List.<ElementId>of())
                .orElse(List.of());
    }

    /** What comes from outside, as long as the system accepts it anywhere. */
    public List<Stimulus> stimuli(Outside outside) {
        List<Stimulus> stimuli = new ArrayList<>();
        for (SequenceStep step : steps) {
            Optional<Stimulus> stimulus = switch (step) {
                case SequenceStep.Message message
                when message.isStimulus() ->
                    outside.give(
                            message.at(),
                            message.to(),
                            message.type().isEmpty() ? null : message.element(),
                            message.content().stream()
                                    .collect(
                                            Collectors.toMap(SequenceStep.Content::name, SequenceStep.Content::value)));
                case SequenceStep.Setting setting -> outside.set(setting.at(), setting.path(), setting.value());
                default -> Optional.empty();
            };
            stimulus.ifPresent(stimuli::add);
        }
        return stimuli;
    }

    private record Reading(Model model, Element recording, Flattening flattening, Instance root) {
        Reading(Model model, Element recording, Flattening flattening) {
            this(model, recording, flattening, flattening.root(recording));
        }

        List<Written> written() {
            List<Written> written = new ArrayList<>();
            for (Element member : members(model, recording)) {
                flattening.noteRead(member);
                model.subtree(member.id()).forEach(flattening::noteReadAlone);
                written.add(new Written(member, step(member)));
            }
            written.sort(Comparator.comparingDouble(each -> each.step().at()));
            return List.copyOf(written);
        }

        Sequence read() {
            List<SequenceStep> steps = written().stream().map(Written::step).toList();
            double tolerance = number(recording, "timeTolerance").orElse(0.0);
            if (!(tolerance >= 0)) {
                throw fault(recording, "its time tolerance is " + tolerance + " s; it is 0 or more");
            }
            return new Sequence(steps, tolerance, number(recording, "complete").orElse(1.0) != 0);
        }

        private SequenceStep step(Element member) {
            double at = number(member, "at")
                    .orElseThrow(() -> fault(
                            member,
                            "it does not say when; write '{ attribute :>> at = 30 [s]; }' behind it, and type a message by "
                                    + "Told, an event by Begins or Ends, an assignment by Sets"));
            return switch (member.kind()) {
                case MESSAGE -> message(member, at);
                case EVENT -> turn(member, at);
                default -> setting(member, at);
            };
        }

        private SequenceStep message(Element member, double at) {
            List<ElementId> from = chain(member, Property.SOURCE, "from");
            List<ElementId> to = chain(member, Property.TARGET, "to");
            Element payload = model.children(member.id()).stream()
                    .filter(child -> child.kind() == ElementKind.PAYLOAD)
                    .findFirst()
                    .orElseThrow(() ->
                            fault(member, "it does not say of what; write 'message : Told of Signal from … to …'"));
            Element type = model.inheritance().generals(payload).stream()
                    .filter(each -> each.kind().isDefinition() && !model.isLibrary(each.id()))
                    .findFirst()
                    .orElse(null);
            Expression value = model.inheritance()
                    .value(payload)
                    .map(FeatureValue::expression)
                    .orElse(null);
            if (value instanceof Expression.Construction(var made, var _, var _)) {
                type = model.get((ElementId) made);
            }
            return new SequenceStep.Message(
                    at,
                    isOutside(from) ? "" : path(part(from)),
                    isOutside(to) ? "" : path(to),
                    isOutside(to) ? path(part(from)) : path(part(to)),
                    type == null ? "" : model.names().qualifiedName(type),
                    type == null ? List.of() : content(type, value),
                    number(member, "accepted").orElse(1.0) != 0,
                    type == null ? null : type.id());
        }

        private boolean isOutside(List<ElementId> chain) {
            return Sequence.isOutside(model, chain);
        }

        private List<SequenceStep.Content> content(Element type, @Nullable Expression value) {
            Map<String, Expression> given = new HashMap<>();
            List<Element> attributes = model.inheritance().features(type).stream()
                    .filter(feature -> feature.kind() == ElementKind.ATTRIBUTE && !model.isLibrary(feature.id()))
                    .toList();
            if (value instanceof Expression.Construction(var _, List<Expression> arguments, var _)) {
                List<String> names = model.inheritance().features(type).stream()
                        .filter(feature -> feature.kind().isFeature() && !Names.isPrivate(feature))
                        .map(model.names()::effectiveName)
                        .toList();
                for (int i = 0; i < arguments.size(); i++) {
                    if (arguments.get(i) instanceof Expression.NamedArgument(String name, Expression one, var _)) {
                        given.put(name, one);
                    } else if (i < names.size() && names.get(i) != null) {
                        given.put(names.get(i), arguments.get(i));
                    }
                }
            }
            List<SequenceStep.Content> content = new ArrayList<>();
            for (Element attribute : attributes) {
                String name = Objects.requireNonNullElse(model.names().effectiveName(attribute), "value");
                Expression one = given.get(name);
                Optional<Double> number = one != null
                        ? Optional.of(known(one, attribute))
                        : model.inheritance()
                                .value(attribute)
                                .flatMap(usual -> constant(usual.expression(), flattening.root(attribute)));
                number.ifPresent(si -> content.add(new SequenceStep.Content(name, si, shown(attribute, si))));
            }
            return List.copyOf(content);
        }

        private double known(Expression expression, Element at) {
            return constant(expression, root)
                    .orElseThrow(() -> fault(at, "its value in a recording must be a plain value"));
        }

        private Optional<Double> constant(Expression expression, Instance scope) {
            if (expression instanceof Expression.BooleanLiteral(boolean truth, var _)) {
                return Optional.of(truth ? 1.0 : 0.0);
            }
            try {
                return flattening.constant(expression, scope);
            } catch (FaultException e) {
                throw new ModelFault(
                        name(recording) + ": " + e.getMessage(),
                        List.of(recording.id()),
                        Property.VALUE,
                        e.fault().span());
            }
        }

        private String shown(Element attribute, double si) {
            return new SequenceNotes(model, List.of()).shown(attribute, si);
        }

        private SequenceStep turn(Element member, double at) {
            List<ElementId> chain = chain(member, Property.TARGET, "of what");
            boolean ends = model.inheritance().isA(member, LibraryNames.id("Recordings::Ends"));
            Element last = model.get(chain.getLast());
            if (!last.kind().isBehavior() && last.kind() != ElementKind.EXHIBIT && last.kind() != ElementKind.PERFORM) {
                throw fault(member, "'" + path(chain) + "' is neither a step nor a state");
            }
            return new SequenceStep.Turn(at, !ends, path(chain), path(part(chain)), last.id());
        }

        private SequenceStep setting(Element member, double at) {
            List<ElementId> chain = chain(member, Property.TARGET, "what");
            Element attribute = model.get(chain.getLast());
            double value = known(
                    model.inheritance()
                            .nearest(member, Property.CONTENT)
                            .orElseThrow(() -> fault(member, "it does not say to what value")),
                    member);
            return new SequenceStep.Setting(at, path(chain), value, shown(attribute, value), attribute.id());
        }

        private List<ElementId> chain(Element member, Property<Reference> property, String what) {
            return member.get(property)
                    .map(Reference::chain)
                    .orElseThrow(() -> fault(member, "it does not say " + what));
        }

        /** Up to the last part in it. */
        private List<ElementId> part(List<ElementId> chain) {
            return Sequence.part(model, chain);
        }

        private String path(List<ElementId> chain) {
            return chain.stream().map(id -> name(model.get(id))).collect(Collectors.joining("."));
        }

        private String name(Element element) {
            return Objects.requireNonNullElse(
                    model.names().effectiveName(element), element.kind().title());
        }

        private Optional<Double> number(Element owner, String name) {
            return model.inheritance().features(owner).stream()
                    .filter(feature -> name.equals(model.names().effectiveName(feature)))
                    .findFirst()
                    .flatMap(feature ->
                            model.inheritance().value(feature).flatMap(value -> constant(value.expression(), root)));
        }

        private ModelFault fault(Element member, String what) {
            String which = member == recording ? "" : ", " + member.kind().title();
            return new ModelFault("'" + name(recording) + "'" + which + ": " + what, List.of(member.id()));
        }
    }
}
