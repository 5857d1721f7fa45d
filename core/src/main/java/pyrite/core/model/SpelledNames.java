package pyrite.core.model;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * The names by which an author refers to other elements, where these are not the plain names of the elements: qualified
 * names, short names, aliases. Written again, a text keeps them as long as they still mean the same.
 */
public final class SpelledNames {
    /** What an import names; it may be an alias. */
    private static final String IMPORTED = "import";
    /** Before the key of a name that stands behind a dot. */
    private static final String STEP = ".";

    private static final String BETWEEN = " ";

    /** Most elements have none, for which nothing is laid out. */
    private Map<String, String> byKey = Map.of();

    /** The names that an element keeps. */
    public static SpelledNames of(Element element) {
        SpelledNames names = new SpelledNames();
        element.get(Property.SPELLINGS).ifPresent(kept -> kept.lines().forEach(names::line));
        return names;
    }

    private void line(String line) {
        int blank = line.indexOf(BETWEEN);
        if (blank > 0) {
            put(line.substring(0, blank), line.substring(blank + 1));
        }
    }

    /** As an element keeps them; empty if there are none. */
    public String text() {
        return byKey.entrySet().stream()
                .map(entry -> entry.getKey() + BETWEEN + entry.getValue())
                .collect(Collectors.joining("\n"));
    }

    public boolean isEmpty() {
        return byKey.isEmpty();
    }

    /** The name an import is written with, as the notation spells it; null if it is not known. */
    public @Nullable String imported() {
        return byKey.get(IMPORTED);
    }

    /** What an import keeps. */
    public static String imported(String spelling) {
        return IMPORTED + BETWEEN + spelling;
    }

    /** The name an element is referred to by, as the notation spells it; null if it is the plain one. */
    public @Nullable String of(ElementId target) {
        return byKey.get(target.toString());
    }

    /** The name of an element behind a dot; null if it is the plain one. */
    public @Nullable String step(ElementId target) {
        return byKey.get(STEP + target);
    }

    /** A unit with a prefix; null if it is written by the symbols of both. */
    public @Nullable String unit(String prefix, ElementId unit) {
        return byKey.get(prefix + unit);
    }

    public void keep(ElementId target, String spelling) {
        put(target.toString(), spelling);
    }

    public void keepStep(ElementId target, String spelling) {
        put(STEP + target, spelling);
    }

    public void keepUnit(String prefix, ElementId unit, String spelling) {
        put(prefix + unit, spelling);
    }

    private void put(String key, String spelling) {
        if (byKey.isEmpty()) {
            byKey = new LinkedHashMap<>(4);
        }
        byKey.putIfAbsent(key, spelling);
    }
}
