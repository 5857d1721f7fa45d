package pyrite.core.view;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.DoubleStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;
import pyrite.core.specification.Metadata;
import pyrite.core.view.Placement.Point;
import pyrite.core.view.Placement.Size;

/**
 * The edits by which a person arranges a drawing. What they place is kept in the view; an element's own drawing gets a
 * view the first time.
 */
public final class Arranging {
    private final Model model;
    private final List<Element> put = new ArrayList<>();
    private final Set<ElementId> remove = new HashSet<>();
    private final Map<String, Element> known = new HashMap<>();
    private final Element view;
    private Rank last;

    private Arranging(Model model, Element view, boolean isNew) {
        this.model = model;
        this.view = view;
        this.last = model.rankAtEnd(view.id());
        if (!isNew) {
            model.children(view.id()).stream()
                    .filter(child -> child.kind() == ElementKind.METADATA)
                    .forEach(this::remember);
        }
    }

    /**
     * A change to one box or port; what is null stays as it is.
     *
     * @param key as in the {@link Diagram}
     */
    public record Change(
            String key,
            @Nullable Point at,
            @Nullable Size size,
            @Nullable Boolean open,
            @Nullable Boolean hidden) {}

    /**
     * The corners of one line.
     *
     * @param edge the key of the edge
     * @param via none gives the line back to the layout
     */
    public record Bend(String edge, List<Point> via) {}

    /** An edit, and the view in which it keeps the arrangement. */
    public record Arranged(Edit edit, Element view, boolean isNew) {}

    /** @param subject the element whose own drawing is arranged, or a view itself */
    public static Arranged arrange(
            Model model, Element subject, ShownView.Form form, List<Change> changes, List<Bend> bends) {
        Element kept = kept(model, subject, form);
        if (kept != null) {
            return new Arranging(model, kept, false).apply(changes, bends, List.of(), false);
        }
        List<Element> made = newView(model, subject, form);
        return new Arranging(model, made.getFirst(), true).apply(changes, bends, made, true);
    }

    /** The edit by which a view shows more elements. What it hid it shows again. */
    public static Arranged show(Model model, Element subject, ShownView.Form form, List<Element> shown) {
        Element kept = kept(model, subject, form);
        List<Element> made = kept == null ? newView(model, subject, form) : List.of();
        Element view = kept == null ? made.getFirst() : kept;
        Placement placement = kept == null ? Placement.NONE : Placement.of(model, kept);
        List<Element> put = new ArrayList<>(made);
        List<Change> again = new ArrayList<>();
        Rank last = kept == null ? made.getLast().rank() : model.rankAtEnd(view.id());
        for (Element element : shown) {
            String key = element.id().toString();
            if (placement.hidden().contains(key)) {
                again.add(new Change(key, null, null, null, false));
            } else {
                last = Rank.after(last, 1).getFirst();
                put.add(exposure(view, element, "one", last));
            }
        }
        return new Arranging(model, view, kept == null).apply(again, List.of(), put, kept == null);
    }

    /** The edit by which a view leaves out what it is not to show. */
    public static Arranged leaveOut(Model model, Element subject, ShownView.Form form, Showing showing) {
        Element kept = kept(model, subject, form);
        if (kept != null) {
            return new Arranged(Showing.keep(model, kept, showing), kept, false);
        }
        List<Element> made = newView(model, subject, form);
        List<Element> put = new ArrayList<>(made);
        put.addAll(showing.saidIn(
                model, made.getFirst(), Rank.after(made.getLast().rank(), 1).getFirst()));
        return new Arranged(new Edit(put, Set.of()), made.getFirst(), true);
    }

    private static @Nullable Element kept(Model model, Element subject, ShownView.Form form) {
        return subject.kind() == ElementKind.VIEW
                ? subject
                : ShownView.of(model, subject, form).view();
    }

    /** A view of an element's own drawing, and what it exposes. */
    private static List<Element> newView(Model model, Element subject, ShownView.Form form) {
        Element holder = holder(model, subject);
        Element view = new Element(
                        ElementId.fresh(),
                        ElementKind.VIEW,
                        holder.id(),
                        model.rankAtEnd(holder.id()),
                        freeName(model, holder, subject, form),
                        null,
                        Map.of())
                .with(Property.TYPES, List.of(Reference.to(form.definition())));
        return List.of(view, exposure(view, subject, ShownView.reach(subject), Rank.between(null, null)));
    }

    private static Element exposure(Element view, Element target, String reach, Rank rank) {
        return Element.of(ElementKind.EXPOSURE, view.id(), rank, null)
                .with(Property.TARGET, Reference.to(target.id()))
                .with(Property.REACH, reach);
    }

    /** The edit that no longer keeps any place or corner in a view. */
    public static Edit freed(Model model, Element view) {
        Set<ElementId> kept = new HashSet<>();
        for (Element child : model.children(view.id())) {
            if (child.kind() == ElementKind.METADATA
                    && (Metadata.isOf(model, child, Placement.PLACED) || Metadata.isOf(model, child, Placement.BENT))
                    && !Metadata.truth(model, child, "hidden")) {
                kept.add(child.id());
            }
        }
        return new Edit(List.of(), kept);
    }

    /** The package an element stands in, or the element itself if it is one. */
    private static Element holder(Model model, Element subject) {
        return Stream.concat(Stream.of(subject), model.owners(subject).stream())
                .filter(each -> each.kind().isPackage())
                .findFirst()
                .orElse(subject);
    }

    private static String freeName(Model model, Element holder, Element subject, ShownView.Form form) {
        String name = Objects.requireNonNullElse(
                        model.names().effectiveName(subject), subject.kind().title())
                + " " + form.title().toLowerCase(Locale.ROOT);
        Set<String> taken = new HashSet<>(model.names().membersOf(holder.id()));
        String free = name;
        for (int number = 2; taken.contains(free); number++) {
            free = name + " " + number;
        }
        return free;
    }

    private void remember(Element metadata) {
        if (Metadata.isOf(model, metadata, Placement.PLACED)) {
            known.put(Placement.key(model, metadata), metadata);
        } else if (Metadata.isOf(model, metadata, Placement.BENT)) {
            known.put(Placement.edge(model, metadata), metadata);
        }
    }

    private Arranged apply(List<Change> changes, List<Bend> bends, List<Element> first, boolean isNew) {
        put.addAll(first);
        first.stream()
                .filter(element -> view.id().equals(element.owner()))
                .map(Element::rank)
                .filter(rank -> rank.compareTo(last) >= 0 || isNew)
                .max(Rank::compareTo)
                .ifPresent(rank -> last = rank);
        changes.forEach(this::change);
        bends.forEach(this::bend);
        return new Arranged(new Edit(put, remove), view, isNew);
    }

    private void change(Change change) {
        Element before = known.get(change.key());
        Element metadata =
                before == null ? metadata(Placement.PLACED, ids(change.key().split("\\."))) : before;
        double[] at = change.at() != null
                ? new double[] {change.at().x(), change.at().y()}
                : before == null ? new double[0] : Metadata.numbers(model, before, "position");
        double[] size = change.size() != null
                ? new double[] {change.size().width(), change.size().height()}
                : before == null ? new double[0] : Metadata.numbers(model, before, "size");
        boolean open = isSet(change.open(), before, "open");
        boolean hidden = isSet(change.hidden(), before, "hidden");
        List<Rank> ranks = Rank.after(null, 4);
        List<Element> values = new ArrayList<>();
        if (at.length == 2) {
            values.add(Metadata.numbers(model, metadata, "position", at, ranks.get(0)));
        }
        if (size.length == 2) {
            values.add(Metadata.numbers(model, metadata, "size", size, ranks.get(1)));
        }
        if (open) {
            values.add(Metadata.truth(model, metadata, "open", true, ranks.get(2)));
        }
        if (hidden) {
            values.add(Metadata.truth(model, metadata, "hidden", true, ranks.get(3)));
        }
        keep(before, metadata, values);
    }

    private boolean isSet(@Nullable Boolean wanted, @Nullable Element before, String feature) {
        return wanted == null ? before != null && Metadata.truth(model, before, feature) : wanted;
    }

    private void bend(Bend bend) {
        Element before = known.get(bend.edge());
        String[] words = bend.edge().split(" ");
        Element metadata =
                before == null ? metadata(Placement.BENT, ids(Arrays.copyOfRange(words, 1, words.length))) : before;
        List<Rank> ranks = Rank.after(null, 2);
        List<Element> values = bend.via().isEmpty()
                ? List.of()
                : List.of(
                        Metadata.text(model, metadata, "relation", words[0], ranks.get(0)),
                        Metadata.numbers(
                                model,
                                metadata,
                                "corners",
                                bend.via().stream()
                                        .flatMapToDouble(point -> DoubleStream.of(point.x(), point.y()))
                                        .toArray(),
                                ranks.get(1)));
        keep(before, metadata, values);
    }

    /** Puts metadata with its values in the place of those it had; without any value it is not needed. */
    private void keep(@Nullable Element before, Element metadata, List<Element> values) {
        if (values.isEmpty()) {
            if (before != null) {
                remove.add(before.id());
            }
            return;
        }
        if (before == null) {
            put.add(metadata);
        } else {
            model.children(before.id()).forEach(old -> remove.add(old.id()));
        }
        put.addAll(values);
    }

    private Element metadata(ElementId definition, List<ElementId> about) {
        last = Rank.after(last, 1).getFirst();
        return Element.of(ElementKind.METADATA, view.id(), last, null)
                .with(Property.TYPES, List.of(Reference.to(definition)))
                .with(Property.ABOUT, about.stream().map(Reference::to).toList());
    }

    /** @throws IllegalArgumentException if one is no id of an element of this model */
    private List<ElementId> ids(String[] words) {
        List<ElementId> ids = Arrays.stream(words).map(ElementId::parse).toList();
        ids.stream().filter(id -> !model.has(id)).findFirst().ifPresent(id -> {
            throw new IllegalArgumentException("there is no element " + id + "; somebody may have removed it");
        });
        return ids;
    }
}
