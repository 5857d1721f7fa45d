package pyrite.app.element;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * Finds elements whose name, short name or text contains what was typed: names first, beginnings of names before
 * others.
 */
@RestController
class FindController {
    private static final int MOST = 12;
    /** A letter or two stand in nearly every text. */
    private static final int SHORTEST_IN_TEXTS = 3;

    private static final int MOST_TEXTS = 5;
    private static final int BEHIND_NAMES = 4;
    /** Around what was found in a text so many characters are shown. */
    private static final int AROUND = 40;

    /**
     * A hit and its address.
     *
     * @param behind the number of ranks by which it comes after better matches
     * @param text what stands around the place in its text; empty where its name was found
     */
    record Hit(String label, String kind, String where, String address, int behind, String text) {}

    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "Elements by a part of their name, id or text, the best match first")
    @GetMapping({"/p/{project}/{branch}/find", ApiAddress.BRANCH + "/find"})
    List<Hit> find(Workspace.Head head, @RequestParam String q) {
        String requested = q.strip();
        if (requested.isEmpty()) {
            return List.of();
        }
        List<Hit> named = named(head, requested);
        Set<String> known = named.stream().map(Hit::address).collect(Collectors.toSet());
        List<Hit> read = requested.length() < SHORTEST_IN_TEXTS
                ? List.of()
                : inTexts(head, requested)
                        .filter(hit -> !known.contains(hit.address()))
                        .limit(MOST_TEXTS)
                        .toList();
        return Stream.concat(named.stream(), read.stream()).toList();
    }

    private static List<Hit> named(Workspace.Head head, String requested) {
        Labels labels = new Labels(head.model());
        return head.model().ownElements().stream()
                .filter(e -> e.name() != null || e.shortName() != null)
                .filter(e -> rank(e, requested) < Integer.MAX_VALUE)
                .sorted(Comparator.comparingInt((Element e) -> rank(e, requested) + behind(e))
                        .thenComparing(labels::full))
                .limit(MOST)
                .map(e -> hit(head, labels, e, behind(e), ""))
                .toList();
    }

    /** The elements whose documentation or notes contain it, in the order of the model. */
    private static Stream<Hit> inTexts(Workspace.Head head, String requested) {
        Labels labels = new Labels(head.model());
        Pattern sought = Pattern.compile(Pattern.quote(requested), Pattern.CASE_INSENSITIVE | Pattern.UNICODE_CASE);
        return head.model()
                .ownElements(Set.of(ElementKind.DOCUMENTATION, ElementKind.COMMENT))
                .flatMap(text -> {
                    String words = text.get(Property.TEXT).orElse("");
                    Matcher found = sought.matcher(words);
                    Element about = text.owner() == null ? text : head.model().get(text.owner());
                    return found.find()
                            ? Stream.of(hit(head, labels, about, BEHIND_NAMES, around(words, found)))
                            : Stream.empty();
                });
    }

    private static Hit hit(Workspace.Head head, Labels labels, Element element, int behind, String text) {
        return new Hit(
                labels.full(element),
                element.kind().title(),
                where(head.model(), element),
                head.address("element/" + element.id()),
                behind,
                text);
    }

    private static String around(String words, Matcher found) {
        int from = Math.max(0, found.start() - AROUND);
        int to = Math.min(words.length(), found.end() + AROUND);
        return (from > 0 ? "…" : "")
                + words.substring(from, to).replaceAll("\\s+", " ")
                + (to < words.length() ? "…" : "");
    }

    private static int behind(Element element) {
        return element.kind().isRole() ? 3 : element.kind() == ElementKind.ATTRIBUTE ? 1 : 0;
    }

    private static String where(Model model, Element element) {
        return element.owner() == null ? "" : model.names().qualifiedName(model.get(element.owner()));
    }

    private static int rank(Element element, String requested) {
        return Math.min(rank(element.shortName(), requested), rank(element.name(), requested));
    }

    private static int rank(@Nullable String name, String requested) {
        if (name == null) {
            return Integer.MAX_VALUE;
        }
        String lower = name.toLowerCase(Locale.ROOT);
        String sought = requested.toLowerCase(Locale.ROOT);
        return name.equals(requested)
                ? 0
                : lower.equals(sought)
                        ? 1
                        : lower.startsWith(sought) ? 2 : lower.contains(sought) ? 3 : Integer.MAX_VALUE;
    }
}
