package pyrite.core.behavior;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * The states within one state, own and inherited, what leads from one to another, and what the state does on entry,
 * while it is active and on exit (SysML 2.0, 7.18). A transition that redefines an inherited one takes its place, and
 * has its source where it states none.
 */
public final class StateGraph {
    /** Where a state is done, as an end of transitions. */
    public static final ElementId DONE = LibraryNames.id("Actions::Action::done");

    private final Model model;
    private final Element state;
    private final List<Element> states;
    private final List<Transition> transitions = new ArrayList<>();
    private final List<Beginning> beginnings = new ArrayList<>();
    private final Map<String, Element> actions = new LinkedHashMap<>();

    /** @param from the state it leaves */
    public record Transition(ElementId from, ElementId to, Element carrier) {}

    /** Where it begins, and under which condition; null if under any. */
    public record Beginning(ElementId state, @Nullable Expression guard) {}

    private StateGraph(Model model, Element state) {
        this.model = model;
        this.state = state;
        this.states = model.inheritance().features(state).stream()
                .filter(feature -> isState(feature.kind()) && !model.isLibrary(feature.id()))
                .toList();
        model.inheritance().generals(state).stream()
                .filter(general -> !model.isLibrary(general.id()))
                .forEach(this::read);
    }

    public static StateGraph of(Model model, Element state) {
        return new StateGraph(model, state);
    }

    /** Whether such elements are states. */
    public static boolean isState(ElementKind kind) {
        return kind == ElementKind.STATE || kind == ElementKind.EXHIBIT;
    }

    private void read(Element general) {
        ElementId before = null;
        boolean isBeginning = false;
        List<Beginning> own = new ArrayList<>();
        for (Element member : model.children(general.id())) {
            String role = member.get(Property.ROLE).orElse("");
            if (isState(member.kind())) {
                if (isBeginning && member.get(Property.THEN).orElse(false)) {
                    own.add(new Beginning(standing(member.id()), null));
                }
                before = standing(member.id());
                isBeginning = false;
            } else if (!role.isEmpty() && member.kind() != ElementKind.TRANSITION) {
                actions.putIfAbsent(role, member);
                isBeginning = role.equals("entry");
            } else if (member.kind() == ElementKind.SUCCESSION || member.kind() == ElementKind.TRANSITION) {
                ElementId source = source(member, isBeginning ? null : before);
                boolean begins = source == null || source.equals(StepGraph.START);
                ElementId target =
                        end(member, Property.TARGET).map(this::standing).orElse(null);
                if (target != null && begins) {
                    own.add(new Beginning(target, member.get(Property.GUARD).orElse(null)));
                } else if (target != null && source != null && isEffective(member)) {
                    transitions.add(new Transition(source, target, member));
                } else if (target == null && begins) {
                    isBeginning = true;
                }
            }
        }
        if (beginnings.isEmpty()) {
            beginnings.addAll(own);
        }
    }

    private boolean isEffective(Element transition) {
        return transition.kind() == ElementKind.SUCCESSION
                || model.inheritance()
                        .effective(state, transition.id())
                        .map(transition::equals)
                        .orElse(true);
    }

    /**
     * Where it leaves: as it says, or where the one it redefines leaves, or the state it stands behind.
     *
     * @param before the state it stands behind; null for the beginning
     */
    private @Nullable ElementId source(Element transition, @Nullable ElementId before) {
        return model.inheritance().redefined(transition).stream()
                .flatMap(each -> end(each, Property.SOURCE).stream())
                .findFirst()
                .map(this::standing)
                .orElse(before);
    }

    private static Optional<ElementId> end(Element member, Property<Reference> property) {
        return member.get(property).map(Reference::target);
    }

    /** What redefines a state of a general stands for it. */
    private ElementId standing(ElementId id) {
        return id.equals(DONE) || id.equals(StepGraph.START)
                ? id
                : model.inheritance().effective(state, id).map(Element::id).orElse(id);
    }

    /** What a transition does on the way, its own or what it inherits. */
    public static Optional<Element> effect(Model model, Element transition) {
        return model.inheritance().generals(transition).stream()
                .flatMap(general -> model.children(general.id()).stream())
                .filter(child -> child.get(Property.ROLE).orElse("").equals("do"))
                .findFirst();
    }

    public List<Element> states() {
        return states;
    }

    public List<Transition> transitions() {
        return transitions;
    }

    /** Where it begins: the first whose condition holds. */
    public List<Beginning> beginnings() {
        return beginnings;
    }

    public boolean isParallel() {
        return model.inheritance().nearest(state, Property.PARALLEL).orElse(false);
    }

    /** @param role {@code entry}, {@code do} or {@code exit} */
    public @Nullable Element action(String role) {
        return actions.get(role);
    }
}
