package pyrite.core.specification;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
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
 * Imports rows of a table into a specification. A row whose id exists changes that requirement, any other row adds one
 * at the end; cells that are absent change nothing.
 */
public final class TableImport {
    /** What a column is taken for besides attributes, which are meant by their names. */
    public static final String ID = "id";

    public static final String TEXT = "text";
    public static final String NAME = "name";
    public static final String HEADING = "heading";
    public static final String IGNORED = "";

    private static final Set<String> WORDS_FOR_TEXT = Set.of("text", "requirement", "description", "statement", "need");
    private static final Set<String> WORDS_FOR_ID = Set.of("id", "no", "no.", "number", "identifier", "key");

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

    private TableImport(Model model, Structuring.Place place, Mapping mapping) {
        this.model = model;
        this.place = place;
        this.mapping = mapping;
        this.attributes = Attributes.in(model);
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
            return "from a table: " + (what.isEmpty() ? "nothing new" : String.join(", ", what)) + leftOutInWords();
        }

        private String leftOutInWords() {
            return leftOut.isEmpty()
                    ? ""
                    : "; left out: column "
                            + leftOut.stream().map(String::valueOf).collect(Collectors.joining(", "));
        }
    }

    /** What the columns are likely to be, from the names in the first row, or else from how many there are. */
    public static Mapping guess(Model model, List<List<String>> rows) {
        List<String> first = rows.getFirst();
        Set<String> known = new HashSet<>();
        Attributes.in(model).all().forEach(attribute -> known.add(attribute.name()));
        List<String> named = first.stream().map(cell -> meaning(cell, known)).toList();
        boolean headed = named.contains(TEXT) || named.contains(ID) && rows.size() > 1;
        if (headed) {
            return new Mapping(named, true);
        }
        int longest = 0;
        for (int i = 1; i < first.size(); i++) {
            longest = first.get(i).length() > first.get(longest).length() ? i : longest;
        }
        List<String> columns = new ArrayList<>();
        for (int i = 0; i < first.size(); i++) {
            columns.add(
                    i == longest
                            ? TEXT
                            : i == 0
                                            && pyrite.core.model.RequirementIds.parse(first.get(0))
                                                    .isPresent()
                                    ? ID
                                    : IGNORED);
        }
        return new Mapping(columns, false);
    }

    private static String meaning(String cell, Set<String> attributes) {
        String word = cell.strip().toLowerCase(Locale.ROOT);
        return WORDS_FOR_ID.contains(word)
                ? ID
                : WORDS_FOR_TEXT.contains(word)
                        ? TEXT
                        : word.equals(NAME) || word.equals(HEADING) ? word : attributes.contains(word) ? word : IGNORED;
    }

    /** @param ids gives so many new ids */
    public static Plan plan(
            Model model,
            Structuring.Place place,
            Mapping mapping,
            List<List<String>> rows,
            IntFunction<List<String>> ids) {
        return new TableImport(model, place, mapping).plan(rows, ids);
    }

    private Plan plan(List<List<String>> rows, IntFunction<List<String>> ids) {
        Map<String, Element> byId = byId(rows);
        int without = (int) body(rows).stream()
                .filter(row -> isSaid(row) && cell(row, ID).isEmpty())
                .count();
        Iterator<String> fresh = ids.apply(without).iterator();
        Set<String> seen = new HashSet<>();
        List<List<String>> body = body(rows);
        Iterator<Rank> ranks = place.ranks(body.size()).iterator();
        int at = mapping.headed() ? 1 : 0;
        for (List<String> row : body) {
            at++;
            if (!isSaid(row)) {
                continue;
            }
            String id = cell(row, ID);
            if (!id.isEmpty() && !seen.add(id)) {
                problems.add(new RowProblem(at, "the id " + id + " stands in another row, too"));
                continue;
            }
            Element known = byId.get(id);
            row(
                    at,
                    row,
                    known,
                    known == null && id.isEmpty() ? fresh.next() : id,
                    known == null ? ranks.next() : known.rank());
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

    private void row(int at, List<String> row, @Nullable Element known, String id, Rank rank) {
        String text = BlockText.normal(cell(row, TEXT));
        if (!BlockText.isWritable(text)) {
            problems.add(new RowProblem(at, "a text cannot contain '*/', which ends it in the notation"));
            return;
        }
        if (known == null) {
            Element made = new Element(ElementId.fresh(), kind(), place.owner().id(), rank, null, id, Map.of());
            write(made);
            Element doc = Element.of(ElementKind.DOCUMENTATION, made.id(), Rank.between(null, null), null)
                    .with(Property.TEXT, text);
            write(doc);
            added.add(made.id());
            changes.add(new Change(at, id, true, TEXT, "", text));
            values(at, row, made, true);
            return;
        }
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
        values(at, row, known, false);
    }

    private ElementKind kind() {
        return Specification.of(model, place.owner(), true)
                        .filter(each -> each.level().equals("need"))
                        .isPresent()
                ? ElementKind.CONCERN
                : ElementKind.REQUIREMENT;
    }

    private void values(int at, List<String> row, Element requirement, boolean isNew) {
        Element carrier = requirement;
        for (String column : new java.util.LinkedHashSet<>(mapping.columns())) {
            String value = cell(row, column);
            Attribute attribute = value.isEmpty()
                    ? null
                    : attributes.named(requirement, column).orElse(null);
            if (attribute == null || attributes.value(carrier, attribute).equals(value)) {
                continue;
            }
            try {
                Edit edit = attributes.set(requirement, attribute, value, this::children);
                edit.put().forEach(this::write);
                remove.addAll(edit.remove());
                changes.add(new Change(
                        at,
                        Objects.requireNonNullElse(requirement.shortName(), ""),
                        isNew,
                        attribute.name(),
                        attributes.value(carrier, attribute),
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

    private List<Element> children(ElementId owner) {
        List<Element> more = within.getOrDefault(owner, List.of());
        return more.isEmpty()
                ? model.children(owner)
                : java.util.stream.Stream.concat(model.children(owner).stream(), more.stream())
                        .toList();
    }
}
