package pyrite.core.model;

import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;

/** The id by which people know a requirement: usually a prefix, a hyphen and a number. */
public final class RequirementIds {
    private static final int MOST_DIGITS = 9;

    /** MG-2 before MG-10; ids that are not numbered first, by their length and letters. */
    public static final Comparator<String> ORDER = Comparator.comparing(Key::of);

    private RequirementIds() {}

    /** An id of a prefix and a number. */
    public record Numbered(String prefix, int number) {
        @Override
        public String toString() {
            return prefix + "-" + number;
        }
    }

    /** The sort key of an id. */
    private record Key(String prefix, int number, String id) implements Comparable<Key> {
        private static final Comparator<Key> BY_PARTS = Comparator.comparing(Key::prefix)
                .thenComparingInt(Key::number)
                .thenComparingInt(key -> key.id().length())
                .thenComparing(Key::id);

        static Key of(String id) {
            return parse(id)
                    .map(numbered -> new Key(numbered.prefix(), numbered.number(), id))
                    .orElseGet(() -> new Key("", 0, id));
        }

        @Override
        public int compareTo(Key other) {
            return BY_PARTS.compare(this, other);
        }
    }

    /** Reads an id as a prefix, a hyphen and one to nine digits. */
    public static Optional<Numbered> parse(String id) {
        int hyphen = id.lastIndexOf('-');
        int digits = id.length() - hyphen - 1;
        if (hyphen < 1 || digits < 1 || digits > MOST_DIGITS || Character.isWhitespace(id.charAt(hyphen - 1))) {
            return Optional.empty();
        }
        int number = 0;
        for (int i = hyphen + 1; i < id.length(); i++) {
            char digit = id.charAt(i);
            if (digit < '0' || digit > '9') {
                return Optional.empty();
            }
            number = number * 10 + digit - '0';
        }
        return Optional.of(new Numbered(id.substring(0, hyphen), number));
    }

    /** Elements in the order of their ids. */
    public static List<Element> sorted(Model model, Stream<Element> elements) {
        return sorted(elements, element -> of(model, element));
    }

    /** Anything in the order of the ids it goes by, each of which is looked up and read once. */
    public static <T> List<T> sorted(Stream<T> all, Function<T, String> id) {
        record Keyed<T>(Key key, T one) {}

        return all.map(one -> new Keyed<>(Key.of(id.apply(one)), one))
                .sorted(Comparator.comparing(Keyed::key))
                .map(Keyed::one)
                .toList();
    }

    /** The short name of a requirement, else that of the nearest definition it has one from, else its name. */
    public static String of(Model model, Element requirement) {
        if (requirement.shortName() != null) {
            return requirement.shortName();
        }
        return model.inheritance().generals(requirement).stream()
                .map(Element::shortName)
                .filter(Objects::nonNull)
                .findFirst()
                .orElseGet(() -> Objects.requireNonNullElse(model.names().effectiveName(requirement), ""));
    }
}
