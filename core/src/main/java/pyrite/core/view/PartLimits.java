package pyrite.core.view;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Stream;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.Links;

/** The requirements that limit an attribute of a part: it satisfies them, and their constraints name the attribute. */
public final class PartLimits {
    private PartLimits() {}

    /**
     * @param part a usage, or a definition, whose usages count
     * @param attributes names of attributes
     */
    public static List<Element> of(Model model, Element part, Set<String> attributes) {
        Links links = Links.in(model);
        Set<ElementId> requirements = new LinkedHashSet<>();
        parts(model, part)
                .flatMap(each -> links.of(each.id()).stream())
                .filter(link -> link.kind().equals(LinkKind.SATISFY))
                .forEach(link -> requirements.add(link.target()));
        List<Element> limiting = new ArrayList<>();
        for (ElementId id : requirements) {
            Element requirement = model.get(id);
            if (names(model, requirement).anyMatch(attributes::contains)) {
                limiting.add(requirement);
            }
        }
        return limiting;
    }

    private static Stream<Element> parts(Model model, Element part) {
        return Stream.concat(
                Stream.of(part),
                part.kind().isDefinition()
                        ? model.referrers(part.id()).stream()
                                .map(model::get)
                                .filter(user -> user.kind().isUsage()
                                        && user.references(Property.TYPES).stream()
                                                .anyMatch(type -> type.target().equals(part.id())))
                        : model.inheritance().redefined(part).stream());
    }

    /** The names of everything that the constraints of a requirement refer to, those it inherits included. */
    private static Stream<String> names(Model model, Element requirement) {
        return model.inheritance().generals(requirement).stream()
                .flatMap(general -> model.subtree(general.id()).stream())
                .flatMap(member -> member.get(Property.RESULT).stream())
                .flatMap(expression -> referents(expression).stream())
                .flatMap(id -> model.find(id).stream())
                .flatMap(element -> Stream.ofNullable(model.names().effectiveName(element)));
    }

    private static List<ElementId> referents(Expression expression) {
        List<ElementId> found = new ArrayList<>();
        expression.forEachReferent(referent -> {
            if (referent instanceof ElementId id) {
                found.add(id);
            }
        });
        return found;
    }
}
