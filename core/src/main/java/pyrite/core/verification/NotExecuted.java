package pyrite.core.verification;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/** Behaviour that is written in the parts of what runs and that no part performs or exhibits: a run leaves it out. */
public final class NotExecuted {
    private final Model model;
    private final List<String> found = new ArrayList<>();
    private final Set<ElementId> seen = new HashSet<>();

    private NotExecuted(Model model) {
        this.model = model;
    }

    /** What a run of a case leaves out, a sentence each; empty also where the case cannot run. */
    public static List<String> by(Model model, Element usage) {
        NotExecuted search = new NotExecuted(model);
        try {
            Element system = CaseSetup.system(model, usage, new Flattening(model));
            search.look(system, search.name(system));
        } catch (ModelFault _) {
            return List.of();
        }
        return List.copyOf(search.found);
    }

    private void look(Element part, String path) {
        for (Element feature : model.inheritance().features(part)) {
            if (seen.add(feature.id())) {
                if (feature.kind() == ElementKind.PART) {
                    look(feature, path + "." + name(feature));
                } else if (feature.kind().isBehavior()
                        && feature.kind() != ElementKind.PERFORM
                        && feature.kind() != ElementKind.EXHIBIT
                        && !isPerformed(part, feature)) {
                    found.add(feature.kind().title() + " '" + name(feature) + "' of '" + path
                            + "' is written there but not "
                            + (isState(feature)
                                    ? "exhibited; write 'exhibit state'"
                                    : "performed; write 'perform action'")
                            + " to run it");
                }
            }
        }
    }

    private static boolean isState(Element behavior) {
        return behavior.kind() == ElementKind.STATE;
    }

    /** Whether a part performs or exhibits it by name. */
    private boolean isPerformed(Element part, Element behavior) {
        return model.inheritance().features(part).stream()
                .filter(feature -> feature.kind() == ElementKind.PERFORM || feature.kind() == ElementKind.EXHIBIT)
                .anyMatch(feature -> model.inheritance().isA(feature, behavior.id()));
    }

    private String name(Element element) {
        String name = model.names().effectiveName(element);
        return name == null ? element.kind().title() : name;
    }
}
