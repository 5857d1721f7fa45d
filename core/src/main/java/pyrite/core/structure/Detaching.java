package pyrite.core.structure;

import java.util.ArrayDeque;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * What goes with elements that are removed: the connections, interfaces, bindings and flows that lead to parts and
 * ports, the transitions that lead to states or leave them, and what redefines these in special machines.
 *
 * @param asked what is to be removed
 * @param along what goes with it
 */
public record Detaching(Set<Element> asked, Set<Element> along) {

    public static Detaching of(Model model, Collection<Element> removed) {
        Set<ElementId> gone = new HashSet<>();
        Set<Element> along = new LinkedHashSet<>();
        ArrayDeque<Element> open = new ArrayDeque<>(removed);
        while (!open.isEmpty()) {
            for (Element each : model.subtree(open.poll().id())) {
                gone.add(each.id());
                model.referrers(each.id()).stream()
                        .flatMap(user -> goingWith(model, each, model.get(user)).stream())
                        .filter(along::add)
                        .forEach(open::add);
            }
        }
        along.removeIf(each -> model.owners(each).stream().anyMatch(owner -> gone.contains(owner.id())));
        along.removeAll(removed);
        return new Detaching(new LinkedHashSet<>(removed), along);
    }

    private static Optional<Element> goingWith(Model model, Element gone, Element user) {
        return switch (user.kind()) {
            case CONNECTOR_END -> Optional.ofNullable(user.owner()).map(model::get);
            case BINDING -> Optional.of(user);
            case TRANSITION, SUCCESSION ->
                switch (gone.kind()) {
                    case STATE, EXHIBIT, TRANSITION -> Optional.of(user);
                    default -> Optional.empty();
                };
            default -> user.kind().isFlow() ? Optional.of(user) : Optional.empty();
        };
    }

    /** All that is removed at the top of its own. */
    public Set<Element> tops() {
        Set<Element> tops = new LinkedHashSet<>(asked);
        tops.addAll(along);
        return tops;
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
        Element first = asked.iterator().next();
        String what = asked.size() == 1 ? name(model, first) : asked.size() + " elements";
        String again = asked.size() == 1
                ? model.redefined(first).stream()
                        .findFirst()
                        .map(model::get)
                        .map(old -> "; " + model.names().effectiveName(old) + " is as "
                                + model.names().effectiveName(model.get(Objects.requireNonNull(old.owner())))
                                + " has it again")
                        .orElse("")
                : "";
        return what + " removed" + (along.isEmpty() ? "" : " with " + companions(model)) + again;
    }

    /** How many connections and transitions go along; those of other machines are named, because nobody sees them. */
    private String companions(Model model) {
        List<Element> transitions = along.stream()
                .filter(each -> each.kind() == ElementKind.TRANSITION || each.kind() == ElementKind.SUCCESSION)
                .toList();
        Set<ElementId> here = asked.stream().map(Element::owner).collect(Collectors.toSet());
        String elsewhere = transitions.stream()
                .map(Element::owner)
                .filter(owner -> owner != null && !here.contains(owner))
                .distinct()
                .map(owner -> name(model, model.get(owner)))
                .collect(Collectors.joining(", "));
        return Stream.of(
                        counted(along.size() - transitions.size(), "connection"),
                        counted(transitions.size(), "transition")
                                + (elsewhere.isEmpty() ? "" : ", also of " + elsewhere))
                .filter(words -> !words.isEmpty())
                .collect(Collectors.joining(" and "));
    }

    private static String counted(int count, String noun) {
        return count == 0 ? "" : count + " " + noun + (count == 1 ? "" : "s");
    }

    private static String name(Model model, Element element) {
        return Objects.requireNonNullElseGet(
                model.names().effectiveName(element), () -> element.kind().title());
    }
}
