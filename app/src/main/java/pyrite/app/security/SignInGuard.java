package pyrite.app.security;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.Locale;
import org.springframework.stereotype.Component;

/**
 * Limits password guessing: after {@value #FREE_TRIES} failures in a row a name is locked for a while, whether or not
 * it exists, so that the lock reveals nothing. Remembers a limited number of names.
 */
@Component
class SignInGuard {
    static final int FREE_TRIES = 5;
    static final Duration LOCK = Duration.ofMinutes(5);
    private static final int MOST_NAMES = 10_000;

    private record Failures(int count, Instant last) {}

    private final InstantSource clock;
    private final Cache<String, Failures> failures =
            Caffeine.newBuilder().maximumSize(MOST_NAMES).build();

    SignInGuard(InstantSource clock) {
        this.clock = clock;
    }

    boolean isLocked(String signIn) {
        Failures known = failures.getIfPresent(key(signIn));
        return known != null
                && known.count() >= FREE_TRIES
                && clock.instant().isBefore(known.last().plus(LOCK));
    }

    /**
     * Trying while the name is locked does not lengthen the lock: otherwise anybody could keep somebody out for good.
     */
    void failed(String signIn) {
        if (!isLocked(signIn)) {
            Instant now = clock.instant();
            failures.asMap()
                    .merge(
                            key(signIn),
                            new Failures(1, now),
                            (known, _) -> new Failures(known.count() >= FREE_TRIES ? 1 : known.count() + 1, now));
        }
    }

    void succeeded(String signIn) {
        failures.invalidate(key(signIn));
    }

    private static String key(String signIn) {
        return signIn.strip().toLowerCase(Locale.ROOT);
    }
}
