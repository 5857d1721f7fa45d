package pyrite.core.execution;

import java.util.List;

/** What happened in a run: its events, and what waited at its end. */
public record Happened(EventLog log, Standstill standstill) {
    public static final Happened NOTHING = new Happened(new EventLog(List.of()), Standstill.NONE);
}
