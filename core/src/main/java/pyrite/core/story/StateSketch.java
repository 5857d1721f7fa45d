package pyrite.core.story;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/**
 * A first state machine from a turned story: a state before the first event that is received and one behind each, a
 * transition for each event, and in each state the functions that are performed there one after the other. What is
 * there already is neither changed nor made twice when the story has grown.
 */
public final class StateSketch {
    private static final String FIRST = "idle";

    private final Model model;
    private final Element useCase;
    private final List<Element> put = new ArrayList<>();
    private final Map<String, Element> states = new LinkedHashMap<>();
    private final Element machine;
    private @Nullable Rank last;

    private StateSketch(Model model, Element useCase) {
        this.model = model;
        this.useCase = useCase;
        Element owner = model.owners(useCase).stream()
                .filter(around -> around.kind().isPackage())
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("the use case stands in no package"));
        String name = ProposedNames.upper(String.valueOf(useCase.name())) + "States";
        Optional<Element> known = model.children(owner.id()).stream()
                .filter(child -> child.kind() == ElementKind.STATE_DEFINITION && name.equals(child.name()))
                .findFirst();
        this.machine = known.orElseGet(
                () -> Element.of(ElementKind.STATE_DEFINITION, owner.id(), model.rankAtEnd(owner.id()), name));
        if (known.isEmpty()) {
            put.add(machine);
        }
        List<Element> members = known.isPresent() ? model.children(machine.id()) : List.of();
        this.last = members.isEmpty() ? null : members.getLast().rank();
        members.stream()
                .filter(member -> member.kind() == ElementKind.STATE && member.name() != null)
                .forEach(state -> states.put(String.valueOf(state.name()), state));
    }

    /** The edit, and the state definition that it makes or adds to. */
    public record Made(Edit edit, ElementId machine, String summary) {}

    /**
     * @throws IllegalArgumentException if nothing is received in the story, so that there is nothing to change states
     */
    public static Made of(Model model, Element useCase) {
        return new StateSketch(model, useCase).make();
    }

    private Made make() {
        Story story = Story.of(model, useCase);
        boolean receives = story.lines().stream().anyMatch(line -> line.step().kind() == ElementKind.ACCEPT);
        if (!receives) {
            throw new IllegalArgumentException(
                    "nothing is received in this story yet; turn the steps of actors into events first");
        }
        boolean isNew = !put.isEmpty();
        if (isNew) {
            start();
        }
        story.ways().forEach(way -> follow(story.path(way)));
        return new Made(
                new Edit(put, Set.of()),
                machine.id(),
                put.isEmpty()
                        ? "nothing new for " + machine.name()
                        : (isNew ? "state machine " + machine.name() + " made" : machine.name() + " added to"));
    }

    private void start() {
        Element entry = member(ElementKind.ACTION, null).with(Property.ROLE, "entry");
        put.add(entry);
        Element idle = Element.of(ElementKind.STATE, machine.id(), Rank.between(null, null), FIRST);
        put.add(member(ElementKind.SUCCESSION, null).with(Property.TARGET, Reference.to(idle.id())));
        idle = idle.withOwner(machine.id(), next());
        put.add(idle);
        states.put(FIRST, idle);
    }

    private Element member(ElementKind kind, @Nullable String name) {
        return Element.of(kind, machine.id(), next(), name);
    }

    private Rank next() {
        last = Rank.between(last, null);
        return last;
    }

    /** One telling: each event leads from the state before it to one that is named by what is done then. */
    private void follow(List<Story.Line> path) {
        Element state = states.computeIfAbsent(FIRST, _ -> state(FIRST, List.of()));
        for (int i = 0; i < path.size(); i++) {
            Element event = path.get(i).step();
            Element item = event.kind() == ElementKind.ACCEPT
                    ? Turning.definition(model, event).orElse(null)
                    : null;
            if (item != null) {
                List<Element> functions = functions(path, i + 1);
                String name = functions.isEmpty()
                        ? "after" + item.name()
                        : lower(String.valueOf(functions.getFirst().name()));
                Element target = states.computeIfAbsent(name, wished -> state(wished, functions));
                transition(state, item, target);
                state = target;
            }
        }
    }

    /** The functions that are performed until the next event. */
    private List<Element> functions(List<Story.Line> path, int from) {
        List<Element> functions = new ArrayList<>();
        for (Story.Line line : path.subList(from, path.size())) {
            if (line.step().kind() == ElementKind.ACCEPT) {
                break;
            }
            if (Turning.became(model, line.step())
                    .filter(Turning.Kind.FUNCTION::equals)
                    .isPresent()) {
                Turning.definition(model, line.step()).ifPresent(functions::add);
            }
        }
        return functions;
    }

    private Element state(String name, List<Element> functions) {
        Element state = member(ElementKind.STATE, name);
        put.add(state);
        if (functions.size() == 1) {
            put.add(Element.of(
                            ElementKind.ACTION,
                            state.id(),
                            Rank.between(null, null),
                            lower(String.valueOf(functions.getFirst().name())))
                    .with(Property.ROLE, "do")
                    .with(
                            Property.TYPES,
                            List.of(Reference.to(functions.getFirst().id()))));
        } else if (!functions.isEmpty()) {
            Element work = Element.of(ElementKind.ACTION, state.id(), Rank.between(null, null), "work")
                    .with(Property.ROLE, "do");
            put.add(work);
            Set<String> names = new HashSet<>();
            List<Rank> ranks = Rank.after(null, functions.size());
            for (int i = 0; i < functions.size(); i++) {
                String wished = lower(String.valueOf(functions.get(i).name()));
                put.add(Element.of(ElementKind.ACTION, work.id(), ranks.get(i), names.add(wished) ? wished : wished + i)
                        .with(Property.THEN, i == 0 ? null : true)
                        .with(
                                Property.TYPES,
                                List.of(Reference.to(functions.get(i).id()))));
            }
        }
        return state;
    }

    private void transition(Element source, Element item, Element target) {
        boolean isThere = model.has(machine.id())
                && model.children(machine.id()).stream()
                        .anyMatch(child -> leads(child, Property.SOURCE, source)
                                && leads(child, Property.TARGET, target)
                                && receives(child, item));
        boolean isMade = put.stream()
                .anyMatch(made -> leads(made, Property.SOURCE, source)
                        && leads(made, Property.TARGET, target)
                        && put.stream()
                                .anyMatch(child -> child.kind() == ElementKind.PAYLOAD
                                        && made.id().equals(child.owner())
                                        && child.references(Property.TYPES).equals(List.of(Reference.to(item.id())))));
        if (isThere || isMade) {
            return;
        }
        Element transition = member(ElementKind.TRANSITION, null)
                .with(Property.SOURCE, Reference.to(source.id()))
                .with(Property.TRIGGER, "accept")
                .with(Property.TARGET, Reference.to(target.id()));
        put.add(transition);
        put.add(Element.of(ElementKind.PAYLOAD, transition.id(), Rank.between(null, null), null)
                .with(Property.TYPES, List.of(Reference.to(item.id()))));
    }

    private static boolean leads(Element element, Property<Reference> end, Element state) {
        return element.kind() == ElementKind.TRANSITION
                && element.get(end)
                        .filter(reference -> reference.target().equals(state.id()))
                        .isPresent();
    }

    private boolean receives(Element transition, Element item) {
        return model.children(transition.id()).stream()
                .filter(child -> child.kind() == ElementKind.PAYLOAD)
                .anyMatch(
                        payload -> Objects.equals(UseCases.type(model, payload).orElse(null), item));
    }

    private static String lower(String name) {
        return name.substring(0, 1).toLowerCase(Locale.ROOT) + name.substring(1);
    }
}
