package pyrite.core.view;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.EnumMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.specification.Specification;

/**
 * The model as a tree of named elements. It is read level by level, or as matches with their owners, so its cost
 * depends on what is shown and not on the size of the model.
 */
public final class Outline {
    /** What a package is called whose requirements have ids of their own. */
    public static final String SPECIFICATION = "specification";

    private static final List<String> AFTER_NAME = List.of("[", " : ", " = ", " := ");

    private final Model model;

    public Outline(Model model) {
        this.model = model;
    }

    /**
     * One line.
     *
     * @param depth from 0 at the top
     * @param leaf whether there is nothing to show below it
     * @param type the notation behind the name: multiplicity, types and value
     * @param match false for an owner that is shown only for a match below it
     */
    public record Line(
            String id,
            int depth,
            boolean leaf,
            String name,
            String keyword,
            String type,
            String family,
            boolean strong,
            boolean match) {}

    /** What an element owns, in the order of the model; null stands for the top. */
    public List<Line> below(@Nullable ElementId owner) {
        int depth = owner == null ? 0 : model.owners(model.get(owner)).size() + 1;
        return shownBelow(owner).stream()
                .map(element -> line(element, depth, true))
                .toList();
    }

    /** The first matches, each below its owners, and the number of all matches. */
    public record Found(List<Line> lines, int matches) {}

    /**
     * Finds by a part of the name, the kind or both.
     *
     * @param text empty to match any name
     * @param kind null to match any kind
     */
    public Found find(String text, @Nullable ElementKind kind, int most) {
        String requested = text.strip().toLowerCase(Locale.ROOT);
        Predicate<Element> matches = element -> (kind == null || element.kind() == kind)
                && (requested.isEmpty()
                        || name(element).toLowerCase(Locale.ROOT).contains(requested)
                        || element.shortName() != null
                                && element.shortName().toLowerCase(Locale.ROOT).contains(requested));
        List<Element> found = model.ownElements().stream()
                .filter(element -> isShown(element) && matches.test(element))
                .toList();
        Set<ElementId> hits = new HashSet<>();
        Set<ElementId> way = new HashSet<>();
        found.stream().limit(most).forEach(element -> {
            hits.add(element.id());
            way.add(element.id());
            model.owners(element).forEach(owner -> way.add(owner.id()));
        });
        return new Found(inOrder(way, hits), found.size());
    }

    private List<Line> inOrder(Set<ElementId> way, Set<ElementId> hits) {
        List<Line> lines = new ArrayList<>(way.size());
        Deque<Element> open = new ArrayDeque<>(model.ownRoots());
        while (!open.isEmpty()) {
            Element at = open.pop();
            if (way.contains(at.id())) {
                lines.add(line(at, model.owners(at).size(), hits.contains(at.id())));
                model.children(at.id()).reversed().stream()
                        .filter(child -> way.contains(child.id()))
                        .forEach(open::push);
            }
        }
        return lines;
    }

    /** How many elements of each kind the outline can show, by the words for the kind. */
    public Map<ElementKind, Integer> kinds() {
        Map<ElementKind, Integer> counts = new EnumMap<>(ElementKind.class);
        model.ownElements().stream()
                .filter(Outline::isShown)
                .forEach(element -> counts.merge(element.kind(), 1, Integer::sum));
        Map<ElementKind, Integer> sorted = new LinkedHashMap<>();
        counts.entrySet().stream()
                .sorted(Comparator.comparing(entry -> entry.getKey().title()))
                .forEach(entry -> sorted.put(entry.getKey(), entry.getValue()));
        return sorted;
    }

    private List<Element> shownBelow(@Nullable ElementId owner) {
        return (owner == null ? model.ownRoots() : model.children(owner))
                .stream().filter(Outline::isShown).toList();
    }

    private static boolean isShown(Element element) {
        return element.kind().isInOutline(element.name() != null);
    }

    private Line line(Element element, int depth, boolean match) {
        ElementKind kind = element.kind();
        return new Line(
                element.id().toString(),
                depth,
                model.children(element.id()).stream().noneMatch(Outline::isShown),
                name(element),
                keyword(element),
                type(element),
                kind.family().name().toLowerCase(Locale.ROOT),
                kind.isDefinition() || kind.isPackage(),
                match);
    }

    private String keyword(Element element) {
        ElementKind kind = element.kind();
        return kind.isDefinition()
                ? kind.keyword() + " def"
                : kind.isPackage() && Specification.of(model, element, false).isPresent()
                        ? SPECIFICATION
                        : kind.keyword();
    }

    /** The name, behind the id people know a requirement by. */
    private String name(Element element) {
        String id = Specification.isRequirement(element) ? element.shortName() : null;
        String declared = model.names().effectiveName(element);
        String name = declared == null && id != null ? "" : model.names().nameOrKind(element);
        return id == null || id.equals(name) ? name : (id + " " + name).strip();
    }

    private String type(Element element) {
        String head = NotationWriter.head(model, element);
        int from = AFTER_NAME.stream()
                .mapToInt(head::indexOf)
                .filter(at -> at >= 0)
                .min()
                .orElse(-1);
        return from < 0 ? "" : head.substring(from).strip();
    }
}
