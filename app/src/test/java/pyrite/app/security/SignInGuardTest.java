package pyrite.app.security;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.time.Instant;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class SignInGuardTest {
    private Instant now = Instant.parse("2026-11-23T08:00:00Z");
    private final SignInGuard guard = new SignInGuard(() -> now);

    private void fail(int times) {
        IntStream.range(0, times).forEach(_ -> guard.failed("ines", "10.0.0.1"));
    }

    private void later(Duration duration) {
        now = now.plus(duration);
    }

    @Test
    void fourFailuresAreForgivenTheFifthLocks() {
        fail(4);
        assertThat(guard.isLocked("ines")).isFalse();
        fail(1);
        assertThat(guard.isLocked("ines")).isTrue();
        assertThat(guard.isLocked(" Ines ")).as("however it is written").isTrue();
        assertThat(guard.isLocked("odo")).isFalse();
    }

    @Test
    void theLockEndsByItselfAndCountingBeginsAnew() {
        fail(5);
        later(SignInGuard.LOCK.minusSeconds(1));
        assertThat(guard.isLocked("ines")).isTrue();
        later(Duration.ofSeconds(2));
        assertThat(guard.isLocked("ines")).isFalse();
        fail(4);
        assertThat(guard.isLocked("ines")).isFalse();
        fail(1);
        assertThat(guard.isLocked("ines")).isTrue();
    }

    @Test
    void tryingOnWhileLockedDoesNotKeepSomebodyOutForGood() {
        fail(5);
        later(SignInGuard.LOCK.minusSeconds(10));
        fail(100);
        later(Duration.ofSeconds(11));
        assertThat(guard.isLocked("ines")).isFalse();
    }

    @Test
    void anAddressThatTriesManyNamesWaits() {
        IntStream.range(0, 49).forEach(i -> guard.failed("name" + i, "10.0.0.7"));
        assertThat(guard.isCrowded("10.0.0.7")).isFalse();
        guard.failed("one more", "10.0.0.7");
        assertThat(guard.isCrowded("10.0.0.7")).isTrue();
        assertThat(guard.isCrowded("10.0.0.8")).isFalse();
        assertThat(guard.isLocked("ines")).isFalse();
        later(SignInGuard.LOCK.plusSeconds(1));
        assertThat(guard.isCrowded("10.0.0.7")).isFalse();
    }

    @Test
    void aSuccessForgetsTheFailuresBefore() {
        fail(4);
        guard.succeeded("ines");
        fail(4);
        assertThat(guard.isLocked("ines")).isFalse();
    }
}
