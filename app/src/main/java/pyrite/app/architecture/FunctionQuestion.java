package pyrite.app.architecture;

import java.util.Comparator;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import pyrite.app.workspace.Workspace;
import pyrite.core.function.FunctionTree;
import pyrite.core.function.PartTree;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * A function and the whole whose parts perform it, as a page asks for them; what is not chosen is chosen by what fits.
 *
 * @param whole a part definition
 */
record FunctionQuestion(Element function, Element whole) {
    /** The functions that are made of others, those with the most first, and the wholes that have parts. */
    static List<Element> functions(Model model) {
        return FunctionTree.tops(model).stream()
                .filter(function -> !model.isLibrary(function.id()))
                .filter(function -> !FunctionTree.of(model, function).top().isLeaf())
                .sorted(Comparator.comparingInt(
                        function -> -FunctionTree.of(model, function).uses().size()))
                .toList();
    }

    /** The definitions with the most parts in them that perform what functions are made of, best first. */
    static List<Element> wholes(Model model) {
        Set<Element> asked = new HashSet<>();
        functions(model).stream()
                .flatMap(function -> FunctionTree.of(model, function).uses().stream())
                .flatMap(use -> model.inheritance().generals(use.function()).stream())
                .filter(function -> !model.isLibrary(function.id()))
                .forEach(asked::add);
        Set<Element> performing = new HashSet<>();
        model.ownElements(ElementKind.PERFORM)
                .filter(perform ->
                        model.inheritance().generals(perform).stream().anyMatch(asked::contains))
                .flatMap(perform -> model.owners(perform).stream().limit(1))
                .forEach(performing::add);
        List<Element> definitions = model.ownElements(ElementKind.PART_DEFINITION)
                .filter(definition -> model.inheritance().features(definition).stream()
                        .anyMatch(feature -> feature.kind() == ElementKind.PART && !model.isLibrary(feature.id())))
                .toList();
        Map<Element, Long> counts = new LinkedHashMap<>();
        definitions.forEach(definition -> counts.put(
                definition,
                PartTree.of(model, definition).parts().stream()
                        .filter(part -> model.inheritance().generals(part.element()).stream()
                                .anyMatch(performing::contains))
                        .count()));
        return definitions.stream()
                .sorted(Comparator.comparing((Element definition) -> -counts.getOrDefault(definition, 0L))
                        .thenComparing(definition -> -depth(model, definition)))
                .toList();
    }

    /** Of two wholes with the same performers, the smaller is meant. */
    private static int depth(Model model, Element definition) {
        return -PartTree.of(model, definition).parts().size();
    }

    static Optional<FunctionQuestion> of(Workspace.Head head, String of, String in) {
        Model model = head.model();
        Optional<Element> function =
                of.isEmpty() ? functions(model).stream().findFirst() : Optional.of(head.element(of));
        Optional<Element> whole = in.isEmpty() ? wholes(model).stream().findFirst() : Optional.of(head.element(in));
        return function.flatMap(f -> whole.map(w -> new FunctionQuestion(f, w)));
    }

    /** The best whole that a part is in; for what stands in none, its definition or itself. */
    static Element around(Model model, Element part) {
        return wholes(model).stream()
                .filter(whole -> PartTree.of(model, whole).parts().stream()
                        .anyMatch(each ->
                                model.inheritance().generals(each.element()).contains(part)))
                .findFirst()
                .orElse(part);
    }
}
