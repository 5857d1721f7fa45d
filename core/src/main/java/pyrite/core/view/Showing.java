package pyrite.core.view;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
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
 * What a view leaves out of its boxes and between them, and how deep it opens parts when somebody comes to it.
 *
 * @param without titles of compartments, and relations in small letters
 * @param depth the number of levels below the top that are open at first
 */
public record Showing(Set<String> without, int depth) {
    public static final int DEEPEST = 4;
    static final Showing ALL = new Showing(Set.of(), 0);
    private static final ElementId DEFINITION = LibraryNames.id("Placement::Showing");

    public Showing {
        without = Set.copyOf(without);
        depth = Math.clamp(depth, 0, DEEPEST);
    }

    static Showing of(Model model, @Nullable Element view) {
        return view == null
                ? ALL
                : Metadata.of(model, view, DEFINITION)
                        .map(said -> new Showing(
                                new HashSet<>(Metadata.texts(model, said, "without")),
                                Metadata.number(model, said, "depth")))
                        .orElse(ALL);
    }

    static boolean isSaidBy(Model model, Element metadata) {
        return Metadata.isOf(model, metadata, DEFINITION);
    }

    /** The metadata that says this in a view; none if nothing is left out. */
    List<Element> saidIn(Model model, Element view, Rank rank) {
        if (equals(ALL)) {
            return List.of();
        }
        Element said = Element.of(ElementKind.METADATA, view.id(), rank, null)
                .with(Property.TYPES, List.of(Reference.to(DEFINITION)));
        List<Rank> ranks = Rank.after(null, 2);
        List<Element> all = new ArrayList<>(List.of(said));
        if (!without.isEmpty()) {
            all.add(Metadata.texts(model, said, "without", List.copyOf(new TreeSet<>(without)), ranks.getFirst()));
        }
        if (depth > 0) {
            all.add(Metadata.number(model, said, "depth", depth, ranks.getLast()));
        }
        return all;
    }

    /** What can be left out of a diagram that leaves nothing out: compartments, then relations. */
    public static Choices choices(Diagram whole) {
        Set<String> compartments = new TreeSet<>();
        whole.nodes().stream()
                .flatMap(node -> node.compartments().stream())
                .map(Diagram.Compartment::title)
                .filter(title -> !title.isEmpty())
                .forEach(compartments::add);
        Set<String> relations = new TreeSet<>();
        whole.edges().forEach(edge -> relations.add(name(edge)));
        return new Choices(List.copyOf(compartments), List.copyOf(relations));
    }

    /** Names of compartments and relations. */
    public record Choices(List<String> compartments, List<String> relations) {}

    private static String name(Diagram.Edge edge) {
        return edge.relation().name().toLowerCase(Locale.ROOT);
    }

    Diagram applied(Diagram whole) {
        return without.isEmpty()
                ? whole
                : new Diagram(
                        whole.nodes().stream().map(this::applied).toList(),
                        whole.edges().stream()
                                .filter(edge -> !without.contains(name(edge)))
                                .toList(),
                        whole.left(),
                        whole.rows());
    }

    private Diagram.Node applied(Diagram.Node node) {
        return new Diagram.Node(
                node.key(),
                node.parent(),
                node.element(),
                node.keyword(),
                node.title(),
                node.compartments().stream()
                        .filter(compartment -> !without.contains(compartment.title()))
                        .toList(),
                node.ports(),
                node.openable(),
                node.open(),
                node.isInherited(),
                node.shape());
    }

    /** The edit that makes a view show this and nothing else said so before. */
    static Edit keep(Model model, Element view, Showing showing) {
        Set<ElementId> old = new HashSet<>();
        model.children(view.id()).stream()
                .filter(child -> child.kind() == ElementKind.METADATA && isSaidBy(model, child))
                .forEach(child -> old.add(child.id()));
        return new Edit(showing.saidIn(model, view, model.rankAtEnd(view.id())), old);
    }
}
