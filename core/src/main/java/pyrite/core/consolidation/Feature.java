package pyrite.core.consolidation;

import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.Model;

/**
 * Something that use cases found.
 *
 * @param element what stands for it: a definition, an attribute, or the first of equal flows
 * @param places where it was found
 * @param text what is said of it: its name, its documentation and the texts of the steps
 */
public record Feature(Kind kind, Element element, List<Place> places, List<Parameter> parameters, String text) {
    /** What is found. */
    public enum Kind {
        FUNCTION("function", "functions"),
        /** An event that is received, or a message that is sent. */
        ITEM("event or message", "events and messages"),
        VALUE("value", "values"),
        FLOW("flow", "flows");

        private final String title;
        private final String titles;

        Kind(String title, String titles) {
            this.title = title;
            this.titles = titles;
        }

        public String title() {
            return title;
        }

        public String titles() {
            return titles;
        }
    }

    /** @param member the step, attribute or flow of the use case */
    public record Place(Element useCase, Element member) {}

    /**
     * A parameter of a function, or a feature of an item.
     *
     * @param direction in, out or inout; empty for a feature of an item
     */
    public record Parameter(
            Element element,
            String name,
            String direction,
            @Nullable Element type,
            boolean isOptional) {
        /** Whether two would be one: both directions and types agree. */
        boolean fits(Parameter other) {
            return direction.equals(other.direction) && Objects.equals(type, other.type);
        }

        /** {@code in level : LevelReading}. */
        public String inWords(Model model) {
            return (direction.isEmpty() ? "" : direction + " ")
                    + name
                    + (type == null ? "" : " : " + model.names().effectiveName(type));
        }
    }

    public Feature {
        places = List.copyOf(places);
        parameters = List.copyOf(parameters);
    }

    /** The use cases that found it, in their order. */
    public List<Element> useCases() {
        return places.stream().map(Place::useCase).distinct().toList();
    }

    /** Whether both have the same parameters, whatever their order. */
    boolean hasSameParameters(Feature other) {
        return signature().equals(other.signature());
    }

    boolean sharesParameters(Feature other) {
        return parameters.stream().anyMatch(one -> other.parameters.stream().anyMatch(one::fits));
    }

    private Set<List<Object>> signature() {
        return parameters.stream()
                .map(parameter -> List.<Object>of(
                        parameter.name().toLowerCase(Locale.ROOT),
                        parameter.direction(),
                        parameter.type() == null ? "" : parameter.type().id()))
                .collect(Collectors.toSet());
    }
}
