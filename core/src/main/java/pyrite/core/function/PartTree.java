package pyrite.core.function;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/** The parts of a whole to any depth. A part of several is there once; a whole that contains itself is told once. */
public final class PartTree {
    private static final int MOST_PARTS = 20_000;
    private static final int DEEPEST = 16;

    private final Model model;
    private final Element whole;
    private final List<Part> parts = new ArrayList<>();
    private final Map<List<ElementId>, Part> byWay = new HashMap<>();

    /**
     * @param way the parts on the way from the whole; empty for the whole itself
     * @param within the part that it is in; null for the whole
     */
    public record Part(
            List<ElementId> way, Element element, @Nullable Part within) {
        /** The part of the way that is at most so long. */
        Part at(int level) {
            Part at = this;
            while (at.way.size() > level && at.within != null) {
                at = at.within;
            }
            return at;
        }

        /** Whether it is another part or in it, however deep. */
        public boolean isIn(Part other) {
            return way.size() >= other.way.size()
                    && way.subList(0, other.way.size()).equals(other.way);
        }

        @Override
        public boolean equals(@Nullable Object other) {
            return other instanceof Part part && part.way.equals(way);
        }

        @Override
        public int hashCode() {
            return way.hashCode();
        }
    }

    private PartTree(Model model, Element whole) {
        this.model = model;
        this.whole = whole;
        add(new Part(List.of(), whole, null), new HashSet<>());
    }

    public static PartTree of(Model model, Element whole) {
        return new PartTree(model, whole);
    }

    private void add(Part part, Set<ElementId> around) {
        parts.add(part);
        byWay.put(part.way(), part);
        Set<ElementId> within = new HashSet<>(around);
        boolean isAgain = model.inheritance().generals(part.element()).stream()
                .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                .map(general -> !within.add(general.id()) && !around.isEmpty() && isType(part.element(), general))
                .reduce(false, Boolean::logicalOr);
        if (isAgain || part.way().size() >= DEEPEST) {
            return;
        }
        for (Element feature : model.inheritance().features(part.element())) {
            if (isPart(feature) && parts.size() < MOST_PARTS) {
                List<ElementId> way = new ArrayList<>(part.way());
                way.add(feature.id());
                add(new Part(List.copyOf(way), feature, part), within);
            }
        }
    }

    /** Whether a part is directly typed by a definition, as opposed to having it as a general of its type. */
    private static boolean isType(Element part, Element definition) {
        return part.references(Property.TYPES).stream()
                .anyMatch(type -> type.target().equals(definition.id()));
    }

    private boolean isPart(Element feature) {
        return feature.kind() == ElementKind.PART
                && !model.isLibrary(feature.id())
                && !feature.get(Property.REFERENTIAL).orElse(false)
                && model.inheritance().multiplicity(feature).upper() != 0;
    }

    public Element whole() {
        return whole;
    }

    /** All parts, the whole first, each behind the one that it is in. */
    public List<Part> parts() {
        return parts;
    }

    @Nullable
    Part get(List<ElementId> way) {
        return byWay.get(way);
    }

    /** {@code powerUnit.pumps}; the name of the whole for itself. */
    public String path(Part part) {
        return part.way().isEmpty()
                ? name(whole)
                : part.way().stream().map(id -> name(model.get(id))).collect(Collectors.joining("."));
    }

    private String name(Element element) {
        return Objects.requireNonNullElse(
                model.names().effectiveName(element), element.kind().title());
    }
}
