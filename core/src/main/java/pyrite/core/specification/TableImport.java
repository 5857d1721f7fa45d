package pyrite.core.specification;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.notation.BlockText;

/**
 * Imports rows of a table into a specification. A row whose id exists changes that requirement where it stands, any
 * other row adds one at the end; cells that are absent change nothing. A heading holds for the new requirements of its
 * row and of those below it, up to the next.
 */
public final class TableImport {
    /** What a column is taken for besides attributes, which are meant by their names. */
    public static final String ID = "id";

    public static final String TEXT = "text";
    public static final String NAME = "name";
    public static final String HEADING = "heading";
    public static final String IGNORED = "";

    private final Model model;
    private final Structuring.Place place;
    private final Mapping mapping;
    private final Attributes attributes;
    private final List<Change> changes = new ArrayList<>();
    private final List<RowProblem> problems = new ArrayList<>();
    private final Map<ElementId, Element> put = new LinkedHashMap<>();
    private final Map<ElementId, List<Element>> within = new HashMap<>();
    private final Set<ElementId> remove = new HashSet<>();
    private final List<ElementId> added = new ArrayList<>();
    private final Map<String, Section> sections = new HashMap<>();
    private final Map<ElementId, Map<String, ElementId>> names = new HashMap<>();
    private final Map<String, Integer> rowsBelow;
    /** Where what has no heading stands. */
    private final Section here;
    /** Where new headings stand. */
    private final Section headings;

    private TableImport(Model model, Structuring.Place place, Mapping mapping, List<List<String>> rows) {
        this.model = model;
        this.place = place;
        this.mapping = mapping;
        this.attributes = Attributes.in(model);
        this.rowsBelow = rowsBelow(rows);
        this.here = new Section(place.owner(), place.ranks(rows.size()).iterator());
        Structuring.Place inPackage = new Structuring(model).inPackage(place);
        this.headings = inPackage.equals(place)
                ? here
                : new Section(inPackage.owner(), inPackage.ranks(rows.size()).iterator());
    }

    /**
     * @param columns the meaning of each column
     * @param headed whether the first row names the columns
     */
    public record Mapping(List<String> columns, boolean headed) {}

    /** The change that a row would make, for preview. {@code before} is empty for a new requirement. */
    public record Change(int row, String id, boolean isNew, String what, String before, String after) {}

    /** A problem in a row, counted from 1 as spreadsheets do. */
    public record RowProblem(int row, String message) {
        public String inWords() {
            return "row " + row + ": " + message;
        }
    }

    /**
     * The effect of an import. A plan with problems is not carried out.
     *
     * @param leftOut the columns that hold something but have no meaning here, counted from 1
     */
    public record Plan(
            Edit edit,
            List<Change> changes,
            List<ElementId> added,
            int changed,
            List<RowProblem> problems,
            List<Integer> leftOut) {
        public String summary() {
            List<String> what = new ArrayList<>();
            if (!added.isEmpty()) {
                what.add(added.size() + " added");
            }
            if (changed > 0) {
                what.add(changed + " changed");
            }
            long headings = changes.stream()
                    .filter(change -> change.what().equals(HEADING))
                    .count();
            if (headings > 0) {
                what.add(headings + (headings == 1 ? " heading" : " headings"));
            }
            return "from a table: " + (what.isEmpty() ? "nothing new" : String.join(", ", what)) + leftOutInWords();
        }

        private String leftOutInWords() {
            return leftOut.isEmpty()
                    ? ""
                    : "; left out: column "
                            + leftOut.stream().map(String::valueOf).collect(Collectors.joining(", "));
        }
    }

    /** @param ids gives so many new ids */
    public static Plan plan(
            Model model,
            Structuring.Place place,
            Mapping mapping,
            List<List<String>> rows,
            IntFunction<List<String>> ids) {
        return new TableImport(model, place, mapping, rows).plan(rows, ids);
    }

    private Plan plan(List<List<String>> rows, IntFunction<List<String>> ids) {
        Map<String, Element> byId = byId(rows);
        int without = (int) body(rows).stream()
                .filter(row -> isSaid(row) && cell(row, ID).isEmpty())
                .count();
        Iterator<String> fresh = ids.apply(without).iterator();
        Set<String> seen = new HashSet<>();
        List<List<String>> body = body(rows);
        Section section = here;
        int at = mapping.headed() ? 1 : 0;
        for (List<String> row : body) {
            at++;
            section = section(at, cell(row, HEADING), section);
            if (!isSaid(row)) {
                continue;
            }
            String id = cell(row, ID);
            if (!id.isEmpty() && !seen.add(id)) {
                problems.add(new RowProblem(at, "the id " + id + " stands in another row, too"));
                continue;
            }
            Element known = byId.get(id);
            row(at, row, known, known == null && id.isEmpty() ? fresh.next() : id, section);
        }
        int changed = (int) changes.stream()
                .filter(change -> !change.isNew())
                .map(Change::id)
                .distinct()
                .count();
        return new Plan(
                new Edit(List.copyOf(put.values()), remove),
                List.copyOf(changes),
                List.copyOf(added),
                changed,
                List.copyOf(problems),
                leftOut(body));
    }

    /** Where new requirements stand: the place of the import, or a heading there. */
    private record Section(Element owner, Iterator<Rank> ranks) {}

    private Section section(int at, String title, Section current) {
        if (title.isEmpty()) {
            return current;
        }
        Section known = sections.get(title);
        if (known == null) {
            known = heading(at, title);
            sections.put(title, known);
        }
        return known;
    }

    private Section heading(int at, String title) {
        int most = rowsBelow.getOrDefault(title, 0);
        ElementId owner = headings.owner().id();
        ElementId known = names(owner).get(title);
        Element there =
                known == null ? null : put.getOrDefault(known, model.find(known).orElse(null));
        if (there != null && there.kind().isPackage()) {
            return new Section(
                    there, new Structuring(model).below(there).ranks(most).iterator());
        }
        if (there != null) {
            problems.add(new RowProblem(
                    at,
                    "'" + title + "' is the name of " + there.kind().titleWithArticle()
                            + " there, so no heading can have it"));
        }
        Element made = Element.of(ElementKind.PACKAGE, owner, headings.ranks().next(), title);
        names(owner).put(title, made.id());
        write(made);
        changes.add(new Change(at, "", true, HEADING, "", title));
        return new Section(made, Rank.between(null, null, most).iterator());
    }

    /** How many rows stand below each heading. */
    private Map<String, Integer> rowsBelow(List<List<String>> rows) {
        Map<String, Integer> counts = new HashMap<>();
        String current = "";
        for (List<String> row : rows) {
            current = cell(row, HEADING).isEmpty() ? current : cell(row, HEADING);
            counts.merge(current, 1, Integer::sum);
        }
        return counts;
    }

    /** The names that are taken in an owner, with what has them. */
    private Map<String, ElementId> names(ElementId owner) {
        return names.computeIfAbsent(owner, _ -> {
            Map<String, ElementId> taken = new HashMap<>();
            children(owner).stream()
                    .filter(child -> child.name() != null)
                    .forEach(child -> taken.putIfAbsent(child.name(), child.id()));
            return taken;
        });
    }

    private List<Integer> leftOut(List<List<String>> body) {
        return IntStream.range(0, body.stream().mapToInt(List::size).max().orElse(0))
                .filter(i -> i >= mapping.columns().size()
                        || mapping.columns().get(i).equals(IGNORED))
                .filter(i -> body.stream()
                        .anyMatch(row -> i < row.size() && !row.get(i).isBlank()))
                .mapToObj(i -> i + 1)
                .toList();
    }

    private List<List<String>> body(List<List<String>> rows) {
        return mapping.headed() ? rows.subList(1, rows.size()) : rows;
    }

    private boolean isSaid(List<String> row) {
        return !cell(row, TEXT).isEmpty() || !cell(row, ID).isEmpty();
    }

    private String cell(List<String> row, String meaning) {
        int column = mapping.columns().indexOf(meaning);
        return column < 0 || column >= row.size() ? "" : row.get(column).strip();
    }

    private Map<String, Element> byId(List<List<String>> rows) {
        Set<String> requested = new HashSet<>();
        body(rows).forEach(row -> requested.add(cell(row, ID)));
        Map<String, Element> found = new HashMap<>();
        model.ownElements(ElementKind.REQUIREMENTS)
                .filter(each -> requested.contains(Objects.requireNonNullElse(each.shortName(), "")))
                .filter(each -> each.shortName() != null)
                .forEach(each -> found.put(each.shortName(), each));
        return found;
    }

    private void row(int at, List<String> row, @Nullable Element known, String id, Section section) {
        String text = BlockText.normal(cell(row, TEXT));
        if (!BlockText.isWritable(text)) {
            problems.add(new RowProblem(at, "a text cannot contain '*/', which ends it in the notation"));
            return;
        }
        if (known == null) {
            String name = cell(row, NAME);
            Element made = new Element(
                    ElementId.fresh(),
                    kind(),
                    section.owner().id(),
                    section.ranks().next(),
                    name.isEmpty() ? null : name,
                    id,
                    Map.of());
            requireFree(at, name, made);
            write(made);
            Element doc = Element.of(ElementKind.DOCUMENTATION, made.id(), Rank.between(null, null), null)
                    .with(Property.TEXT, text);
            write(doc);
            added.add(made.id());
            changes.add(new Change(at, id, true, TEXT, "", text));
            if (!name.isEmpty()) {
                changes.add(new Change(at, id, true, NAME, "", name));
            }
            values(at, row, made, true);
            return;
        }
        Element named = named(at, known, cell(row, NAME));
        String before = model.inheritance().documentation(known);
        if (!text.isEmpty() && !text.equals(before)) {
            Element doc = model.inheritance()
                    .documentationOf(known)
                    .orElseGet(() -> Element.of(
                            ElementKind.DOCUMENTATION,
                            known.id(),
                            Rank.between(
                                    null,
                                    model.children(known.id()).stream()
                                            .findFirst()
                                            .map(Element::rank)
                                            .orElse(null)),
                            null));
            write(doc.with(Property.TEXT, text));
            changes.add(new Change(at, id, false, TEXT, before, text));
        }
        values(at, row, named, false);
    }

    private Element named(int at, Element known, String name) {
        String before = Objects.requireNonNullElse(known.name(), "");
        if (name.isEmpty() || name.equals(before)) {
            return known;
        }
        Element named = known.withName(name);
        requireFree(at, name, named);
        write(named);
        changes.add(new Change(at, Objects.requireNonNullElse(known.shortName(), ""), false, NAME, before, name));
        return named;
    }

    /** Two that stand together have names of their own. */
    private void requireFree(int at, String name, Element element) {
        if (name.isEmpty()) {
            return;
        }
        ElementId other = names(Objects.requireNonNull(element.owner())).putIfAbsent(name, element.id());
        if (other != null && !other.equals(element.id())) {
            problems.add(new RowProblem(at, "the name '" + name + "' is taken beside it"));
        }
    }

    private ElementKind kind() {
        return Specification.of(model, place.owner(), true)
                        .filter(each -> each.level().equals("need"))
                        .isPresent()
                ? ElementKind.CONCERN
                : ElementKind.REQUIREMENT;
    }

    private void values(int at, List<String> row, Element requirement, boolean isNew) {
        // Which attributes it has its specification tells; a heading that is added does not know that yet.
        Element carrier = isNew ? requirement.withOwner(place.owner().id(), requirement.rank()) : requirement;
        for (String column : new LinkedHashSet<>(mapping.columns())) {
            String value = cell(row, column);
            Attribute attribute =
                    value.isEmpty() ? null : attributes.named(carrier, column).orElse(null);
            if (attribute == null || attributes.value(carrier, attribute).equals(value)) {
                continue;
            }
            try {
                Edit edit = attributes.set(carrier, attribute, value, this::children);
                edit.put().forEach(this::write);
                remove.addAll(edit.remove());
                changes.add(new Change(
                        at,
                        Objects.requireNonNullElse(requirement.shortName(), ""),
                        isNew,
                        attribute.name(),
                        isNew ? "" : attributes.value(carrier, attribute),
                        value));
            } catch (Attributes.ValueFault fault) {
                problems.add(new RowProblem(at, fault.getMessage()));
            }
        }
    }

    private void write(Element element) {
        put.put(element.id(), element);
        if (element.owner() != null && !model.has(element.id())) {
            within.computeIfAbsent(element.owner(), _ -> new ArrayList<>(2)).add(element);
        }
    }

    /** With those that the import adds. */
    private List<Element> children(ElementId owner) {
        List<Element> known = model.has(owner) ? model.children(owner) : List.of();
        List<Element> more = within.getOrDefault(owner, List.of());
        return more.isEmpty()
                ? known
                : Stream.concat(known.stream(), more.stream()).toList();
    }
}
