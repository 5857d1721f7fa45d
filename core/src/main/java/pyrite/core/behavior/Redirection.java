package pyrite.core.behavior;

import java.util.Optional;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Reference;

/**
 * A transition of a special machine that redefines an inherited one and states another source than that has. It was
 * written when the inherited one left there.
 *
 * @param stated the state it says it leaves
 * @param inherited the state the inherited transition leaves
 */
public record Redirection(Element stated, Element inherited) {
    public static Optional<Redirection> of(Model model, Element machine, Element transition) {
        Optional<Element> stated = source(model, machine, transition);
        return model.inheritance().redefined(transition).stream()
                .filter(general -> !general.equals(transition))
                .flatMap(general -> source(model, machine, general).stream())
                .findFirst()
                .flatMap(inherited ->
                        stated.filter(own -> !own.equals(inherited)).map(own -> new Redirection(own, inherited)));
    }

    private static Optional<Element> source(Model model, Element machine, Element transition) {
        return transition
                .get(Property.SOURCE)
                .map(Reference::target)
                .flatMap(source -> standing(model, machine, source));
    }

    private static Optional<Element> standing(Model model, Element machine, ElementId source) {
        return model.inheritance().effective(machine, source).or(() -> model.find(source));
    }

    String sentence(Model model) {
        return " leaves '" + model.names().effectiveName(stated) + "', and the transition it redefines leaves '"
                + model.names().effectiveName(inherited) + "'";
    }
}
