package pyrite.core.function;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.behavior.StepGraph;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * A function with the functions that it is made of, to any depth: an action definition or usage and the actions in its
 * body. A function that contains itself is told once.
 */
public final class FunctionTree {
    private static final int MOST_USES = 20_000;

    private final Model model;
    private final Use top;
    private final List<Use> uses = new ArrayList<>();
    /** By the way of a use; a tree may be asked by several at once. */
    private final Map<List<ElementId>, String> paths = new ConcurrentHashMap<>();

    /**
     * One use of a function in the tree.
     *
     * @param way the actions on the way from the top to it; empty for the top
     * @param within the use that it is a part of; null for the top
     */
    public record Use(
            List<ElementId> way, Element function, @Nullable Use within, List<Use> inside) {
        public boolean isLeaf() {
            return inside.isEmpty();
        }

        @Override
        public boolean equals(@Nullable Object other) {
            return other instanceof Use use && use.way.equals(way) && use.function.equals(function);
        }

        @Override
        public int hashCode() {
            return Objects.hash(way, function.id());
        }
    }

    private FunctionTree(Model model, Element function) {
        this.model = model;
        this.top = new Use(List.of(), function, null, new ArrayList<>());
        fill(top, new HashSet<>());
    }

    public static FunctionTree of(Model model, Element function) {
        return new FunctionTree(model, function);
    }

    /**
     * The functions that no other function is made of: definitions that have no use, and usages in packages and parts.
     */
    public static List<Element> tops(Model model) {
        return model.ownElements(Set.of(ElementKind.ACTION_DEFINITION, ElementKind.ACTION))
                .filter(function -> isTop(model, function))
                .sorted(Comparator.comparing(model.names()::qualifiedName))
                .toList();
    }

    private static boolean isTop(Model model, Element function) {
        if (function.kind() == ElementKind.ACTION) {
            return function.owner() == null
                    || model.get(function.owner()).kind().isPackage();
        }
        return model.referrers(function.id()).stream()
                .map(model::get)
                .noneMatch(user ->
                        StepGraph.isStep(user.kind()) && user.owner() != null && isFunction(model.get(user.owner())));
    }

    static boolean isFunction(Element element) {
        return element.kind() == ElementKind.ACTION_DEFINITION
                || element.kind() == ElementKind.ACTION
                || element.kind() == ElementKind.PERFORM;
    }

    private void fill(Use use, Set<ElementId> around) {
        uses.add(use);
        Set<ElementId> own = model.inheritance().generals(use.function()).stream()
                .map(Element::id)
                .filter(general -> !model.isLibrary(general))
                .collect(Collectors.toSet());
        if (own.stream().anyMatch(around::contains) || uses.size() > MOST_USES) {
            return;
        }
        Set<ElementId> within = new HashSet<>(around);
        within.addAll(own);
        for (Element step : StepGraph.of(model, use.function()).steps()) {
            if (isUse(step.kind())) {
                List<ElementId> way = new ArrayList<>(use.way());
                way.add(step.id());
                Use inner = new Use(List.copyOf(way), step, use, new ArrayList<>());
                use.inside().add(inner);
                fill(inner, within);
            }
        }
    }

    private static boolean isUse(ElementKind kind) {
        return switch (kind) {
            case ACTION, PERFORM, ACCEPT, SEND -> true;
            default -> false;
        };
    }

    public Use top() {
        return top;
    }

    /** All uses, each behind the one that it is a part of. */
    public List<Use> uses() {
        return uses;
    }

    /** The path of names from the top: {@code decide.compare}; the name of the top for itself. */
    public String path(Use use) {
        return paths.computeIfAbsent(
                use.way(),
                way -> way.isEmpty()
                        ? name(top.function())
                        : way.stream().map(id -> name(model.get(id))).collect(Collectors.joining(".")));
    }

    private String name(Element element) {
        return Objects.requireNonNullElse(
                model.names().effectiveName(element), element.kind().title());
    }
}
