package pyrite.core.verification;

import pyrite.core.execution.EventLog;

/** Is shown now and then what has happened so far while a case runs. */
public interface Watcher {
    Watcher NOBODY = (_, _) -> {};

    /**
     * @param log a copy of its own
     * @param now s
     */
    void happened(EventLog log, double now);
}
