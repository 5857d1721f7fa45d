package pyrite.core.trace;

import pyrite.core.model.Model;

/** The text of a watched property when the link was agreed, and now. */
public record DoubtText(String before, String after) {

    /** @param then the snapshot at which the link was agreed */
    public static DoubtText of(Model then, Model now, Agreements.Change change) {
        return new DoubtText(
                then.find(change.end())
                        .map(end -> new WatchedProperties(then).readable(end, change.property()))
                        .orElse(""),
                now.find(change.end())
                        .map(end -> new WatchedProperties(now).readable(end, change.property()))
                        .orElse(""));
    }
}
