package pyrite.core.story;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Span;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/**
 * Turns the steps of a story into what they are to the system: an event that it receives, a function that it performs,
 * or a message that it sends. The step stays the same element, so its text and its links stay.
 */
public final class Turning {
    private static final int MOST_OFFERED = 3;
    /** From this similarity on, a function there is is proposed and not only offered. */
    private static final double CLEARLY_ALIKE = 0.5;

    private final Model model;
    private final Element useCase;

    public Turning(Model model, Element useCase) {
        this.model = model;
        this.useCase = useCase;
    }

    /** What a step can become. */
    public enum Kind {
        RECEIVE("receives"),
        FUNCTION("does"),
        SEND("sends");

        private final String verb;

        Kind(String verb) {
            this.verb = verb;
        }

        public String verb() {
            return verb;
        }
    }

    /**
     * What a step probably is.
     *
     * @param name of the item or function
     * @param actor whom it comes from or goes to; null if nobody is named
     * @param functions functions there are that do much the same, best first
     */
    public record Proposal(
            Element step, Kind kind, String name, @Nullable Element actor, List<Element> functions) {}

    /** @param name of a definition there is, or of a new one */
    public record Choice(
            Element step, Kind kind, String name, @Nullable Element actor) {}

    /** What a step has become; empty for one that is not turned yet. */
    public static Optional<Kind> became(Model model, Element step) {
        return switch (step.kind()) {
            case ACCEPT -> Optional.of(Kind.RECEIVE);
            case SEND -> Optional.of(Kind.SEND);
            case ACTION, PERFORM -> definition(model, step).map(_ -> Kind.FUNCTION);
            default -> Optional.empty();
        };
    }

    /** In words: {@code receives SurgeWarning}; empty for a step that is not turned. */
    public static String inWords(Model model, Element step) {
        return became(model, step)
                .map(kind -> kind.verb() + " "
                        + definition(model, step)
                                .map(each -> String.valueOf(model.names().effectiveName(each)))
                                .orElse("something"))
                .orElse("");
    }

    /** The item that is received or sent, or the function that is done. */
    public static Optional<Element> definition(Model model, Element step) {
        return switch (step.kind()) {
            case ACCEPT ->
                model.children(step.id()).stream()
                        .filter(child -> child.kind() == ElementKind.PAYLOAD)
                        .flatMap(payload -> UseCases.type(model, payload).stream())
                        .findFirst();
            case SEND -> step.get(Property.CONTENT).flatMap(content -> sent(model, content));
            default ->
                model.inheritance().generals(step).stream()
                        .filter(general ->
                                general.kind() == ElementKind.ACTION_DEFINITION && !model.isLibrary(general.id()))
                        .findFirst();
        };
    }

    /** What is sent: something new, or what a function gives. */
    private static Optional<Element> sent(Model model, Expression content) {
        return switch (content) {
            case Expression.Construction(ElementId type, var _, var _) -> model.find(type);
            case Expression.FeatureReference reference
            when reference.last() instanceof ElementId feature ->
                model.find(feature).flatMap(given -> UseCases.type(model, given));
            default -> Optional.empty();
        };
    }

    /** The steps that are not turned yet, each with what it probably is. */
    public List<Proposal> proposals() {
        List<Element> functions = model.ownElements(ElementKind.ACTION_DEFINITION)
                .filter(definition -> definition.name() != null)
                .toList();
        SimilarTexts similar = SimilarTexts.among(model, functions);
        Actors actors = Actors.of(model, useCase);
        return Story.of(model, useCase).lines().stream()
                .filter(line -> became(model, line.step()).isEmpty() && isOwn(line.step()))
                .map(line -> proposal(line, actors, similar))
                .toList();
    }

    private boolean isOwn(Element step) {
        return step.kind() == ElementKind.ACTION && model.owners(step).contains(useCase);
    }

    private static Proposal proposal(Story.Line line, Actors actors, SimilarTexts similar) {
        Sentence sentence = Sentence.of(line.text());
        List<Element> named = actors.in(line.text());
        Element first = actors.in(sentence.subject()).stream().findFirst().orElse(null);
        List<SimilarTexts.Match> matches = similar.to(line.text(), MOST_OFFERED);
        List<Element> functions =
                matches.stream().map(SimilarTexts.Match::element).toList();
        if (first != null) {
            return new Proposal(line.step(), Kind.RECEIVE, sentence.item(), first, functions);
        }
        boolean isTold = sentence.tells() && !named.isEmpty();
        return isTold
                ? new Proposal(line.step(), Kind.SEND, sentence.item(), named.getFirst(), functions)
                : new Proposal(
                        line.step(),
                        Kind.FUNCTION,
                        !matches.isEmpty() && matches.getFirst().similarity() >= CLEARLY_ALIKE
                                ? String.valueOf(functions.getFirst().name())
                                : sentence.function(),
                        null,
                        functions);
    }

    /**
     * Turns steps at once. Definitions are made beside the use case where there are none of the name.
     *
     * @throws IllegalArgumentException with the reason if a step is turned already or a name is missing
     */
    public Edit turn(List<Choice> choices) {
        List<Element> put = new ArrayList<>();
        Map<String, Element> made = new LinkedHashMap<>();
        for (Choice choice : choices) {
            if (became(model, choice.step()).isPresent()) {
                throw new IllegalArgumentException(
                        "step '" + choice.step().name() + "' is turned already: it " + inWords(model, choice.step()));
            }
            if (!isOwn(choice.step())) {
                throw new IllegalArgumentException("only a plain step of this use case can be turned, and '"
                        + choice.step().name() + "' is "
                        + choice.step().kind().titleWithArticle());
            }
            if (choice.name().isBlank()) {
                throw new IllegalArgumentException("give what step '"
                        + choice.step().name() + "' " + choice.kind().verb() + " a name");
            }
            Element definition = definition(choice, made, put);
            put.addAll(turned(choice, definition));
        }
        return new Edit(put, Set.of());
    }

    private Element definition(Choice choice, Map<String, Element> made, List<Element> put) {
        ElementKind kind = choice.kind() == Kind.FUNCTION ? ElementKind.ACTION_DEFINITION : ElementKind.ITEM_DEFINITION;
        String name = ProposedNames.ofDefinition(choice.name(), "Unnamed");
        Element known = model.ownElements(kind)
                .filter(definition -> choice.name().strip().equals(definition.name()) || name.equals(definition.name()))
                .findFirst()
                .orElse(made.get(kind + name));
        if (known != null) {
            return known;
        }
        Element owner = model.owners(useCase).stream()
                .filter(around -> around.kind().isPackage())
                .findFirst()
                .orElseThrow(() -> new IllegalArgumentException("the use case stands in no package"));
        Rank last = made.isEmpty()
                ? model.rankAtEnd(owner.id())
                : Rank.between(List.copyOf(made.values()).getLast().rank(), null);
        Element fresh = Element.of(kind, owner.id(), last, model.names().free(owner.id(), name));
        put.add(fresh);
        if (kind == ElementKind.ACTION_DEFINITION) {
            put.add(Element.of(ElementKind.DOCUMENTATION, fresh.id(), Rank.between(null, null), null)
                    .with(Property.TEXT, model.inheritance().documentation(choice.step())));
        }
        made.put(kind + name, fresh);
        return fresh;
    }

    private List<Element> turned(Choice choice, Element definition) {
        Element step = choice.step();
        Expression actor = choice.actor() == null
                ? null
                : new Expression.FeatureReference(List.of(choice.actor().id()), Span.NONE);
        return switch (choice.kind()) {
            case FUNCTION -> List.of(step.with(Property.TYPES, List.of(Reference.to(definition.id()))));
            case RECEIVE ->
                List.of(
                        as(step, ElementKind.ACCEPT)
                                .with(Property.TRIGGER, "accept")
                                .with(Property.VIA, actor),
                        Element.of(ElementKind.PAYLOAD, step.id(), Rank.between(null, null), null)
                                .with(Property.TYPES, List.of(Reference.to(definition.id()))));
            case SEND ->
                List.of(as(step, ElementKind.SEND)
                        .with(Property.CONTENT, new Expression.Construction(definition.id(), List.of(), Span.NONE))
                        .with(Property.RECEIVER, actor));
        };
    }

    private static Element as(Element step, ElementKind kind) {
        return new Element(
                step.id(), kind, step.owner(), step.rank(), step.name(), step.shortName(), step.properties());
    }

    /** A sentence in parts, as far as its words tell: who, does, what. */
    record Sentence(String subject, String verb, String object) {
        private static final Set<String> ENDS = Set.of(
                "with", "to", "that", "from", "for", "in", "on", "at", "by", "which", "of", "until", "while", "and",
                "one");
        private static final Set<String> TELLING =
                Set.of("tell", "report", "show", "send", "signal", "warn", "inform", "say", "answer", "ask");
        private static final Set<String> ARTICLES = Set.of("the", "a", "an", "each", "every", "this", "its", "their");

        static Sentence of(String text) {
            String[] words = text.strip().replaceAll("[.!?]+$", "").split("[\\s,;:]+");
            int first = words.length > 0 && ARTICLES.contains(words[0].toLowerCase(Locale.ROOT)) ? 2 : 1;
            for (int i = first; i < Math.min(words.length, first + 5); i++) {
                String base = ProposedRequirement.base(words[i]);
                if (!base.isEmpty()) {
                    return new Sentence(String.join(" ", List.of(words).subList(0, i)), base, object(words, i + 1));
                }
            }
            return new Sentence("", "", text.replaceFirst("\\s(that|which|until|while)\\s.*", ""));
        }

        private static String object(String[] words, int from) {
            StringBuilder object = new StringBuilder();
            for (int i = from; i < words.length; i++) {
                String word = words[i].toLowerCase(Locale.ROOT);
                if (ENDS.contains(word)) {
                    break;
                }
                if (!ARTICLES.contains(word)) {
                    object.append(object.isEmpty() ? "" : " ").append(words[i]);
                }
            }
            return object.toString();
        }

        boolean tells() {
            return TELLING.contains(verb);
        }

        /** A name for what is said: the object, else the verb. */
        String item() {
            return ProposedNames.ofDefinition(object.isEmpty() ? verb : object, "Message");
        }

        /** A name for what is done: verb and object; without an object, or in the passive, who and verb. */
        String function() {
            String words = verb.isEmpty()
                    ? object
                    : verb.equals("be")
                            ? subject + " " + object
                            : object.isEmpty() ? subject + " " + verb : verb + " " + object;
            return ProposedNames.ofDefinition(words, "Function");
        }
    }
}
