package pyrite.core.reuse;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.LibraryNames;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.specification.Metadata;

/**
 * A library package that comes from another project.
 *
 * @param top the package
 * @param mark the metadata that says where it comes from
 * @param putOff the revision of a newer baseline that was put off; 0 if none was
 * @param reason why; empty if none was
 */
public record UsedLibrary(Element top, Element mark, Pin pin, int putOff, String reason) {
    static final ElementId USED = LibraryNames.id("Libraries::Used");

    /**
     * Where a library comes from.
     *
     * @param project its id
     * @param revision of the baseline
     */
    public record Pin(String project, String projectName, String baseline, int revision) {}

    public static List<UsedLibrary> all(Model model) {
        return model.ownRoots().stream()
                .flatMap(root -> of(model, root).stream())
                .toList();
    }

    /** Those of one project. */
    public static List<UsedLibrary> of(Model model, String project) {
        return all(model).stream()
                .filter(library -> library.pin().project().equals(project))
                .toList();
    }

    static Optional<UsedLibrary> of(Model model, Element root) {
        return root.kind() != ElementKind.LIBRARY_PACKAGE
                ? Optional.empty()
                : Metadata.of(model, root, USED)
                        .map(mark -> new UsedLibrary(
                                root,
                                mark,
                                new Pin(
                                        Metadata.text(model, mark, "project"),
                                        Metadata.text(model, mark, "projectName"),
                                        Metadata.text(model, mark, "baseline"),
                                        Metadata.number(model, mark, "revision")),
                                Metadata.number(model, mark, "putOff"),
                                Metadata.text(model, mark, "reason")));
    }

    /** The library that an element stands in. */
    public static Optional<UsedLibrary> around(Model model, Element element) {
        Element root = element.owner() == null ? element : model.owners(element).getLast();
        return of(model, root);
    }

    /** The mark of a package, with what it says. */
    static List<Element> marked(Model model, Element top, Rank rank, Pin pin) {
        Element mark = Element.of(ElementKind.METADATA, top.id(), rank, null)
                .with(Property.TYPES, List.of(Reference.to(USED)));
        List<Rank> ranks = Rank.after(null, 4);
        return List.of(
                mark,
                Metadata.text(model, mark, "project", pin.project(), ranks.get(0)),
                Metadata.text(model, mark, "projectName", pin.projectName(), ranks.get(1)),
                Metadata.text(model, mark, "baseline", pin.baseline(), ranks.get(2)),
                Metadata.number(model, mark, "revision", pin.revision(), ranks.get(3)));
    }

    /** Puts a newer baseline off for all libraries of a project, with the reason. */
    public static Edit putOff(Model model, String project, int revision, String reason) {
        List<Element> put = new ArrayList<>();
        Set<ElementId> removed = new HashSet<>();
        for (UsedLibrary library : of(model, project)) {
            Element mark = library.mark();
            model.children(mark.id()).stream()
                    .filter(said -> Stream.of("putOff", "reason")
                            .anyMatch(name -> name.equals(model.names().effectiveName(said))))
                    .forEach(said -> removed.add(said.id()));
            List<Rank> ranks = Rank.after(model.rankAtEnd(mark.id()), 2);
            put.add(Metadata.number(model, mark, "putOff", revision, ranks.getFirst()));
            put.add(Metadata.text(model, mark, "reason", reason.strip(), ranks.getLast()));
        }
        return new Edit(put, removed);
    }
}
