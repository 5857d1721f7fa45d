package pyrite.core.structure;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * What goes with parts and ports that are removed: the connections, interfaces, bindings and flows that lead to them.
 *
 * @param tops what is to be removed, connectors included
 * @param connectors how many of these are connectors that go along
 */
public record Detaching(Set<Element> tops, int connectors) {

    public static Detaching of(Model model, Collection<Element> removed) {
        Set<ElementId> gone = new HashSet<>();
        removed.forEach(top -> model.subtree(top.id()).forEach(each -> gone.add(each.id())));
        Set<Element> connectors = gone.stream()
                .flatMap(id -> model.referrers(id).stream())
                .map(model::get)
                .flatMap(user -> connector(model, user).stream())
                .filter(connector -> !gone.contains(connector.id()))
                .collect(Collectors.toCollection(LinkedHashSet::new));
        Set<Element> tops = new LinkedHashSet<>(removed);
        tops.addAll(connectors);
        return new Detaching(tops, connectors.size());
    }

    private static Optional<Element> connector(Model model, Element user) {
        if (user.kind() == ElementKind.CONNECTOR_END) {
            return Optional.ofNullable(user.owner()).map(model::get);
        }
        return user.kind() == ElementKind.BINDING || user.kind().isFlow() ? Optional.of(user) : Optional.empty();
    }

    /** Some siblings and the connectors among them. */
    public static List<Element> withConnectors(Model model, List<Element> elements) {
        Set<ElementId> chosen = elements.stream().map(Element::id).collect(Collectors.toSet());
        Set<Element> all = new LinkedHashSet<>(elements);
        of(model, elements).tops().stream()
                .filter(each -> ConnectorEnds.of(model, each).size() > 1
                        && ConnectorEnds.of(model, each).stream()
                                .allMatch(end -> chosen.contains(end.chain().getFirst())))
                .forEach(all::add);
        return List.copyOf(all);
    }

    /** One line for the history. */
    public String summary(Model model) {
        List<Element> asked = new ArrayList<>(tops).subList(0, tops.size() - connectors);
        String what = asked.size() == 1
                ? Objects.requireNonNullElseGet(
                        model.names().effectiveName(asked.getFirst()),
                        () -> asked.getFirst().kind().title())
                : asked.size() + " elements";
        String again = asked.size() == 1
                ? model.redefined(asked.getFirst()).stream()
                        .findFirst()
                        .map(model::get)
                        .map(old -> "; " + model.names().effectiveName(old) + " is as "
                                + model.names().effectiveName(model.get(Objects.requireNonNull(old.owner())))
                                + " has it again")
                        .orElse("")
                : "";
        return what + " removed"
                + (connectors == 0 ? "" : " with " + connectors + (connectors == 1 ? " connection" : " connections"))
                + again;
    }
}
