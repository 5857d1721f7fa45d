package pyrite.core.trace;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.specification.Metadata;

/**
 * A table kept for later, as an element: a view whose metadata says what it shows.
 *
 * @param page the page that shows it, or {@link #DRAWING} for the bookmark of one
 * @param query the query part of the page's address; of a drawing the address within the branch
 * @param owner the sign-in name of the person who keeps it
 * @param shared whether it is listed for everybody
 * @param pinned whether the Overview shows it with its count
 */
public record SavedView(
        Element element, String name, String page, String query, String owner, boolean shared, boolean pinned) {
    public static final String DRAWING = "drawing";
    private static final String PACKAGE = "SavedViews";
    private static final int PARTS = 5;

    /** All views of a project by name. */
    public static List<SavedView> all(Model model) {
        return Metadata.usages(model, Metadata.SAVED_VIEW).stream()
                .flatMap(metadata -> of(model, metadata).stream())
                .sorted(Comparator.comparing(SavedView::name))
                .toList();
    }

    /** Those somebody sees listed: what is shared, and their own. */
    public static List<SavedView> listed(Model model, String person) {
        return all(model).stream()
                .filter(view -> view.shared() || view.owner().equals(person))
                .toList();
    }

    public static Optional<SavedView> of(Model model, ElementId id) {
        return model.find(id)
                .flatMap(element -> Metadata.of(model, element, Metadata.SAVED_VIEW))
                .flatMap(metadata -> of(model, metadata));
    }

    private static Optional<SavedView> of(Model model, Element metadata) {
        return Optional.ofNullable(metadata.owner())
                .map(model::get)
                .filter(carrier -> carrier.kind() == ElementKind.VIEW)
                .map(carrier -> new SavedView(
                        carrier,
                        Objects.requireNonNullElse(carrier.name(), "view"),
                        Metadata.text(model, metadata, "page"),
                        Metadata.text(model, metadata, "query"),
                        Metadata.text(model, metadata, "owner"),
                        Metadata.truth(model, metadata, "shared"),
                        Metadata.truth(model, metadata, "pinned")));
    }

    /** The view to keep. */
    public record Request(String name, String page, String query, String owner, boolean shared, boolean pinned) {}

    /** The edit that keeps a view; one of the same name and owner is replaced, its element stays. */
    public static Edit put(Model model, Request requested) {
        List<Element> put = new ArrayList<>();
        Optional<SavedView> known = all(model).stream()
                .filter(view ->
                        view.name().equals(requested.name()) && view.owner().equals(requested.owner()))
                .findFirst();
        Element view = known.map(SavedView::element).orElseGet(() -> newView(model, requested.name(), put));
        Set<ElementId> remove = new HashSet<>();
        known.flatMap(each -> Metadata.of(model, each.element(), Metadata.SAVED_VIEW))
                .ifPresent(old -> remove.add(old.id()));
        Element metadata = Element.of(ElementKind.METADATA, view.id(), Rank.between(null, null), null)
                .with(Property.TYPES, List.of(Reference.to(Metadata.SAVED_VIEW)));
        List<Rank> ranks = Rank.after(null, PARTS);
        put.addAll(List.of(
                metadata,
                Metadata.text(model, metadata, "page", requested.page(), ranks.get(0)),
                Metadata.text(model, metadata, "query", requested.query(), ranks.get(1)),
                Metadata.text(model, metadata, "owner", requested.owner(), ranks.get(2)),
                Metadata.truth(model, metadata, "shared", requested.shared(), ranks.get(3)),
                Metadata.truth(model, metadata, "pinned", requested.pinned(), ranks.get(4))));
        return new Edit(put, remove);
    }

    private static Element newView(Model model, String name, List<Element> put) {
        Optional<Element> there = model.ownRoots().stream()
                .filter(root -> PACKAGE.equals(root.name()) && root.kind().isPackage())
                .findFirst();
        Element holder = there.orElseGet(() -> Element.of(ElementKind.PACKAGE, null, model.rankAtEnd(null), PACKAGE));
        if (there.isEmpty()) {
            put.add(holder);
        }
        Element view = new Element(
                ElementId.fresh(),
                ElementKind.VIEW,
                holder.id(),
                there.isEmpty() ? Rank.between(null, null) : model.rankAtEnd(holder.id()),
                name,
                null,
                Map.of());
        put.add(view);
        return view;
    }
}
