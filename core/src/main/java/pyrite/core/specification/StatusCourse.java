package pyrite.core.specification;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * The permitted changes of a requirement's status: the transitions of the state definition that the project marks with
 * {@code #lifecycle}, else of the library's.
 *
 * @param steps for each status, those that may follow it
 */
public record StatusCourse(Map<String, List<String>> steps) {
    public static StatusCourse of(Model model) {
        Element states = model.referrers(Metadata.LIFECYCLE).stream()
                .map(model::get)
                .filter(each -> each.kind() == ElementKind.STATE_DEFINITION)
                .findFirst()
                .orElseGet(() -> model.get(LibraryNames.id("Specifications::StatusCourse")));
        Map<String, List<String>> steps = new LinkedHashMap<>();
        model.children(states.id()).stream()
                .filter(child -> child.kind() == ElementKind.TRANSITION)
                .forEach(transition -> steps.computeIfAbsent(
                                name(model, transition, Property.SOURCE), _ -> new ArrayList<>())
                        .add(name(model, transition, Property.TARGET)));
        return new StatusCourse(steps);
    }

    private static String name(Model model, Element transition, Property<Reference> end) {
        return transition
                .get(end)
                .map(reference -> model.names().effectiveName(model.get(reference.target())))
                .map(Objects::toString)
                .orElse("");
    }

    /** What may follow a status. */
    public List<String> after(String status) {
        return steps.getOrDefault(status, List.of());
    }

    public boolean allows(String from, String to) {
        return from.equals(to) || after(from).contains(to);
    }
}
