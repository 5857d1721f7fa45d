package pyrite.app.store;

import java.time.Instant;

/** A named revision. */
public record Baseline(long id, int number, String name, String note, String person, Instant at) {}
