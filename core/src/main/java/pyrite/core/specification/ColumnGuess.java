package pyrite.core.specification;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.TableImport.Mapping;

/** What the columns of a table are likely to be: by the names in its first row, or else by what stands in them. */
public final class ColumnGuess {
    private static final Map<String, Set<String>> WORDS = Map.of(
            TableImport.ID,
            Set.of("id", "no", "no.", "nr", "nr.", "number", "identifier", "key", "ref", "reference"),
            TableImport.TEXT,
            Set.of("text", "requirement", "description", "statement", "need", "wording"),
            TableImport.NAME,
            Set.of("name", "title"),
            TableImport.HEADING,
            Set.of("heading", "section", "chapter", "group"));

    /** No longer is a name of a column that nobody knows. */
    private static final int LONGEST_NAME = 24;
    /** So long is the beginning of an attribute's name that stands for it. */
    private static final int SHORTEST_BEGINNING = 4;

    private ColumnGuess() {}

    public static Mapping of(Model model, List<List<String>> rows) {
        List<String> first = rows.getFirst();
        List<String> attributes =
                Attributes.in(model).all().stream().map(Attribute::name).toList();
        List<String> named =
                first.stream().map(cell -> meaning(cell, attributes)).toList();
        if (named.contains(TableImport.TEXT) || named.contains(TableImport.ID) && rows.size() > 1) {
            return new Mapping(withText(named, rows.subList(1, rows.size())), true);
        }
        boolean headed = isOfNames(first) && rows.size() > 1 && tellsMore(rows);
        return new Mapping(byContent(headed ? rows.subList(1, rows.size()) : rows), headed);
    }

    private static String meaning(String cell, List<String> attributes) {
        String word = cell.strip().toLowerCase(Locale.ROOT);
        return WORDS.entrySet().stream()
                .filter(each -> each.getValue().contains(word))
                .map(Map.Entry::getKey)
                .findFirst()
                .or(() -> attributes.stream().filter(word::equals).findFirst())
                .or(() -> attributes.stream()
                        .filter(name -> word.length() >= SHORTEST_BEGINNING && name.startsWith(word))
                        .findFirst())
                .orElse(TableImport.IGNORED);
    }

    /** A table of which only other columns are known has its text where most is said, if that column is not known. */
    private static List<String> withText(List<String> named, List<List<String>> body) {
        int longest = longest(body);
        if (named.contains(TableImport.TEXT)
                || longest >= named.size()
                || !named.get(longest).isEmpty()) {
            return named;
        }
        List<String> columns = new ArrayList<>(named);
        columns.set(longest, TableImport.TEXT);
        return columns;
    }

    private static boolean isOfNames(List<String> row) {
        List<String> cells = row.stream().filter(cell -> !cell.isBlank()).toList();
        return cells.size() > 1
                && new HashSet<>(cells).size() == cells.size()
                && cells.stream()
                        .allMatch(cell -> cell.length() <= LONGEST_NAME
                                && cell.chars().noneMatch(Character::isDigit)
                                && !cell.strip().endsWith("."));
    }

    /** Whether the rows below the first say far more, where they say most, than that does there. */
    private static boolean tellsMore(List<List<String>> rows) {
        List<List<String>> body = rows.subList(1, rows.size());
        int column = longest(body);
        return length(body, column) / body.size() > 2 * length(rows.subList(0, 1), column);
    }

    private static List<String> byContent(List<List<String>> rows) {
        int columns = rows.stream().mapToInt(List::size).max().orElse(0);
        int text = longest(rows);
        return IntStream.range(0, columns)
                .mapToObj(i ->
                        i == text ? TableImport.TEXT : i == 0 && holdsIds(rows) ? TableImport.ID : TableImport.IGNORED)
                .toList();
    }

    /** Whether the first column holds ids, and nothing else where it holds something. */
    private static boolean holdsIds(List<List<String>> rows) {
        List<String> cells = rows.stream()
                .filter(row -> !row.isEmpty())
                .map(row -> row.getFirst().strip())
                .filter(cell -> !cell.isEmpty())
                .toList();
        return !cells.isEmpty()
                && cells.stream().allMatch(cell -> RequirementIds.parse(cell).isPresent());
    }

    private static int longest(List<List<String>> rows) {
        int columns = rows.stream().mapToInt(List::size).max().orElse(1);
        return IntStream.range(0, columns)
                .boxed()
                .max(Comparator.<Integer>comparingLong(i -> length(rows, i)).thenComparing(Comparator.reverseOrder()))
                .orElse(0);
    }

    private static long length(List<List<String>> rows, int column) {
        return rows.stream()
                .filter(row -> column < row.size())
                .mapToLong(row -> row.get(column).length())
                .sum();
    }
}
