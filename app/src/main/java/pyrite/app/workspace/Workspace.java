package pyrite.app.workspace;

import java.time.InstantSource;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.ReentrantLock;
import org.springframework.stereotype.Service;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.core.history.Revert;
import pyrite.core.history.Revision;
import pyrite.core.history.UndoStack;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Outcome;
import pyrite.core.model.Problem;

/**
 * The loaded heads of branches, and the one way in which anything changes them. Commits to a branch go one after the
 * other; a reader takes the head it finds and is never in the way.
 */
@Service
public class Workspace {
    private static final int FEW_REVISIONS = 30;

    private final BranchStore store;
    private final Events events;
    private final InstantSource clock;
    private final Map<Long, Loaded> branches = new ConcurrentHashMap<>();

    Workspace(BranchStore store, Events events, InstantSource clock) {
        this.store = store;
        this.events = events;
        this.clock = clock;
    }

    /** The newest snapshot of a branch and the number of the revision that made it. */
    public record Head(Branch branch, int number, Model model) {

        /** @throws NotFound if the text is no id, or of an element that is not on this branch */
        public Element element(String id) {
            try {
                return model.find(ElementId.parse(id))
                        .orElseThrow(() -> new NotFound("there is no element " + id + " on this branch; it may have been removed"));
            } catch (IllegalArgumentException _) {
                throw new NotFound("'" + id + "' is no element's id");
            }
        }
    }

    private static final class Loaded {
        private final ReentrantLock committing = new ReentrantLock();
        private volatile Head head;

        Loaded(Head head) {
            this.head = head;
        }
    }

    /** What came of a commit. */
    public sealed interface Commit {
        /** It is on disk. */
        record Saved(Revision revision) implements Commit {
        }

        /** It would make the model wrong. */
        record Refused(List<Problem> problems) implements Commit {
        }

        /** Somebody else changed or removed the same elements meanwhile. */
        record Overtaken(List<ElementId> elements) implements Commit {
        }

        /** It changes nothing. */
        record Nothing() implements Commit {
        }
    }

    public Head head(String project, String branch) {
        return store.find(project, branch).map(this::loaded).map(loaded -> loaded.head)
                .orElseThrow(() -> new NotFound("there is no branch " + branch + " of a project " + project));
    }

    private Loaded loaded(Branch branch) {
        return branches.computeIfAbsent(branch.id(), _ -> new Loaded(new Head(branch, branch.head(), store.load(branch))));
    }

    /**
     * The snapshot of an earlier revision: the newest with the later changes taken back where those are few, else read anew.
     *
     * @throws NotFound if the branch has no such revision
     */
    public Model at(Head head, int number) {
        if (number < 0 || number > head.number()) {
            throw new NotFound("there is no revision r" + number + " on this branch");
        }
        if (head.number() - number > FEW_REVISIONS) {
            return store.load(head.branch(), number);
        }
        Model model = head.model();
        for (int later = head.number(); later > number; later--) {
            model = model.replay(store.difference(head.branch(), later).inverse());
        }
        return model;
    }

    /**
     * Commits an edit that was made looking at revision {@code base}. If the branch has moved on, the edit still counts
     * unless it touches what has changed meanwhile.
     */
    public Commit commit(Branch branch, int base, Edit edit, Person author, String summary) {
        return exclusively(branch, head -> {
            List<ElementId> moved = head.number() > base ? store.movedSince(branch, base, edit.touched()) : List.of();
            return moved.isEmpty() ? write(head, edit, author, summary, Revision.Act.EDIT, 0)
                    : new Commit.Overtaken(moved);
        });
    }

    /** Takes back the person's newest edit that is not undone yet. */
    public Commit undo(Branch branch, Person author) {
        return exclusively(branch, head -> turn(head, author, undoStack(branch, author).undo(), Revision.Act.UNDO));
    }

    /** Brings back the edit the person undid last. */
    public Commit redo(Branch branch, Person author) {
        return exclusively(branch, head -> turn(head, author, undoStack(branch, author).redo(), Revision.Act.REDO));
    }

    public UndoStack undoStack(Branch branch, Person author) {
        return UndoStack.of(store.revisionsBy(branch, author), author.signIn());
    }

    private Commit turn(Head head, Person author, OptionalInt number, Revision.Act act) {
        if (number.isEmpty()) {
            return new Commit.Nothing();
        }
        Difference done = store.difference(head.branch(), number.getAsInt());
        Difference wanted = act == Revision.Act.UNDO ? done.inverse() : done;
        String summary = store.revisionsBy(head.branch(), author).stream().filter(r -> r.number() == number.getAsInt())
                .findFirst().map(Revision::summary).orElse("");
        return switch (Revert.on(head.model(), wanted)) {
            case Revert.Possible(Edit edit) ->
                write(head, edit, author, (act == Revision.Act.UNDO ? "undone: " : "redone: ") + summary, act, number.getAsInt());
            case Revert.Overtaken(List<ElementId> elements) -> new Commit.Overtaken(elements);
        };
    }

    private interface Work {
        Commit on(Head head);
    }

    private Commit exclusively(Branch branch, Work work) {
        Loaded loaded = loaded(branch);
        loaded.committing.lock();
        try {
            return work.on(loaded.head);
        } finally {
            loaded.committing.unlock();
        }
    }

    private Commit write(Head head, Edit edit, Person author, String summary, Revision.Act act, int of) {
        return switch (head.model().apply(edit)) {
            case Outcome.Refused(List<Problem> problems) -> new Commit.Refused(problems);
            case Outcome.Applied(Model _, Difference difference) when difference.isEmpty() -> new Commit.Nothing();
            case Outcome.Applied(Model model, Difference difference) -> {
                Revision revision = new Revision(head.number() + 1, author.signIn(), clock.instant(), shortened(summary), act, of);
                store.commit(head.branch(), author, revision, difference);
                branches.get(head.branch().id()).head = new Head(head.branch(), revision.number(), model);
                events.publish(head.branch(), "revision", Map.of("number", revision.number(), "author", author.signIn()));
                yield new Commit.Saved(revision);
            }
        };
    }

    private static String shortened(String summary) {
        return summary.length() <= 1000 ? summary : summary.substring(0, 999) + "…";
    }

    /** The branch everybody begins with, if there is any. */
    public Optional<Branch> first() {
        return store.all().stream().findFirst();
    }
}
