package pyrite.core.execution;

import java.util.ArrayList;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Condition;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.expression.Expression;
import pyrite.core.expression.ExpressionText;
import pyrite.core.expression.FaultException;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;

/**
 * What all that prepares a program shares: the model, what is to be lowered later, and the expressions of what happens.
 */
abstract class Preparing {
    static final ElementId CLAIM = LibraryNames.id("Execution::Claim");

    final Model model;
    final Flattening flattening;
    final Layouts layouts;
    /** What is done when everything is built and what is assigned is known. */
    final List<Runnable> later;

    final List<Subject> subjects;
    private final Map<Instance, Integer> subjectOf;

    Preparing(Model model, Flattening flattening) {
        this.model = model;
        this.flattening = flattening;
        this.layouts = new Layouts(model, flattening);
        this.later = new ArrayList<>();
        this.subjects = new ArrayList<>();
        this.subjectOf = new IdentityHashMap<>();
    }

    Preparing(Preparing shared) {
        this.model = shared.model;
        this.flattening = shared.flattening;
        this.layouts = shared.layouts;
        this.later = shared.later;
        this.subjects = shared.subjects;
        this.subjectOf = shared.subjectOf;
    }

    /** A behaviour is read with all that is written in it, and in what it inherits from. */
    void read(Element behavior) {
        flattening.noteRead(behavior);
        for (Element general : model.inheritance().generals(behavior)) {
            if (!model.isLibrary(general.id())) {
                model.children(general.id()).stream()
                        .filter(child -> child.kind().family() == ElementKind.Family.BEHAVIOR
                                || child.kind().isFlow()
                                || child.kind() == ElementKind.PAYLOAD)
                        .forEach(flattening::noteReadAlone);
            }
        }
    }

    int subject(Subject.Kind kind, Instance instance) {
        int parent = -1;
        for (Instance at = instance.around(); at != null && parent < 0; at = at.around()) {
            parent = subjectOf.getOrDefault(at, -1);
        }
        subjects.add(new Subject(kind, instance.path(), instance.usage().id(), parent, false));
        subjectOf.put(instance, subjects.size() - 1);
        return subjects.size() - 1;
    }

    Optional<Element> typeOf(Element feature) {
        return model.inheritance().generals(feature).stream()
                .filter(each -> each.kind().isDefinition() && !model.isLibrary(each.id()))
                .findFirst();
    }

    @Nullable
    Element effective(Element owner, String libraryFeature) {
        return model.inheritance()
                .effective(owner, LibraryNames.id(libraryFeature))
                .orElse(null);
    }

    Optional<Formula> valueOf(Instance instance, Element owner, String libraryFeature) {
        return Optional.ofNullable(effective(owner, libraryFeature))
                .flatMap(model.inheritance()::value)
                .map(value -> formula(value.expression(), instance));
    }

    Formula formula(Expression expression, Instance scope) {
        return number(expression, scope, false, scope.usage());
    }

    Formula number(Expression expression, Instance scope, boolean isTruth, Element at) {
        flattening.takeDraws();
        try {
            return new Formula(flattening.momentaryNumber(expression, scope, isTruth), flattening.takeDraws());
        } catch (FaultException e) {
            throw fault(e, scope, at);
        }
    }

    Question question(Expression expression, Instance scope) {
        flattening.takeDraws();
        try {
            return new Question(flattening.momentaryCondition(expression, scope), flattening.takeDraws());
        } catch (FaultException e) {
            throw fault(e, scope, scope.usage());
        }
    }

    Condition watched(Expression expression, Instance scope) {
        try {
            return flattening.condition(expression, scope);
        } catch (FaultException e) {
            throw fault(e, scope, scope.usage());
        }
    }

    private static ModelFault fault(FaultException e, Instance scope, Element at) {
        return new ModelFault(scope.path() + ": " + e.getMessage(), List.of(at.id()));
    }

    String words(Expression expression) {
        return ExpressionText.of(expression, ExpressionText.byName(model.environment()::nameOf));
    }

    String name(Element element) {
        return Objects.requireNonNullElse(
                model.names().effectiveName(element), element.kind().title());
    }

    static boolean isPart(Instance instance) {
        return switch (instance.usage().kind()) {
            case PART, PART_DEFINITION, ITEM, REFERENCE, SUBJECT -> true;
            default -> false;
        };
    }

    /** The part that performs a step. */
    static Instance part(Instance step) {
        Instance at = step;
        while (!isPart(at) && at.around() != null) {
            at = at.around();
        }
        return at;
    }

    Instance first(Instance around, Element usage) {
        return flattening.in(around, usage).stream().findFirst().orElseGet(() -> flattening.inside(usage, around));
    }
}
