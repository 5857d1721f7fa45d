package pyrite.core.trace;

import pyrite.core.model.Model;

/** The text of a watched property when the link was agreed, and now. */
public record DoubtText(String before, String after) {

    /** @param then the snapshot at which the link was agreed */
    public static DoubtText of(Model then, Model now, Agreements.Change change) {
        return new DoubtText(readable(then, change), readable(now, change));
    }

    /** Of what was seen when it changed. */
    public static DoubtText of(Agreements.Seen seen, Model now, Agreements.Change change) {
        return new DoubtText(seen.before(), readable(now, change));
    }

    private static String readable(Model model, Agreements.Change change) {
        return model.find(change.end())
                .map(end -> new WatchedProperties(model).readable(end, change.property()))
                .orElse("");
    }
}
