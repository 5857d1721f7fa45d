package pyrite.core.dynamics;

import java.util.List;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/** What steps without a name are called: by what they are to a state or transition, else by their kind and number. */
final class UnnamedSteps {
    private UnnamedSteps() {}

    static String name(Model model, Element step) {
        Element owner = step.owner() == null ? null : model.find(step.owner()).orElse(null);
        String role = step.get(Property.ROLE).orElse("");
        if (owner == null) {
            return step.kind().title();
        }
        if (!role.isEmpty()) {
            return owner.kind() == ElementKind.TRANSITION ? "effect" : role;
        }
        List<Element> alike = model.children(owner.id()).stream()
                .filter(each -> each.kind() == step.kind() && model.names().effectiveName(each) == null)
                .toList();
        String title =
                step.kind() == ElementKind.WHILE && step.get(Property.CONDITION).isEmpty()
                        ? "loop"
                        : step.kind().shortKeyword() == null
                                ? step.kind().keyword()
                                : step.kind().shortKeyword();
        return alike.size() < 2 ? title : title + " " + (alike.indexOf(step) + 1);
    }
}
