package pyrite.app.security;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.security.SecureRandom;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.Base64;
import java.util.HexFormat;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import pyrite.app.store.Person;
import pyrite.app.store.TokenMapper;

/**
 * Personal access tokens: a script that has one may do over the API what the person may, until it expires or is
 * revoked.
 */
@Service
class Tokens {
    private static final String PREFIX = "pyr_";
    private static final int BYTES = 32;
    private static final int MOST_DAYS = 366;
    private static final int LONGEST_NAME = 100;

    private final TokenMapper mapper;
    private final Audit audit;
    private final InstantSource clock;

    Tokens(TokenMapper mapper, Audit audit, InstantSource clock) {
        this.mapper = mapper;
        this.audit = audit;
        this.clock = clock;
    }

    List<TokenMapper.Token> of(Person person) {
        return mapper.of(person.id());
    }

    /** Makes a token and gives it; only its hash is kept, so it is shown this once. */
    String make(Person person, String name, int days) {
        if (name.isBlank() || name.strip().length() > LONGEST_NAME) {
            throw new People.Refused("say in 1 to " + LONGEST_NAME + " characters what the token is for");
        }
        if (days < 1 || days > MOST_DAYS) {
            throw new People.Refused("a token is good for 1 to " + MOST_DAYS + " days");
        }
        byte[] bytes = new byte[BYTES];
        new SecureRandom().nextBytes(bytes);
        String token = PREFIX + Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        Instant now = clock.instant();
        mapper.add(person.id(), name.strip(), hash(token), now, now.plus(Duration.ofDays(days)));
        audit.note(person.signIn(), "made a token", name.strip());
        return token;
    }

    void remove(Person person, long id) {
        if (mapper.remove(id, person.id()) > 0) {
            audit.note(person.signIn(), "revoked a token", String.valueOf(id));
        }
    }

    /** The sign-in of whoever's token this is; empty if it is nobody's or no longer good. */
    Optional<String> holder(String token) {
        String hash = hash(token);
        Optional<String> holder = mapper.holder(hash, clock.instant());
        holder.ifPresent(_ -> mapper.used(hash, clock.instant()));
        return holder;
    }

    private static String hash(String token) {
        try {
            return HexFormat.of()
                    .formatHex(MessageDigest.getInstance("SHA-256").digest(token.getBytes(StandardCharsets.UTF_8)));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }
}
