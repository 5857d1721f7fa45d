package pyrite.core.model;

import java.nio.charset.StandardCharsets;
import java.security.SecureRandom;
import java.util.UUID;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import pyrite.core.expression.Referent;

/** The lasting identity of an element; survives renaming, moving and reading its text again. */
public record ElementId(UUID value) implements Referent, Comparable<ElementId> {
    private static final ThreadLocal<RandomGenerator> RANDOM = ThreadLocal.withInitial(() -> {
        java.nio.ByteBuffer seed = java.nio.ByteBuffer.wrap(new SecureRandom().generateSeed(32));
        return RandomGeneratorFactory.<RandomGenerator>of("Xoshiro256PlusPlus").create(seed.array());
    });

    /** A new id (RFC 9562, version 4). It need not be hard to guess, only different from all others. */
    public static ElementId random() {
        RandomGenerator random = RANDOM.get();
        return new ElementId(new UUID(random.nextLong() & ~0xF000L | 0x4000L, random.nextLong() & ~(3L << 62) | 1L << 63));
    }

    /** Whether it was derived from a name, as those of the library are, and not drawn. */
    boolean isNameBased() {
        return value.version() == 3;
    }

    /** The id of a library element, the same in every installation: derived from its qualified name. */
    public static ElementId ofLibrary(String qualifiedName) {
        return new ElementId(UUID.nameUUIDFromBytes(("pyrite.library:" + qualifiedName).getBytes(StandardCharsets.UTF_8)));
    }

    /** @throws IllegalArgumentException if the text is no UUID */
    public static ElementId parse(String text) {
        return new ElementId(UUID.fromString(text));
    }

    @Override
    public int compareTo(ElementId other) {
        return value.compareTo(other.value);
    }

    @Override
    public String toString() {
        return value.toString();
    }
}
