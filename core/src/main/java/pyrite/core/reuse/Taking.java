package pyrite.core.reuse;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Rank;
import pyrite.core.reuse.UsedLibrary.Pin;

/** Takes a library package of another project into a model, with the library packages that it needs. */
public final class Taking {
    private Taking() {}

    /** What became of the wish. */
    public sealed interface Result {
        /** @param packages the names of the packages that are taken */
        record Made(Edit edit, List<String> packages) implements Result {}

        record Refused(String reason) implements Result {}
    }

    /** The library packages that a project offers: those at its top that are its own. */
    public static List<Element> offered(Model source) {
        return source.ownRoots().stream()
                .filter(root -> root.kind() == ElementKind.LIBRARY_PACKAGE
                        && UsedLibrary.of(source, root).isEmpty())
                .toList();
    }

    /**
     * @param source the other project at the baseline
     * @param top one of its library packages
     */
    public static Result take(Model using, Model source, Element top, Pin pin) {
        Set<Element> needed = needed(source, top);
        for (Element root : needed) {
            String wrong = wrong(using, source, root, pin);
            if (!wrong.isEmpty()) {
                return new Result.Refused(wrong);
            }
        }
        List<Element> fresh =
                needed.stream().filter(root -> !using.has(root.id())).toList();
        if (fresh.isEmpty()) {
            return new Result.Refused("'" + top.name() + "' is used here already");
        }
        List<Element> put = new ArrayList<>();
        Rank last = using.rankAtEnd(null);
        for (Element root : fresh) {
            put.addAll(content(source, root, last, pin));
            last = Rank.after(last, 1).getFirst();
        }
        Edit edit = new Edit(put, Set.of());
        return switch (using.apply(edit)) {
            case EditResult.Applied _ ->
                new Result.Made(
                        edit,
                        fresh.stream().map(root -> String.valueOf(root.name())).toList());
            case EditResult.Refused(var problems) ->
                new Result.Refused(problems.getFirst().message());
        };
    }

    /** What a package has in the using model: all of it, and its mark. */
    static List<Element> content(Model source, Element root, Rank rank, Pin pin) {
        List<Element> content = new ArrayList<>();
        for (Element element : source.subtree(root.id())) {
            content.add(element.equals(root) ? root.withOwner(null, rank) : element);
        }
        content.addAll(UsedLibrary.marked(source, root, source.rankAtEnd(root.id()), pin));
        return content;
    }

    /** The package and all others at the top that something in it refers to. */
    static Set<Element> needed(Model source, Element top) {
        Set<Element> needed = new LinkedHashSet<>();
        Deque<Element> open = new ArrayDeque<>(List.of(top));
        while (!open.isEmpty()) {
            Element root = open.poll();
            if (needed.add(root)) {
                source.subtree(root.id()).stream()
                        .flatMap(element -> element.outgoing().stream())
                        .filter(target -> !source.isLibrary(target))
                        .map(target -> root(source, target))
                        .distinct()
                        .forEach(open::add);
            }
        }
        return needed;
    }

    private static Element root(Model source, ElementId id) {
        Element element = source.get(id);
        return element.owner() == null ? element : source.owners(element).getLast();
    }

    private static String wrong(Model using, Model source, Element root, Pin pin) {
        if (root.kind() != ElementKind.LIBRARY_PACKAGE) {
            return "it needs '" + source.names().qualifiedName(root)
                    + "', which is no library package; only library packages are used by other projects";
        }
        if (using.has(root.id())) {
            return UsedLibrary.of(using, using.get(root.id()))
                    .map(known -> known.pin().revision() == pin.revision()
                            ? ""
                            : "'" + root.name() + "' is used at " + known.pin().baseline() + "; move that to "
                                    + pin.baseline() + " first")
                    .orElse("'" + root.name() + "' is this project's own");
        }
        return using.ownRoots().stream()
                        .map(Element::name)
                        .filter(Objects::nonNull)
                        .collect(Collectors.toSet())
                        .contains(root.name())
                ? "there is a package '" + root.name() + "' already; rename one of them"
                : "";
    }
}
