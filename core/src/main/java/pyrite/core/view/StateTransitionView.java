package pyrite.core.view;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.Accepting;
import pyrite.core.behavior.StateGraph;
import pyrite.core.behavior.StepGraph;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;
import pyrite.core.notation.NotationWriter;

/**
 * The State Transition view of a state (SysML 2.0, 9.2.20): its states with what they do, states within states, and the
 * transitions with trigger, guard and effect.
 */
final class StateTransitionView {
    private static final int MOST_NODES = 500;
    private static final int DEEPEST = 12;
    private static final int LONGEST_LABEL = 52;
    private static final List<String> ROLES = List.of("entry", "do", "exit");

    private final Model model;
    private final BoxTexts texts;
    private final Set<String> hidden;
    private final Map<String, Diagram.Node> nodes = new LinkedHashMap<>();
    private final List<Diagram.Edge> edges = new ArrayList<>();
    private int left;

    private StateTransitionView(Model model, ShownView view) {
        this.model = model;
        this.texts = new BoxTexts(model);
        this.hidden = view.placement().hidden();
    }

    static Diagram of(Model model, ShownView view) {
        StateTransitionView states = new StateTransitionView(model, view);
        view.exposed().stream().filter(ShownView::hasStates).forEach(states::show);
        return new Diagram(List.copyOf(states.nodes.values()), states.edges, states.left);
    }

    private void show(Element state) {
        StateGraph graph = StateGraph.of(model, state);
        if (graph.isParallel()) {
            // Parallel states have no order that a drawing could show without the state around them.
            node(state, state, state.id().toString(), "", 0);
        } else {
            inside(state, state.id().toString(), "", 0);
        }
    }

    private void node(Element around, Element state, String key, String parent, int depth) {
        if (hidden.contains(key)) {
            return;
        }
        if (nodes.size() >= MOST_NODES) {
            left++;
            return;
        }
        StateGraph graph = StateGraph.of(model, state);
        boolean isOpen = !graph.states().isEmpty() && depth < DEEPEST;
        nodes.put(
                key,
                new Diagram.Node(
                        key,
                        parent,
                        state,
                        (graph.isParallel() ? "parallel " : "") + BoxTexts.keyword(state),
                        texts.title(state),
                        actions(graph),
                        List.of(),
                        false,
                        isOpen,
                        !around.id().equals(state.owner()) && !around.equals(state)));
        if (isOpen) {
            inside(state, key, key, depth + 1);
        }
    }

    private List<Diagram.Compartment> actions(StateGraph graph) {
        List<Diagram.Line> lines = ROLES.stream()
                .flatMap(role -> Stream.ofNullable(graph.action(role)))
                .filter(action -> !isNothing(action))
                .map(action -> new Diagram.Line(
                        action.id(),
                        shortened(NotationWriter.head(model, action).strip()),
                        false))
                .toList();
        return lines.isEmpty() ? List.of() : List.of(new Diagram.Compartment("", lines));
    }

    /** {@code entry;} stands where nothing is done. */
    private boolean isNothing(Element action) {
        return action.kind() == ElementKind.ACTION
                && model.names().effectiveName(action) == null
                && StepGraph.of(model, action).steps().isEmpty();
    }

    private void inside(Element state, String prefix, String parent, int depth) {
        StateGraph graph = StateGraph.of(model, state);
        if (!graph.beginnings().isEmpty()) {
            terminal(prefix, parent, StepGraph.START, Diagram.Shape.START);
        }
        graph.states().forEach(each -> node(state, each, prefix + "." + each.id(), parent, depth));
        if (graph.transitions().stream().anyMatch(transition -> transition.to().equals(StateGraph.DONE))) {
            terminal(prefix, parent, StateGraph.DONE, Diagram.Shape.DONE);
        }
        graph.beginnings()
                .forEach(beginning -> edge(
                        prefix + "." + StepGraph.START,
                        key(prefix, beginning.state()),
                        beginning.guard() == null
                                ? ""
                                : "[" + NotationWriter.expression(model, beginning.guard(), state.id()) + "]",
                        null));
        graph.transitions()
                .forEach(transition -> edge(
                        end(prefix, transition.carrier(), Property.SOURCE, transition.from()),
                        end(prefix, transition.carrier(), Property.TARGET, transition.to()),
                        label(transition.carrier()),
                        transition.carrier().id()));
    }

    private void terminal(String prefix, String parent, ElementId id, Diagram.Shape shape) {
        String key = prefix + "." + id;
        nodes.put(
                key,
                new Diagram.Node(
                        key,
                        parent,
                        model.get(id),
                        shape == Diagram.Shape.START ? "start" : "done",
                        "",
                        List.of(),
                        List.of(),
                        false,
                        false,
                        false,
                        shape));
    }

    private static String key(String prefix, ElementId state) {
        return prefix + "." + state;
    }

    /** A transition may lead into the middle of another state. */
    private String end(String prefix, Element transition, Property<Reference> property, ElementId state) {
        List<ElementId> chain = transition.get(property).map(Reference::chain).orElse(List.of());
        if (chain.size() < 2) {
            return key(prefix, state);
        }
        String key = prefix;
        for (ElementId step : chain) {
            if (nodes.containsKey(key + "." + step)) {
                key += "." + step;
            }
        }
        return key;
    }

    private void edge(String from, String to, String label, @Nullable ElementId element) {
        if (nodes.containsKey(from) && nodes.containsKey(to)) {
            edges.add(Diagram.Edge.of(from, to, Diagram.Relation.SUCCESSION, label, element));
        }
    }

    /** Trigger, guard and effect, as the standard's notation joins them. */
    private String label(Element transition) {
        StringBuilder label = new StringBuilder(trigger(transition));
        model.inheritance()
                .nearest(transition, Property.GUARD)
                .ifPresent(guard -> label.append(label.isEmpty() ? "[" : " [")
                        .append(NotationWriter.expression(model, guard, transition.id()))
                        .append(']'));
        StateGraph.effect(model, transition)
                .ifPresent(effect -> label.append(label.isEmpty() ? "/ " : " / ")
                        .append(NotationWriter.head(model, effect).strip().replaceFirst("^do ", "")));
        return shortened(label.toString());
    }

    private String trigger(Element transition) {
        return Accepting.of(model, transition).map(this::words).orElse("");
    }

    private String words(Accepting accepting) {
        Element payload = accepting.payload();
        return accepting.kind().equals("accept")
                ? (payload == null
                                ? ""
                                : NotationWriter.head(model, payload).strip().replaceFirst("^: ", ""))
                        + written(" via ", accepting.via(), accepting.declaring())
                : accepting.kind() + written(" ", accepting.content(), accepting.declaring());
    }

    private String written(String before, @Nullable Expression expression, Element scope) {
        return expression == null ? "" : before + NotationWriter.expression(model, expression, scope.id());
    }

    private static String shortened(String text) {
        return text.length() <= LONGEST_LABEL
                ? text
                : text.substring(0, LONGEST_LABEL - 1).strip() + "…";
    }
}
