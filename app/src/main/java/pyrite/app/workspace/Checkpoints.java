package pyrite.app.workspace;

import jakarta.annotation.PreDestroy;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.RejectedExecutionException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;
import pyrite.app.store.BranchStore;

/**
 * Writes a new checkpoint of a branch in the background, when loading would have to read many changes since the last
 * one.
 */
@Service
class Checkpoints {
    private static final Logger LOG = LoggerFactory.getLogger(Checkpoints.class);

    /** So many states of elements are read from their rows in some 15 ms. */
    private static final int MANY = 5000;

    private final BranchStore store;
    private final Map<Long, Integer> changesSince = new ConcurrentHashMap<>();
    private final ExecutorService worker = Executors.newSingleThreadExecutor(
            Thread.ofPlatform().name("checkpoints").factory());

    Checkpoints(BranchStore store) {
        this.store = store;
    }

    void loaded(Workspace.Head head) {
        beside(() -> changed(head, store.changesSinceCheckpoint(head.branch())));
    }

    /** @param changes so many states of elements are new in this snapshot */
    void changed(Workspace.Head head, int changes) {
        if (changesSince.merge(head.branch().id(), changes, Integer::sum) >= MANY) {
            changesSince.put(head.branch().id(), 0);
            beside(() -> make(head));
        }
    }

    private void beside(Runnable work) {
        try {
            worker.execute(work);
        } catch (RejectedExecutionException _) {
            // The program stops. Whoever commits now has committed; the checkpoint is made after the next start.
        }
    }

    private void make(Workspace.Head head) {
        try {
            store.checkpoint(head.branch(), head.number(), head.model());
        } catch (RuntimeException fault) {
            // Nothing is lost by it: the branch is loaded from the rows, and the next many changes try again.
            LOG.warn("No checkpoint of {} could be made at r{}", head.branch().address(), head.number(), fault);
        }
    }

    /** Ends what is under way first. */
    @PreDestroy
    void stop() {
        worker.close();
    }
}
