package pyrite.core.story;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * Who takes part in a use case, and who does a step: the one that its text names first, by the name of the actor or of
 * its type; for an event received or a message the one that it comes from or goes to.
 */
public final class Actors {
    private final List<Named> named;

    private record Named(Element actor, List<Pattern> words) {}

    private Actors(List<Named> named) {
        this.named = named;
    }

    public static Actors of(Model model, Element useCase) {
        List<Named> named = new ArrayList<>();
        all(model, useCase).forEach(actor -> named.add(new Named(actor, words(model, actor))));
        return new Actors(named);
    }

    /** The actors of a use case, inherited ones included. */
    public static List<Element> all(Model model, Element useCase) {
        return features(model, useCase, ElementKind.ACTOR);
    }

    /** What the use case is about; empty if nothing is said. */
    public static Optional<Element> subject(Model model, Element useCase) {
        return features(model, useCase, ElementKind.SUBJECT).stream().findFirst();
    }

    private static List<Element> features(Model model, Element useCase, ElementKind kind) {
        return model.inheritance().features(useCase).stream()
                .filter(feature -> feature.kind() == kind && !model.isLibrary(feature.id()))
                .toList();
    }

    private static List<Pattern> words(Model model, Element actor) {
        Stream<String> types = model.inheritance().generals(actor).stream()
                .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                .map(general -> Objects.requireNonNullElse(general.name(), ""));
        return Stream.concat(Stream.of(Objects.requireNonNullElse(model.names().effectiveName(actor), "")), types)
                .filter(name -> !name.isBlank())
                .map(Actors::spaced)
                .distinct()
                .map(words -> Pattern.compile(
                        "(?<![\\p{L}\\p{N}])" + Pattern.quote(words).replace(" ", "\\E\\s+\\Q")
                                + "(?:s|es)?(?![\\p{L}\\p{N}])",
                        Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE))
                .toList();
    }

    /** {@code HarbourMaster} gives {@code harbour master}. */
    public static String spaced(String name) {
        return Stream.of(name.split("(?<=[\\p{Ll}\\p{N}])(?=\\p{Lu})|[_\\s]+"))
                .map(word -> word.toLowerCase(Locale.ROOT))
                .collect(Collectors.joining(" "));
    }

    /** Who does a step; empty if its text names nobody. */
    public Optional<Element> of(Story.Line line) {
        Optional<Element> joined = joined(line.step());
        return joined.isPresent() ? joined : first(line.text());
    }

    private Optional<Element> first(String text) {
        Element found = null;
        int earliest = Integer.MAX_VALUE;
        for (Named each : named) {
            for (Pattern words : each.words()) {
                var match = words.matcher(text);
                if (match.find() && match.start() < earliest) {
                    earliest = match.start();
                    found = each.actor();
                }
            }
        }
        return Optional.ofNullable(found);
    }

    /** All actors that a text names. */
    public List<Element> in(String text) {
        return named.stream()
                .filter(each -> each.words().stream()
                        .anyMatch(words -> words.matcher(text).find()))
                .map(Named::actor)
                .toList();
    }

    /** The actor that a step receives from or sends to. */
    private Optional<Element> joined(Element step) {
        return Stream.of(Property.VIA, Property.RECEIVER)
                .filter(property -> step.kind() == ElementKind.ACCEPT || step.kind() == ElementKind.SEND)
                .flatMap(property -> step.get(property).stream())
                .flatMap(expression -> expression.referents().stream())
                .map(referent -> named.stream()
                        .map(Named::actor)
                        .filter(actor -> actor.id().equals(referent))
                        .findFirst())
                .flatMap(Optional::stream)
                .findFirst();
    }
}
