package pyrite.core.behavior;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Name;
import pyrite.core.expression.Span;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.notation.Authoring;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.NotationWriter;
import pyrite.core.notation.ReadResult;
import pyrite.core.notation.Source;

/**
 * Edits of what leads from one state or step to another, as gestures on a drawing make them. What is drawn may be a
 * special behaviour: where it inherits what is to be changed, it gets a redefinition of its own, and the general one
 * stays as it is (SysML 2.0, 7.18.2).
 *
 * <p>A way is the ids from what is drawn down to something in it. Each method throws an
 * {@link IllegalArgumentException} with the reason if it cannot be done.
 */
public final class Leading {
    private final Model model;

    public Leading(Model model) {
        this.model = model;
    }

    /** @param made the element that leads there now */
    public record Made(Edit edit, List<ElementId> made, String summary) {}

    /**
     * Leads from one state or step to another.
     *
     * @param says of a transition its trigger, guard and effect; of a succession its guard; or {@code flow a to b} with
     *     parameters of both; may be empty
     */
    public Made lead(List<ElementId> from, List<ElementId> to, String says) {
        List<ElementId> around = shared(from, to);
        String told = says.strip();
        String one = name(from, around.size());
        String other = name(to, around.size());
        boolean isState = StateGraph.isState(model.get(around.getLast()).kind())
                || model.get(around.getLast()).kind() == ElementKind.STATE_DEFINITION;
        String text;
        if (isState && isStart(from)) {
            text = beginning(model.get(around.getLast()), other, told);
        } else if (isState) {
            text = "transition first " + one + " " + told + " then " + other + ";";
        } else if (told.startsWith("flow ")) {
            text = flow(told, one, other);
        } else if (told.isEmpty() && !isStart(from) && !isDone(to) && isOwn(from) && isOwn(to)) {
            Edit edit = Ordering.connect(model, model.get(from.getLast()), model.get(to.getLast()));
            return new Made(edit, List.of(), other + " comes behind " + one);
        } else {
            text = "succession first " + one + " " + told + " then " + other + ";";
        }
        return added(around, text, one + " leads to " + other);
    }

    private String beginning(Element state, String first, String told) {
        StateGraph graph = StateGraph.of(model, state);
        if (graph.action("entry") != null || !graph.beginnings().isEmpty()) {
            throw new IllegalArgumentException("how it begins is written already; in its text, write 'then " + first
                    + ";' behind its entry action");
        }
        return "entry; then " + (told.isEmpty() ? "" : told + " then ") + first + ";";
    }

    /** {@code flow cup to water}: from a parameter of one step to one of the other. */
    private static String flow(String told, String one, String other) {
        String[] ends = told.substring("flow ".length()).split("\\bto\\b", -1);
        if (ends.length != 2 || ends[0].isBlank() || ends[1].isBlank()) {
            throw new IllegalArgumentException(
                    "a flow names what goes out and where it comes in, for instance: flow alarm to warning");
        }
        return "flow from " + one + "." + ends[0].strip() + " to " + other + "." + ends[1].strip() + ";";
    }

    /** Adds members by lines of notation; into what a special behaviour inherits as its own redefinition. */
    public Made add(List<ElementId> into, String text) {
        return added(into, Authoring.closed(text), "");
    }

    private Made added(List<ElementId> into, String text, String summary) {
        int own = 1;
        while (own < into.size()
                && into.get(own - 1).equals(model.get(into.get(own)).owner())) {
            own++;
        }
        StringBuilder whole = new StringBuilder();
        for (ElementId inherited : into.subList(own, into.size())) {
            Element element = model.get(inherited);
            whole.append(element.kind().keyword())
                    .append(" :>> ")
                    .append(nameOf(inherited))
                    .append(" {\n");
        }
        whole.append(text).append("}".repeat(into.size() - own));
        ElementId owner = into.get(own - 1);
        ReadResult reading = NotationReader.readMembers(model, owner, new Source("", whole.toString()));
        if (!reading.isGood()) {
            throw new IllegalArgumentException(reading.problems().getFirst().message());
        }
        List<ElementId> made = reading.read().stream()
                .filter(element -> owner.equals(element.owner()))
                .map(Element::id)
                .toList();
        String said = !summary.isEmpty()
                ? summary
                : own < into.size()
                        ? "added to " + nameOf(into.getLast()) + ", which is redefined here"
                        : added(reading, owner);
        return new Made(checked(reading.edit()), made, said);
    }

    private static String added(ReadResult reading, ElementId owner) {
        return reading.read().stream()
                        .filter(element -> owner.equals(element.owner()))
                        .map(element -> element.kind().title() + (element.name() == null ? "" : " " + element.name()))
                        .collect(Collectors.joining(", "))
                + " added";
    }

    private Edit checked(Edit edit) {
        if (model.apply(edit) instanceof EditResult.Refused(var problems)) {
            throw new IllegalArgumentException(problems.getFirst().message());
        }
        return edit;
    }

    /** What stands between the two ends of a transition or succession, its own and what it inherits. */
    public String says(Element carrier) {
        LineText written = LineText.of(model, carrier);
        return carrier.kind() != ElementKind.TRANSITION
                ? written.says()
                : NotationWriter.betweenEnds(
                        model,
                        Accepting.of(model, carrier).map(Accepting::declaring).orElse(null),
                        model.inheritance().owning(carrier, Property.GUARD).orElse(null),
                        StateGraph.effect(model, carrier).orElse(null));
    }

    /** Says otherwise when, under which condition, and with what effect something leads on. */
    public Made say(ElementId shown, Element carrier, String says) {
        LineText written = LineText.of(model, carrier);
        String told = says.strip();
        if (told.equals(says(carrier))) {
            return new Made(new Edit(List.of(), Set.of()), List.of(carrier.id()), "");
        }
        boolean isTransition = carrier.kind() == ElementKind.TRANSITION;
        Made made = isWithin(shown, carrier)
                ? rewritten(carrier, written, written.source(), told, written.target())
                : redefined(shown, carrier, written.source(), told, written.target());
        return isTransition ? withoutWhatIsLeftOut(made, carrier) : made;
    }

    /** What a redefinition leaves out it would inherit, and that is not what was said. */
    private Made withoutWhatIsLeftOut(Made made, Element carrier) {
        if (!(model.apply(made.edit()) instanceof EditResult.Applied(Model after, var _))) {
            return made;
        }
        Element said = after.find(carrier.id())
                .filter(_ -> made.made().contains(carrier.id()))
                .or(() -> made.edit().put().stream()
                        .filter(each -> each.kind() == ElementKind.TRANSITION)
                        .findFirst())
                .orElseThrow();
        String name = "'" + after.names().effectiveName(said) + "'";
        if (said.get(Property.TRIGGER).isEmpty() && Accepting.of(after, said).isPresent()) {
            throw new IllegalArgumentException("the general machine says what " + name
                    + " waits for; say another event here, none is not possible");
        }
        if (StateGraph.effect(after, said)
                .filter(effect -> !said.id().equals(effect.owner()))
                .isPresent()) {
            throw new IllegalArgumentException(
                    "the general machine says what " + name + " does on the way; write 'do action' to do nothing here");
        }
        boolean isFree = said.get(Property.GUARD).isEmpty()
                && after.inheritance().nearest(said, Property.GUARD).isPresent();
        Element free = said.with(Property.GUARD, new Expression.BooleanLiteral(true, Span.NONE));
        return isFree ? new Made(Edit.joined(List.of(made.edit(), Edit.put(free))), made.made(), made.summary()) : made;
    }

    /**
     * Leads one end elsewhere. A special machine says only that, and goes on to inherit the event, the condition and
     * the effect.
     *
     * @param isSource whether it is the end from which it leads
     */
    public Made redirect(ElementId shown, Element carrier, List<ElementId> to, boolean isSource) {
        LineText written = LineText.of(model, carrier);
        List<ElementId> around = to.subList(0, to.size() - 1);
        String name = name(to, around.size());
        if (carrier.owner() != null && !generals(around.getLast()).contains(carrier.owner())) {
            throw new IllegalArgumentException(
                    "'" + name + "' stands in another state or step; remove the line and draw it anew");
        }
        String source = isSource ? name : written.source();
        String target = isSource ? written.target() : name;
        if (isWithin(shown, carrier)) {
            return rewritten(carrier, written, source, written.says(), target);
        }
        return redefined(
                shown, carrier, source, carrier.kind() == ElementKind.TRANSITION ? "" : written.says(), target);
    }

    private Set<ElementId> generals(ElementId id) {
        return model.inheritance().generals(model.get(id)).stream()
                .map(Element::id)
                .collect(Collectors.toSet());
    }

    private Made rewritten(Element carrier, LineText written, String source, String says, String target) {
        String text = written.with(keyword(carrier), source, says, target);
        ReadResult reading = NotationReader.readBack(model, List.of(carrier), new Source("", text));
        if (!reading.isGood()) {
            throw new IllegalArgumentException(reading.problems().getFirst().message());
        }
        return new Made(checked(reading.edit()), List.of(carrier.id()), source + " leads to " + target);
    }

    private static String keyword(Element carrier) {
        return carrier.kind() == ElementKind.TRANSITION ? "transition" : "succession";
    }

    private boolean isWithin(ElementId shown, Element element) {
        return Stream.iterate(
                        Optional.of(element),
                        Optional::isPresent,
                        at -> at.flatMap(each -> Optional.ofNullable(each.owner()))
                                .flatMap(model::find))
                .anyMatch(at -> at.orElseThrow().id().equals(shown));
    }

    /**
     * A special behaviour leads otherwise than what it inherits.
     *
     * @param says empty where it stays as inherited
     */
    private Made redefined(ElementId shown, Element carrier, String source, String says, String target) {
        String name = model.names().effectiveName(carrier);
        if (name == null) {
            throw new IllegalArgumentException("this is inherited from '"
                    + model.names().qualifiedName(model.get(Objects.requireNonNull(carrier.owner())))
                    + "' and has no name by which it could be redefined; name it there first");
        }
        List<ElementId> way = wayTo(shown, Objects.requireNonNull(carrier.owner()));
        return added(
                way,
                keyword(carrier) + " :>> " + Name.quoted(name) + " first " + source + " " + says + " then " + target
                        + ";",
                "'" + name + "' redefined");
    }

    /** The ids from what is drawn to the state or step in it that has, or inherits, what stands in an owner. */
    private List<ElementId> wayTo(ElementId shown, ElementId owner) {
        List<ElementId> way = new ArrayList<>(List.of(shown));
        if (!find(way, owner, 0)) {
            throw new IllegalArgumentException("this line stands in a behaviour that is not drawn here");
        }
        return way;
    }

    private boolean find(List<ElementId> way, ElementId owner, int depth) {
        if (generals(way.getLast()).contains(owner)) {
            return true;
        }
        for (Element feature : model.inheritance().features(model.get(way.getLast()))) {
            boolean hasInside = feature.kind().tellsWhatHappens() && !model.isLibrary(feature.id());
            if (hasInside && depth < 12) {
                way.add(feature.id());
                if (find(way, owner, depth + 1)) {
                    return true;
                }
                way.removeLast();
            }
        }
        return false;
    }

    private static List<ElementId> shared(List<ElementId> from, List<ElementId> to) {
        int same = 0;
        while (same < from.size() - 1 && same < to.size() - 1 && from.get(same).equals(to.get(same))) {
            same++;
        }
        if (same == 0) {
            throw new IllegalArgumentException("these stand in different drawings");
        }
        return from.subList(0, same);
    }

    private boolean isOwn(List<ElementId> way) {
        return way.get(way.size() - 2).equals(model.get(way.getLast()).owner());
    }

    private static boolean isStart(List<ElementId> way) {
        return way.getLast().equals(StepGraph.START);
    }

    private static boolean isDone(List<ElementId> way) {
        return way.getLast().equals(StepGraph.DONE);
    }

    private String name(List<ElementId> way, int from) {
        return way.subList(from, way.size()).stream().map(this::nameOf).collect(Collectors.joining("."));
    }

    private String nameOf(ElementId id) {
        if (id.equals(StepGraph.START)) {
            return "start";
        }
        if (id.equals(StepGraph.DONE)) {
            return "done";
        }
        String name = model.names().effectiveName(model.get(id));
        if (name == null) {
            throw new IllegalArgumentException("this " + model.get(id).kind().title()
                    + " has no name by which a line could lead to it; name it first");
        }
        return Name.quoted(name);
    }
}
