package pyrite.core.model;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Comparator;
import java.util.Optional;
import java.util.UUID;
import pyrite.core.expression.Referent;

/**
 * The permanent identity of an element, a UUID that survives renaming, moving and reading its text again. Stored as two
 * longs, because snapshots hold and compare very many of them.
 */
public record ElementId(long high, long low) implements Referent, Comparable<ElementId> {
    private static final Comparator<ElementId> ORDER =
            Comparator.comparingLong(ElementId::high).thenComparingLong(ElementId::low);
    private static final ThreadLocal<Sequence> NEXT = ThreadLocal.withInitial(Sequence::new);

    public static ElementId of(UUID value) {
        return new ElementId(value.getMostSignificantBits(), value.getLeastSignificantBits());
    }

    /**
     * A new id, a UUID of version 7 (RFC 9562, 5.7 and 6.2, method 2): by time, and one more than the one before, so
     * that elements made together lie together in maps and in a store's index. It need not be hard to guess, only
     * different from all others.
     */
    public static ElementId fresh() {
        return NEXT.get().next();
    }

    /** Counts upward from a random 74-bit number; each thread has its own. */
    private static final class Sequence {
        private static final long VERSION = 7L << 12;
        private static final long VARIANT = 1L << 63;

        private final long chance;
        private long last;

        Sequence() {
            SecureRandom random = new SecureRandom();
            chance = random.nextLong() & 0xFFF;
            last = random.nextLong();
        }

        ElementId next() {
            last++;
            return new ElementId(System.currentTimeMillis() << 16 | VERSION | chance, last & ~(3L << 62) | VARIANT);
        }
    }

    /** The id of a library element, the same in every installation: derived from its qualified name. */
    public static ElementId ofLibrary(String qualifiedName) {
        return of(UUID.nameUUIDFromBytes(("pyrite.library:" + qualifiedName).getBytes(StandardCharsets.UTF_8)));
    }

    /** The id a text is, if it is one. */
    public static Optional<ElementId> read(String text) {
        try {
            return Optional.of(parse(text));
        } catch (IllegalArgumentException _) {
            return Optional.empty();
        }
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static ElementId parse(String text) {
        return of(UUID.fromString(text));
    }

    public UUID value() {
        return new UUID(high, low);
    }

    /** Whether it was derived from a name, as those of the library are, and not drawn. */
    boolean isNameBased() {
        return (high >> 12 & 0xF) == 3;
    }

    /**
     * Of the lower half alone, in which new ids differ by one: what was made together is found without searching all of
     * the memory.
     */
    @Override
    public int hashCode() {
        return Long.hashCode(low);
    }

    @Override
    public int compareTo(ElementId other) {
        return ORDER.compare(this, other);
    }

    @Override
    public String toString() {
        return value().toString();
    }
}
