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
 * it exists, so that the lock reveals nothing; after {@value #FREE_TRIES_OF_AN_ADDRESS} an address is, whatever names
 * were tried from it. Remembers a limited number of both.
 */
@Component
class SignInGuard {
    static final int FREE_TRIES = 5;
    /** Many people of one house may come from one address. */
    static final int FREE_TRIES_OF_AN_ADDRESS = 50;

    static final Duration LOCK = Duration.ofMinutes(5);

    private final Failures ofNames;
    private final Failures ofAddresses;

    SignInGuard(InstantSource clock) {
        this.ofNames = new Failures(clock, FREE_TRIES);
        this.ofAddresses = new Failures(clock, FREE_TRIES_OF_AN_ADDRESS);
    }

    /** Failures in a row, of names or of addresses. */
    private static final class Failures {
        private static final int MOST = 10_000;

        private record Row(int count, Instant last) {}

        private final InstantSource clock;
        private final int free;
        private final Cache<String, Row> rows =
                Caffeine.newBuilder().maximumSize(MOST).build();

        Failures(InstantSource clock, int free) {
            this.clock = clock;
            this.free = free;
        }

        boolean isLocked(String key) {
            Row known = rows.getIfPresent(key);
            return known != null
                    && known.count() >= free
                    && clock.instant().isBefore(known.last().plus(LOCK));
        }

        /** Trying while it is locked does not lengthen the lock: otherwise anybody could keep somebody out for good. */
        void failed(String key) {
            if (!isLocked(key)) {
                Instant now = clock.instant();
                rows.asMap()
                        .merge(
                                key,
                                new Row(1, now),
                                (known, _) -> new Row(known.count() >= free ? 1 : known.count() + 1, now));
            }
        }

        void succeeded(String key) {
            rows.invalidate(key);
        }
    }

    boolean isLocked(String signIn) {
        return ofNames.isLocked(key(signIn));
    }

    boolean isCrowded(String address) {
        return ofAddresses.isLocked(address);
    }

    void failed(String signIn, String address) {
        ofNames.failed(key(signIn));
        if (!address.isEmpty()) {
            ofAddresses.failed(address);
        }
    }

    void succeeded(String signIn) {
        ofNames.succeeded(key(signIn));
    }

    private static String key(String signIn) {
        return signIn.strip().toLowerCase(Locale.ROOT);
    }
}
