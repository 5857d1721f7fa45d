package pyrite.core.specification;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;

/** Edits of a specification's structure: adding, indenting, moving and duplicating lines. */
public final class Structuring {
    private final Model model;

    public Structuring(Model model) {
        this.model = model;
    }

    /** The target position of a line: at the end of an owner, or before or behind another line in it. */
    public record Place(
            Element owner,
            @Nullable Element after,
            @Nullable Element before) {
        /** So many ascending ranks there. */
        List<Rank> ranks(int count) {
            return Rank.between(after == null ? null : after.rank(), before == null ? null : before.rank(), count);
        }
    }

    /** Right behind a line, on its level. */
    public Place after(Element line) {
        Element owner = owner(line);
        List<Element> siblings = model.children(owner.id());
        int at = siblings.indexOf(line);
        return new Place(owner, line, at + 1 < siblings.size() ? siblings.get(at + 1) : null);
    }

    /** Last below a line, or in a specification. */
    public Place below(Element line) {
        List<Element> children = model.children(line.id());
        return new Place(line, children.isEmpty() ? null : children.getLast(), null);
    }

    private Element owner(Element line) {
        return model.get(Objects.requireNonNull(line.owner(), "a line of a specification has an owner"));
    }

    private static Rank rank(Place place) {
        return Rank.between(
                place.after() == null ? null : place.after().rank(),
                place.before() == null ? null : place.before().rank());
    }

    /**
     * Where a heading or note may stand, which is in packages only: of a requirement that is nested, behind the
     * outermost.
     */
    Place inPackage(Place place) {
        Place at = place;
        while (!at.owner().kind().isPackage()) {
            at = after(at.owner());
        }
        return at;
    }

    /** A heading with its title. */
    public Element heading(Place place, String title) {
        Place at = inPackage(place);
        return Element.of(ElementKind.PACKAGE, at.owner().id(), rank(at), title);
    }

    public Element note(Place place, String text) {
        Place at = inPackage(place);
        return Element.of(ElementKind.COMMENT, at.owner().id(), rank(at), null).with(Property.TEXT, text);
    }

    /** A requirement with its text; among needs, a need. */
    public List<Element> requirement(Place place, String id, String text) {
        return made(isAmongNeeds(place.owner()) ? ElementKind.CONCERN : ElementKind.REQUIREMENT, place, id, text);
    }

    /** A need with its text, at the end of a package. */
    public List<Element> need(Element home, String id, String text) {
        return made(ElementKind.CONCERN, below(home), id, text);
    }

    private List<Element> made(ElementKind kind, Place place, String id, String text) {
        Element made = new Element(
                ElementId.fresh(), kind, place.owner().id(), rank(place), null, id.isEmpty() ? null : id, Map.of());
        return text.isEmpty()
                ? List.of(made)
                : List.of(
                        made,
                        Element.of(ElementKind.DOCUMENTATION, made.id(), Rank.between(null, null), null)
                                .with(Property.TEXT, text));
    }

    private boolean isAmongNeeds(Element owner) {
        return owner.kind() == ElementKind.CONCERN
                || Specification.of(model, owner, true)
                        .filter(specification -> specification.level().equals("need")
                                || specification.requirements(model).stream()
                                        .anyMatch(each -> each.kind() == ElementKind.CONCERN))
                        .isPresent();
    }

    /**
     * Puts lines one level deeper, below the line before the first of them; nothing if there is none that may hold
     * them.
     */
    public Optional<Edit> indent(List<Element> lines) {
        List<Element> tops = tops(lines);
        Element first = tops.getFirst();
        List<Element> before = siblingsBefore(first).stream()
                .filter(each -> !tops.contains(each) && isLine(each))
                .toList();
        for (Element candidate : before.reversed()) {
            if (tops.stream().allMatch(line -> candidate.kind().mayOwn(line.kind()))) {
                return Optional.of(moved(tops, below(candidate)));
            }
        }
        return Optional.empty();
    }

    /**
     * Puts lines one level higher, behind what they stood below; nothing if they stand at the top of their
     * specification.
     */
    public Optional<Edit> outdent(List<Element> lines) {
        List<Element> tops = tops(lines);
        Element owner = owner(tops.getFirst());
        if (Specification.of(model, owner, false).isPresent() || owner.owner() == null) {
            return Optional.empty();
        }
        return Optional.of(moved(tops, after(owner)));
    }

    /** Puts lines one place up or down among the lines of the same level; nothing at the end of it. */
    public Optional<Edit> shift(List<Element> lines, boolean down) {
        List<Element> tops = tops(lines);
        List<Element> mates = model.children(owner(tops.getFirst()).id()).stream()
                .filter(Structuring::isLine)
                .toList();
        int at = mates.indexOf(down ? tops.getLast() : tops.getFirst());
        int over = down ? at + 1 : at - 1;
        if (over < 0 || over >= mates.size()) {
            return Optional.empty();
        }
        Element mate = mates.get(over);
        return Optional.of(moved(tops, down ? after(mate) : before(mate)));
    }

    /** Right before a line, on its level. */
    public Place before(Element line) {
        Element owner = owner(line);
        List<Element> siblings = model.children(owner.id());
        int at = siblings.indexOf(line);
        return new Place(owner, at > 0 ? siblings.get(at - 1) : null, line);
    }

    /** Puts lines, in their order, to a place; they keep what stands below them. */
    public Edit moved(List<Element> lines, Place place) {
        List<Element> put = new ArrayList<>();
        List<Element> tops = tops(lines);
        Iterator<Rank> ranks = place.ranks(tops.size()).iterator();
        tops.forEach(line -> put.add(line.withOwner(place.owner().id(), ranks.next())));
        return new Edit(put, Set.of());
    }

    /** Of several lines those that no other of them stands above, in the order of the model. */
    public List<Element> tops(List<Element> lines) {
        Set<ElementId> all = new HashSet<>();
        lines.forEach(line -> all.add(line.id()));
        return lines.stream()
                .filter(line -> model.owners(line).stream().noneMatch(owner -> all.contains(owner.id())))
                .toList();
    }

    private List<Element> siblingsBefore(Element line) {
        List<Element> siblings = model.children(owner(line).id());
        return siblings.subList(0, siblings.indexOf(line));
    }

    private static boolean isLine(Element element) {
        return element.kind().isPackage()
                || Specification.isRequirement(element)
                || element.kind() == ElementKind.COMMENT;
    }

    /**
     * Copies a line with all below it to right behind it. Copies of requirements get ids of their own; links that begin
     * or end at them are not copied, because nobody has thought about them yet.
     */
    public List<Element> duplicate(Element line, Supplier<String> ids) {
        return new SubtreeCopy(model, ids).of(line, rank(after(line)));
    }
}
