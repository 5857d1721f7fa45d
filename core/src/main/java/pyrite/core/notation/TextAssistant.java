package pyrite.core.notation;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.Deque;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Keywords;
import pyrite.core.expression.Name;
import pyrite.core.expression.Span;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Names;

/**
 * Assists typing in the text of some elements: proposes names that fit at a place, and explains the name at a place.
 * Places are character offsets from 0. Names are resolved in the saved model, from the nearest enclosing element that
 * it contains.
 */
public final class TextAssistant {
    private static final int MOST = 60;
    private static final Pattern TYPE_SOUGHT = Pattern.compile(":\\s*~?\\s*[\\w']*$");
    private static final Comparator<Map.Entry<ElementId, ? extends ReadResult.Place>> OUTERMOST =
            Comparator.comparingInt((Map.Entry<ElementId, ? extends ReadResult.Place> entry) ->
                            entry.getValue().span().start())
                    .thenComparingInt(entry -> -entry.getValue().span().end());

    private final Model model;
    private final Tokens tokens;
    private final Map<ElementId, ? extends ReadResult.Place> places;

    /** @param places where the elements of the text stand, by {@link NotationReader#placesIn} */
    public TextAssistant(Model model, String text, Map<ElementId, ? extends ReadResult.Place> places) {
        this.model = model;
        this.tokens = Tokens.of(text);
        this.places = places;
    }

    /** The names that go on from a line that is to become a member of an element. */
    public static List<Proposal> forMember(Model model, ElementId owner, String line, int at) {
        String head = "member {";
        Source text = new Source("", head + line);
        ReadResult.Place place = new ReadResult.Place() {
            @Override
            public Source source() {
                return text;
            }

            @Override
            public Span span() {
                return new Span(0, head.length());
            }
        };
        List<Proposal> fitting =
                new TextAssistant(model, head + line, Map.of(owner, place)).proposals(head.length() + at);
        return TYPE_SOUGHT.matcher(line.substring(0, at)).find() ? definitionsOnly(model, owner, fitting) : fitting;
    }

    /** Behind the sign for a type stand definitions, unless none fits. */
    private static List<Proposal> definitionsOnly(Model model, ElementId owner, List<Proposal> fitting) {
        List<Proposal> definitions = fitting.stream()
                .filter(proposal -> model.names()
                        .resolve(Name.of(proposal.name().replace("'", "")), owner)
                        .flatMap(model::find)
                        .filter(element ->
                                element.kind().isDefinition() || element.kind().isPackage())
                        .isPresent())
                .toList();
        return definitions.isEmpty() ? fitting : definitions;
    }

    /** A name that fits; {@code detail} says what it is. */
    public record Proposal(String name, String detail) {}

    /** The names that go on from what is typed before a place, those that begin with it first. */
    public List<Proposal> proposals(int at) {
        int last = lastBefore(at);
        boolean within = last >= 0 && tokens.end(last) >= at && isName(last);
        String typed = within
                ? tokens.text(last)
                        .substring(
                                0,
                                Math.clamp(
                                        at - tokens.start(last),
                                        0,
                                        tokens.text(last).length()))
                : "";
        int before = within ? last - 1 : last;
        boolean step = before >= 0
                && (tokens.text(before).equals(".") || tokens.text(before).equals("::"));
        Stream<Proposal> found = step
                ? owner(before).map(owner -> members(owner).stream()).orElse(Stream.empty())
                : Stream.concat(
                        names(scope(at)).stream(),
                        Keywords.RESERVED.stream().map(word -> new Proposal(word, "word of the notation")));
        String requested = typed.toLowerCase(Locale.ROOT);
        return found.filter(proposal -> proposal.name().toLowerCase(Locale.ROOT).contains(requested))
                .sorted(Comparator.comparing((Proposal proposal) ->
                                !proposal.name().toLowerCase(Locale.ROOT).startsWith(requested))
                        .thenComparing(proposal -> proposal.detail().equals("word of the notation"))
                        .thenComparing(Proposal::name))
                .limit(MOST)
                .toList();
    }

    /** The element that the name at a place means, or that is declared there. */
    public Optional<Element> meaning(int at) {
        Optional<ElementId> declared = places.entrySet().stream()
                .filter(entry -> entry.getValue().span().start() <= at
                        && at <= entry.getValue().span().end())
                .min(OUTERMOST)
                .map(Map.Entry::getKey)
                .filter(model::has);
        int token = tokenAt(at);
        if (token < 0 || !isName(token)) {
            return declared.flatMap(model::find);
        }
        return resolve(token).or(() -> declared).flatMap(model::find);
    }

    /** Where an element is declared in the text. */
    public Optional<Span> placeOf(ElementId id) {
        return Optional.ofNullable(places.get(id)).map(ReadResult.Place::span);
    }

    private boolean isName(int token) {
        return tokens.type(token) == Tokens.Type.NAME || tokens.type(token) == Tokens.Type.KEYWORD;
    }

    /** The last token that begins before a place, -1 if there is none. */
    private int lastBefore(int at) {
        int low = 0;
        int high = tokens.last();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (tokens.start(middle) < at) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low - 1;
    }

    private int tokenAt(int at) {
        int last = lastBefore(at + 1);
        return last >= 0 && tokens.end(last) >= at ? last : -1;
    }

    /** What the chain of names up to a sign {@code .} or {@code ::} leads to. */
    private Optional<ElementId> owner(int sign) {
        return sign > 0 && isName(sign - 1) ? resolve(sign - 1) : Optional.empty();
    }

    private Optional<ElementId> resolve(int token) {
        int first = token;
        while (first >= 2
                && (tokens.text(first - 1).equals(".") || tokens.text(first - 1).equals("::"))
                && isName(first - 2)) {
            first -= 2;
        }
        Names names = model.names();
        Optional<ElementId> found = names.resolve(Name.of(tokens.text(first)), scope(tokens.start(first)))
                .or(() -> names.resolveFunction(Name.of(tokens.text(token)), scope(tokens.start(token))));
        for (int step = first + 2; step <= token; step += 2) {
            String name = tokens.text(step);
            found = found.flatMap(owner -> names.member(owner, name));
        }
        return found;
    }

    /** The nearest element around a place that the model knows; null stands for the top. */
    private @Nullable ElementId scope(int at) {
        List<? extends Map.Entry<ElementId, ? extends ReadResult.Place>> heads = places.entrySet().stream()
                .sorted(Comparator.comparingInt(entry -> entry.getValue().span().start()))
                .toList();
        Deque<ElementId> open = new ArrayDeque<>();
        int head = -1;
        for (int token = 0; token < tokens.last() && tokens.start(token) < at; token++) {
            while (head + 1 < heads.size()
                    && heads.get(head + 1).getValue().span().start() <= tokens.start(token)) {
                head++;
            }
            if (tokens.text(token).equals("{") && head >= 0) {
                open.push(heads.get(head).getKey());
            } else if (tokens.text(token).equals("}") && !open.isEmpty()) {
                open.pop();
            }
        }
        return open.stream().filter(model::has).findFirst().orElseGet(this::around);
    }

    /** The owner of what stands at the top of the text. */
    private @Nullable ElementId around() {
        return places.keySet().stream()
                .filter(model::has)
                .findFirst()
                .map(model::get)
                .map(Element::owner)
                .orElse(null);
    }

    private List<Proposal> names(@Nullable ElementId scope) {
        Collection<String> names = model.names().inScope(scope);
        List<Proposal> proposals = new ArrayList<>(names.size());
        for (String name : names) {
            proposals.add(new Proposal(Name.quoted(name), ""));
        }
        return proposals;
    }

    private List<Proposal> members(ElementId owner) {
        Set<String> names = Set.copyOf(model.names().membersOf(owner));
        return names.stream()
                .map(name -> new Proposal(
                        Name.quoted(name),
                        model.names()
                                .member(owner, name)
                                .flatMap(model::find)
                                .map(element -> element.kind().title())
                                .orElse("")))
                .toList();
    }
}
