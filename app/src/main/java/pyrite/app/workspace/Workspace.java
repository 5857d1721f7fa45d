package pyrite.app.workspace;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.TreeSet;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.locks.ReentrantLock;
import java.util.function.Supplier;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Service;
import pyrite.app.store.Branch;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.store.StoreGuard;
import pyrite.core.history.Collision;
import pyrite.core.history.Placing;
import pyrite.core.history.Revert;
import pyrite.core.history.Revision;
import pyrite.core.history.UndoStack;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Problem;
import pyrite.core.model.Redefinitions;
import pyrite.core.reuse.LibraryGuard;
import pyrite.core.trace.ProjectCheck;
import pyrite.core.trace.RuleEditing;
import pyrite.core.view.Withdrawal;

/**
 * The loaded heads of branches, and the only way to change them. Commits to a branch are sequential; a reader uses the
 * head it finds and waits only for a branch to be loaded. Branches that nobody looks at are let go of.
 */
@Service
public class Workspace {
    /** So far back somebody can undo. */
    private static final int UNDOABLE = 500;

    private static final int MOST_PAST = 6;
    /** What an empty branch takes, as so many elements. */
    private static final int SMALLEST = 1000;

    private static final Duration UNUSED = Duration.ofHours(4);

    private final BranchStore store;
    private final StoreGuard guard;
    private final Checkpoints checkpoints;
    private final Events events;
    private final InstantSource clock;
    private final Cache<Long, Loaded> branches;
    private final Map<Long, ReentrantLock> committing = new ConcurrentHashMap<>();
    private final Cache<Moment, Model> past =
            Caffeine.newBuilder().maximumSize(MOST_PAST).build();

    /** @param mostElements branches with so many elements in all stay in memory while somebody looks at them */
    Workspace(
            BranchStore store,
            Checkpoints checkpoints,
            Events events,
            InstantSource clock,
            StoreGuard guard,
            @Value("${pyrite.branches.most-elements}") long mostElements) {
        this.branches = Caffeine.newBuilder()
                .maximumWeight(mostElements)
                .weigher((Long _, Loaded loaded) ->
                        SMALLEST + loaded.head.model().size())
                .expireAfterAccess(UNUSED)
                .build();
        this.guard = guard;
        this.store = store;
        this.checkpoints = checkpoints;
        this.events = events;
        this.clock = clock;
    }

    private record Moment(long branch, int number) {}

    /** A snapshot of a branch with its revision number: the newest, or an earlier one that is read-only. */
    public record Head(Branch branch, int number, Model model, boolean past) {

        /**
         * The address of a page of this branch, at the revision that is being read: {@code element/…} and the like
         * follows.
         */
        public String address(String rest) {
            return branch.address() + "/" + rest + (past ? (rest.contains("?") ? "&" : "?") + "at=" + number : "");
        }

        /** @throws NotFound if the text is no id, or of an element that is not on this branch */
        public Element element(String id) {
            try {
                return model.find(ElementId.parse(id))
                        .orElseThrow(() -> new NotFound(
                                "there is no element " + id + " on this branch; it may have been removed"));
            } catch (IllegalArgumentException _) {
                throw new NotFound("'" + id + "' is no element's id");
            }
        }

        /**
         * The elements that the key of a box leads through.
         *
         * @throws NotFound if one of its ids is of no element of this branch
         */
        public List<ElementId> way(String key) {
            return Arrays.stream(key.split("\\.")).map(id -> element(id).id()).toList();
        }
    }

    /**
     * A branch in memory.
     *
     * @param followers what is kept of it beside its head, one of a type, and let go of with it
     */
    private record Loaded(Head head, Map<Class<?>, Object> followers) {}

    /** The result of a commit. */
    public sealed interface Commit {
        /** It is stored. */
        record Saved(Revision revision) implements Commit {}

        /** It would make the model invalid. */
        record Refused(List<Problem> problems) implements Commit {}

        /**
         * Somebody else did something to the same elements meanwhile, or below what would be removed.
         *
         * @param act what was to be done
         * @param model the head, in which these elements are as they were left
         */
        record Overtaken(List<ElementId> elements, Revision.Act act, Model model) implements Commit {}

        /** It changes nothing. */
        record Nothing() implements Commit {}
    }

    public Head head(String project, String branch) {
        return store.find(project, branch)
                .map(each -> loaded(each).head)
                .orElseThrow(() -> new NotFound("there is no branch " + branch + " of a project " + project));
    }

    /** @throws NotFound if there is no such project, or no such branch of it */
    public Head head(UUID project, UUID branch) {
        List<Branch> branchesOfProject = store.all().stream()
                .filter(each -> each.projectUuid().equals(project))
                .toList();
        if (branchesOfProject.isEmpty()) {
            throw new NotFound("there is no project " + project);
        }
        return branchesOfProject.stream()
                .filter(each -> each.uuid().equals(branch))
                .findFirst()
                .map(each -> loaded(each).head)
                .orElseThrow(() -> new NotFound("there is no branch " + branch + " of this project"));
    }

    public Head head(long branch) {
        return loaded(store.get(branch)).head;
    }

    /** Loaded under the lock of its commits, so that no head comes back that a commit has replaced meanwhile. */
    private Loaded loaded(Branch branch) {
        Loaded known = branches.getIfPresent(branch.id());
        return known != null
                ? known
                : locked(branch, () -> {
                    Loaded loaded = branches.getIfPresent(branch.id());
                    return loaded != null ? loaded : load(store.get(branch.id()));
                });
    }

    private Loaded load(Branch branch) {
        Head head = new Head(branch, branch.head(), store.load(branch), false);
        checkpoints.loaded(head);
        Loaded loaded = new Loaded(head, new ConcurrentHashMap<>());
        branches.put(branch.id(), loaded);
        return loaded;
    }

    private <T> T locked(Branch branch, Supplier<T> work) {
        ReentrantLock lock = committing.computeIfAbsent(branch.id(), _ -> new ReentrantLock());
        lock.lock();
        try {
            return work.get();
        } finally {
            lock.unlock();
        }
    }

    /**
     * What follows a branch from revision to revision and is costly to begin anew. It stays as long as the branch is in
     * memory.
     *
     * @param begin makes it where there is none; must not ask for a follower itself
     */
    public <T> T follower(Branch branch, Class<T> type, Supplier<T> begin) {
        return type.cast(loaded(branch).followers.computeIfAbsent(type, _ -> begin.get()));
    }

    /**
     * The snapshot of a revision: the newest, or the next one that is remembered, with the later changes undone. The
     * last few are remembered.
     *
     * @throws NotFound if the branch has no such revision
     */
    public Model at(Head head, int number) {
        if (number < 0 || number > head.number()) {
            throw new NotFound("there is no revision r" + number + " on this branch");
        }
        return number == head.number()
                ? head.model()
                : past.get(new Moment(head.branch().id(), number), _ -> before(head, number));
    }

    private Model before(Head head, int number) {
        int near = head.number();
        Model model = head.model();
        for (Map.Entry<Moment, Model> known : past.asMap().entrySet()) {
            Moment moment = known.getKey();
            if (moment.branch() == head.branch().id() && moment.number() > number && moment.number() < near) {
                near = moment.number();
                model = known.getValue();
            }
        }
        return model.replay(store.difference(head.branch(), number, near).inverse());
    }

    /** The snapshots of several revisions, each made of the one after it. */
    public Map<Integer, Model> at(Head head, Collection<Integer> numbers) {
        Map<Integer, Model> snapshots = new HashMap<>();
        int later = head.number();
        Model model = head.model();
        for (int number : new TreeSet<>(numbers).descendingSet()) {
            model = model.replay(store.difference(head.branch(), number, later).inverse());
            snapshots.put(number, model);
            later = number;
        }
        return snapshots;
    }

    /** The branch as it was at a revision, to be read. */
    public Head asOf(Head head, int number) {
        return number == head.number() ? head : new Head(head.branch(), number, at(head, number), true);
    }

    public Optional<BranchStore.Entry> revision(Head head) {
        return store.revision(head.branch(), head.number());
    }

    /**
     * Commits an edit that was made looking at revision {@code base}. If the branch has moved on, the edit still counts
     * unless it touches what has changed meanwhile; see {@link Collision}.
     */
    public Commit commit(Branch branch, int base, Edit edit, Person author, String summary) {
        return exclusively(branch, head -> {
            List<ElementId> inTheWay = head.number() > base
                    ? Collision.of(head.model(), store.changedSince(branch, base), edit)
                    : List.of();
            return inTheWay.isEmpty()
                    ? write(head, edit, author, summary, Revision.Act.EDIT, 0)
                    : new Commit.Overtaken(inTheWay, Revision.Act.EDIT, head.model());
        });
    }

    /** Undoes the person's newest edit that is not undone yet. */
    public Commit undo(Branch branch, Person author) {
        return exclusively(
                branch, head -> turn(head, author, undoStack(branch, author).undo(), Revision.Act.UNDO));
    }

    /** Brings back the edit the person undid last. */
    public Commit redo(Branch branch, Person author) {
        return exclusively(
                branch, head -> turn(head, author, undoStack(branch, author).redo(), Revision.Act.REDO));
    }

    public UndoStack undoStack(Branch branch, Person author) {
        return UndoStack.of(store.revisionsBy(branch, author, UNDOABLE), author.signIn());
    }

    private Commit turn(Head head, Person author, OptionalInt number, Revision.Act act) {
        if (number.isEmpty()) {
            return new Commit.Nothing();
        }
        Difference done = store.difference(head.branch(), number.getAsInt());
        Difference requested = act == Revision.Act.UNDO ? done.inverse() : done;
        String summary = store.revisionsBy(head.branch(), author, UNDOABLE).stream()
                .filter(r -> r.number() == number.getAsInt())
                .findFirst()
                .map(Revision::summary)
                .orElse("");
        List<ElementId> since = store.changedSince(head.branch(), number.getAsInt());
        return switch (Revert.on(head.model(), requested, since)) {
            case Revert.Possible(Edit edit) ->
                write(
                        head,
                        edit,
                        author,
                        (act == Revision.Act.UNDO ? "undone: " : "redone: ") + summary,
                        act,
                        number.getAsInt());
            case Revert.Overtaken(List<ElementId> elements) -> new Commit.Overtaken(elements, act, head.model());
        };
    }

    private interface Work {
        Commit on(Head head);
    }

    private Commit exclusively(Branch branch, Work work) {
        guard.requireRoom();
        return locked(branch, () -> work.on(loaded(branch).head));
    }

    private Commit write(Head head, Edit edit, Person author, String summary, Revision.Act act, int of) {
        Edit nearest = Redefinitions.nearest(head.model(), Withdrawal.completed(head.model(), edit));
        return switch (head.model().apply(Placing.apart(head.model(), nearest))) {
            case EditResult.Refused(List<Problem> problems) -> new Commit.Refused(problems);
            case EditResult.Applied(Model _, Difference difference) when difference.isEmpty() -> new Commit.Nothing();
            case EditResult.Applied(Model model, Difference difference) -> {
                // Taking something back brings back what was right once, whatever way the status may go now.
                List<Problem> problems =
                        act == Revision.Act.EDIT ? problems(head.model(), model, difference, author) : List.of();
                yield problems.isEmpty()
                        ? save(head, model, difference, author, summary, act, of)
                        : new Commit.Refused(problems);
            }
        };
    }

    private static List<Problem> problems(Model before, Model after, Difference difference, Person author) {
        List<Problem> problems = new ArrayList<>(LibraryGuard.check(before, after, difference));
        problems.addAll(ProjectCheck.check(before, after, difference));
        if (!author.isAdministrator()) {
            RuleEditing.touched(before, after, difference)
                    .forEach(rule -> problems.add(
                            Problem.of(rule, "this changes a link rule of the project, which takes an administrator")));
        }
        return problems;
    }

    private Commit save(
            Head head, Model model, Difference difference, Person author, String summary, Revision.Act act, int of) {
        Revision revision =
                new Revision(head.number() + 1, author.signIn(), clock.instant(), shortened(summary), act, of);
        store.commit(head.branch(), author, revision, difference);
        Head next = new Head(head.branch(), revision.number(), model, false);
        branches.put(head.branch().id(), new Loaded(next, loaded(head.branch()).followers));
        checkpoints.changed(next, difference.changes().size());
        events.publish(head.branch().id(), "revision", Map.of("number", revision.number(), "author", author.signIn()));
        return new Commit.Saved(revision);
    }

    private static String shortened(String summary) {
        return summary.length() <= 1000 ? summary : summary.substring(0, 999) + "…";
    }

    /** Where somebody goes on: the branch they looked at last, or the first there is. */
    public Optional<Branch> whereLeft(Person person) {
        return store.lastVisited(person).or(() -> store.all().stream().findFirst());
    }
}
