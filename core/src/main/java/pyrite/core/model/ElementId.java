package pyrite.core.model;

import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.Comparator;
import java.util.Optional;
import java.util.UUID;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import pyrite.core.expression.Referent;

/**
 * The lasting identity of an element, a UUID; survives renaming, moving and reading its text again. Kept as its two halves,
 * because snapshots hold and compare very many of them.
 */
public record ElementId(long high, long low) implements Referent, Comparable<ElementId> {
    private static final Comparator<ElementId> ORDER = Comparator.comparingLong(ElementId::high).thenComparingLong(ElementId::low);
    private static final ThreadLocal<RandomGenerator> RANDOM = ThreadLocal.withInitial(() -> {
        ByteBuffer seed = ByteBuffer.wrap(new SecureRandom().generateSeed(32));
        return RandomGeneratorFactory.<RandomGenerator>of("Xoshiro256PlusPlus").create(seed.array());
    });

    public static ElementId of(UUID value) {
        return new ElementId(value.getMostSignificantBits(), value.getLeastSignificantBits());
    }

    /** A new id (RFC 9562, version 4). It need not be hard to guess, only different from all others. */
    public static ElementId random() {
        RandomGenerator random = RANDOM.get();
        return new ElementId(random.nextLong() & ~0xF000L | 0x4000L, random.nextLong() & ~(3L << 62) | 1L << 63);
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

    @Override
    public int hashCode() {
        long mixed = high ^ low;
        return (int) (mixed >> 32) ^ (int) mixed;
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
