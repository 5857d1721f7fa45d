package pyrite.core.expression;

import java.util.ArrayList;
import java.util.List;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** A qualified name as written, {@code A::B::c} (KerML 8.2.3.4), not yet resolved. The parts carry no quotes. */
public record Name(List<String> parts) implements Referent {
    private static final Pattern BASIC = Pattern.compile("[a-zA-Z_][a-zA-Z0-9_]*");

    public Name {
        parts = List.copyOf(parts);
        if (parts.isEmpty()) {
            throw new IllegalArgumentException("a name has at least one part");
        }
    }

    public static Name of(String... parts) {
        return new Name(List.of(parts));
    }

    public String last() {
        return parts.getLast();
    }

    /** The same path with another last part. */
    public Name withLast(String part) {
        List<String> changed = new ArrayList<>(parts);
        changed.set(parts.size() - 1, part);
        return new Name(changed);
    }

    /** The name as the notation writes it, quoted where the plain form would not be read back as one name. */
    @Override
    public String toString() {
        return parts.stream().map(Name::quoted).collect(Collectors.joining("::"));
    }

    public static String quoted(String part) {
        boolean plain = BASIC.matcher(part).matches() && !Keywords.RESERVED.contains(part);
        return plain
                ? part
                : "'" + part.replace("\\", "\\\\").replace("'", "\\'").replace("\n", "\\n") + "'";
    }
}
