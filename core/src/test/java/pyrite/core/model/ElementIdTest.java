package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentLinkedQueue;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import pyrite.core.notation.Library;

class ElementIdTest {
    /**
     * RFC 9562, 5.7: the version is 7, the variant the RFC's own, and the first 48 bits are the milliseconds since
     * 1970.
     */
    @Test
    void aNewIdIsAUuidOfVersionSevenWithTheTimeItWasMadeAt() {
        long before = Instant.now().toEpochMilli();
        UUID id = ElementId.fresh().value();
        long after = Instant.now().toEpochMilli();
        assertThat(id.version()).isEqualTo(7);
        assertThat(id.variant()).isEqualTo(2);
        assertThat(id.getMostSignificantBits() >>> 16).isBetween(before, after);
    }

    @Test
    void idsOfSeveralThreadsAreAllDifferent() throws InterruptedException {
        Collection<ElementId> made = new ConcurrentLinkedQueue<>();
        List<Thread> threads = IntStream.range(0, 8)
                .mapToObj(_ -> Thread.ofPlatform().start(() -> {
                    for (int i = 0; i < 20_000; i++) {
                        made.add(ElementId.fresh());
                    }
                }))
                .toList();
        for (Thread thread : threads) {
            thread.join();
        }
        assertThat(Set.copyOf(made)).hasSize(160_000);
    }

    /**
     * What large models rest on: elements made one after another stand beside each other in hash maps, without two of
     * them in one place.
     */
    @Test
    void idsMadeOneAfterAnotherHaveHashesBesideEachOther() {
        List<Integer> hashes = IntStream.range(0, 10_000)
                .map(_ -> ElementId.fresh().hashCode())
                .boxed()
                .toList();
        assertThat(Set.copyOf(hashes)).hasSize(10_000);
        long beside = IntStream.range(1, 10_000)
                .filter(i -> Math.abs(hashes.get(i) - hashes.get(i - 1)) == 1)
                .count();
        assertThat(beside).isGreaterThan(9_000L / 2);
    }

    @Property(tries = 300)
    void whatIsWrittenIsReadAndTheOrderIsThatOfTheNumbers(
            @ForAll long high, @ForAll long low, @ForAll long otherHigh, @ForAll long otherLow) {
        ElementId id = new ElementId(high, low);
        ElementId other = new ElementId(otherHigh, otherLow);
        assertThat(ElementId.parse(id.toString())).isEqualTo(id);
        assertThat(ElementId.of(id.value())).isEqualTo(id);
        assertThat(ElementId.read(id.toString())).contains(id);
        assertThat(Integer.signum(id.compareTo(other))).isEqualTo(-Integer.signum(other.compareTo(id)));
        assertThat(id.compareTo(other) == 0).isEqualTo(id.equals(other));
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "pump", "12345678-1234-1234-1234", "g2345678-1234-1234-1234-123456789012"})
    void whatIsNoUuidIsNoId(String text) {
        assertThat(ElementId.read(text)).isEmpty();
        assertThatThrownBy(() -> ElementId.parse(text)).isInstanceOf(IllegalArgumentException.class);
    }

    /** RFC 9562, 5.3: of a name, so that the library has the same ids in every installation. */
    @Test
    void theLibrarysIdsComeFromItsNames() {
        ElementId real = ElementId.ofLibrary("ScalarValues::Real");
        assertThat(real)
                .isEqualTo(ElementId.ofLibrary("ScalarValues::Real"))
                .isNotEqualTo(ElementId.ofLibrary("ScalarValues::Integer"));
        assertThat(real.value().version()).isEqualTo(3);
        assertThat(real.isNameBased()).isTrue();
        assertThat(ElementId.fresh().isNameBased()).isFalse();
        assertThat(Library.model().get(real).name()).isEqualTo("Real");
    }
}
