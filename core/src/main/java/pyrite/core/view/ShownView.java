package pyrite.core.view;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * What a drawing shows. A view in the model says it by what it exposes and by the standard view it is typed by; each
 * element has a drawing of each form without that anybody makes a view.
 *
 * @param view the view that is shown or that keeps where the boxes of an element's own drawing stand; null if there is
 *     none
 * @param exposed what stands at the top
 */
public record ShownView(Form form, @Nullable Element view, List<Element> exposed, Placement placement) {
    /** The standard's views that are drawn (SysML 2.0, 9.2.20). */
    public enum Form {
        GENERAL("StandardViewDefinitions::GeneralView", "General view"),
        /** Of its own; before the view that it specialises, so that it is found first. */
        CONTEXT("Placement::ContextView", "Context view"),
        INTERCONNECTION("StandardViewDefinitions::InterconnectionView", "Interconnection view"),
        /** Of its own, before the view that it specialises. */
        STORY("Placement::StoryView", "Story"),
        ACTION_FLOW("StandardViewDefinitions::ActionFlowView", "Action Flow view"),
        STATE_TRANSITION("StandardViewDefinitions::StateTransitionView", "State Transition view"),
        SEQUENCE("StandardViewDefinitions::SequenceView", "Sequence view"),
        USE_CASES("Placement::UseCasesView", "Use cases");

        private final ElementId definition;
        private final String title;

        Form(String definition, String title) {
            this.definition = LibraryNames.id(definition);
            this.title = title;
        }

        public ElementId definition() {
            return definition;
        }

        public String title() {
            return title;
        }

        static Optional<Form> of(Model model, Element view) {
            return Arrays.stream(values())
                    .filter(form -> model.inheritance().isA(view, form.definition))
                    .findFirst();
        }
    }

    public ShownView {
        exposed = List.copyOf(exposed);
    }

    /** Whether an element has an inside that an Interconnection view shows. */
    public static boolean hasInside(Element element) {
        return switch (element.kind()) {
            case PART, PART_DEFINITION, ITEM, ITEM_DEFINITION, OCCURRENCE, OCCURRENCE_DEFINITION -> true;
            default -> false;
        };
    }

    /** Whether an element has steps that an Action Flow view shows. */
    public static boolean hasSteps(Element element) {
        return switch (element.kind()) {
            case ACTION, ACTION_DEFINITION, PERFORM, USE_CASE, USE_CASE_DEFINITION -> true;
            default -> false;
        };
    }

    /** Whether an element has states that a State Transition view shows. */
    public static boolean hasStates(Element element) {
        return switch (element.kind()) {
            case STATE, STATE_DEFINITION, EXHIBIT -> true;
            default -> false;
        };
    }

    /** The diagram of this view; {@code open} are the keys of the boxes that show their inside. */
    public Diagram diagram(Model model, Set<String> open) {
        return showing(model).applied(whole(model, open));
    }

    /** What this view leaves out. */
    public Showing showing(Model model) {
        return Showing.of(model, view);
    }

    /** The keys of the boxes that are open when somebody comes to this view. */
    public Set<String> openAtFirst(Model model) {
        Set<String> open = new HashSet<>(placement.open());
        int depth = showing(model).depth();
        for (int level = 0; level < depth; level++) {
            int deepest = level;
            boolean isMore = whole(model, open).nodes().stream()
                    .filter(node -> node.openable() && level(node) <= deepest)
                    .map(node -> open.add(node.key()))
                    .reduce(false, Boolean::logicalOr);
            if (!isMore) {
                break;
            }
        }
        return open;
    }

    private static int level(Diagram.Node node) {
        return (int) node.key().chars().filter(each -> each == '.').count();
    }

    /** The diagram with nothing left out. */
    public Diagram whole(Model model, Set<String> open) {
        return switch (form) {
            case GENERAL -> GeneralView.of(model, this, open);
            case CONTEXT -> ContextView.of(model, this, open);
            case INTERCONNECTION -> InterconnectionView.of(model, this, open);
            case STORY, ACTION_FLOW -> ActionFlowView.of(model, this, open);
            case STATE_TRANSITION -> StateTransitionView.of(model, this);
            case SEQUENCE -> SequenceView.of(model, this);
            case USE_CASES -> UseCasesView.of(model, this);
        };
    }

    /** The drawing of an element itself: of a package its members, of anything else the element with its inside. */
    public static ShownView of(Model model, Element element, Form form) {
        Element keeper = keeper(model, element, form).orElse(null);
        return new ShownView(
                form,
                keeper,
                element.kind().isPackage() ? boxes(model.children(element.id())) : List.of(element),
                placed(model, element, form, keeper));
    }

    /** As a person placed it; of a special behaviour what it inherits stands as in the drawing of the general one. */
    private static Placement placed(Model model, Element element, Form form, @Nullable Element keeper) {
        Placement own = keeper == null ? Placement.NONE : Placement.of(model, keeper);
        if (form != Form.STATE_TRANSITION && form != Form.ACTION_FLOW) {
            return own;
        }
        return model.inheritance().generals(element).stream()
                .filter(general -> !general.equals(element) && !model.isLibrary(general.id()))
                .flatMap(general -> keeper(model, general, form).stream())
                .map(general -> Placement.of(model, general))
                .reduce(
                        own,
                        (placement, general) -> placement.orElse(general.places(key -> inherited(model, element, key))),
                        (a, _) -> a);
    }

    /** The key in a special behaviour of what the general one has under a key. */
    private static String inherited(Model model, Element special, String key) {
        int step = key.indexOf('.');
        return BoxKey.current(model, special.id() + (step < 0 ? "" : key.substring(step)));
    }

    /** The drawing of a view in the model; empty if it is none of the forms that are drawn. */
    public static Optional<ShownView> of(Model model, Element view) {
        return view.kind() != ElementKind.VIEW
                ? Optional.empty()
                : Form.of(model, view)
                        .map(form -> new ShownView(form, view, exposed(model, view), Placement.of(model, view)));
    }

    /** All drawn views of a model, in no particular order. */
    public static List<Element> all(Model model) {
        return model.ownElements(ElementKind.VIEW)
                .filter(view -> Form.of(model, view).isPresent())
                .toList();
    }

    /** Whether a view exposes an element and nothing else, in the way of the element's own drawing. */
    static boolean keeps(Model model, Element view, Element element) {
        List<Element> exposures = exposures(model, view);
        return exposures.size() == 1
                && exposures
                        .getFirst()
                        .get(Property.TARGET)
                        .map(Reference::target)
                        .filter(element.id()::equals)
                        .isPresent()
                && exposures.getFirst().get(Property.REACH).orElse("one").equals(reach(element));
    }

    /** How far the view reaches that keeps an element's own drawing. */
    static String reach(Element element) {
        return element.kind().isPackage() ? "members" : "one";
    }

    private static Optional<Element> keeper(Model model, Element element, Form form) {
        return model.referrers(element.id()).stream()
                .map(model::get)
                .filter(user -> user.kind() == ElementKind.EXPOSURE && user.owner() != null)
                .map(exposure -> model.get(exposure.owner()))
                .filter(view -> view.kind() == ElementKind.VIEW
                        && Form.of(model, view).filter(form::equals).isPresent()
                        && keeps(model, view, element))
                .min(Comparator.comparing(Element::rank).thenComparing(Element::id));
    }

    private static List<Element> exposures(Model model, Element view) {
        return model.children(view.id()).stream()
                .filter(child -> child.kind() == ElementKind.EXPOSURE)
                .toList();
    }

    private static List<Element> exposed(Model model, Element view) {
        Set<Element> shown = new LinkedHashSet<>();
        for (Element exposure : exposures(model, view)) {
            Element target = exposure.get(Property.TARGET)
                    .flatMap(reference -> model.find(reference.target()))
                    .orElse(null);
            if (target != null) {
                shown.addAll(
                        switch (exposure.get(Property.REACH).orElse("one")) {
                            case "members" -> boxes(model.children(target.id()));
                            case "self" -> boxes(model.subtree(target.id()));
                            case "all" ->
                                boxes(model.subtree(target.id())).stream()
                                        .filter(each -> !each.equals(target))
                                        .toList();
                            default -> List.of(target);
                        });
            }
        }
        return new ArrayList<>(shown);
    }

    private static List<Element> boxes(List<Element> elements) {
        return elements.stream().filter(element -> element.kind().hasBox()).toList();
    }
}
