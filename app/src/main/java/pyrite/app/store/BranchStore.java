package pyrite.app.store;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import pyrite.core.history.Revision;
import pyrite.core.model.Difference;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;

/** Stores branches: their revisions, and every state of each element. */
@Repository
public class BranchStore {
    private static final Logger LOG = LoggerFactory.getLogger(BranchStore.class);
    private static final int MOST_AT_ONCE = 1000;

    private static final String BEGIN =
            "insert into element_version (branch_id, element_id, from_number, content) values (?, ?, ?, ?)";
    private static final String LIVE =
            "select element_id, content from element_version where branch_id = ? and to_number is null";

    private final BranchMapper mapper;
    private final CheckpointMapper checkpoints;
    private final JdbcOperations jdbc;
    private final RequirementNumbers numbers;

    public BranchStore(
            BranchMapper mapper, CheckpointMapper checkpoints, JdbcOperations jdbc, RequirementNumbers numbers) {
        this.mapper = mapper;
        this.checkpoints = checkpoints;
        this.jdbc = jdbc;
        this.numbers = numbers;
    }

    public Optional<Branch> find(String project, String branch) {
        return mapper.find(project, branch);
    }

    public Branch get(long id) {
        return mapper.get(id);
    }

    public List<Branch> all() {
        return mapper.all();
    }

    public Optional<Branch> lastVisited(Person person) {
        return mapper.lastVisited(person.id());
    }

    /** Makes a project with one branch, both empty. */
    @Transactional
    public Branch create(String projectSlug, String projectName, String branchSlug, String branchName) {
        mapper.addProject(projectSlug, projectName);
        mapper.addBranch(mapper.projectId(projectSlug).orElseThrow(), branchSlug, branchName);
        return mapper.find(projectSlug, branchSlug).orElseThrow();
    }

    /** The newest snapshot of a branch: its checkpoint with what changed since, else all its rows. */
    public Model load(Branch branch) {
        return checkpoints
                .of(branch.id())
                .flatMap(checkpoint -> elements(branch, checkpoint)
                        .map(elements -> Library.model()
                                .with(elements)
                                .replay(difference(branch, checkpoint.number(), Integer.MAX_VALUE))))
                .orElseGet(() -> Library.model().with(rows(branch)));
    }

    /** What a checkpoint holds; nothing if it cannot be read, for the rows say all it says. */
    private static Optional<List<Element>> elements(Branch branch, CheckpointMapper.Checkpoint checkpoint) {
        try {
            return Optional.of(CheckpointReader.read(checkpoint.content()));
        } catch (IllegalStateException fault) {
            LOG.warn(
                    "The checkpoint of {} at r{} is passed over, {}",
                    branch.address(),
                    checkpoint.number(),
                    fault.getMessage());
            return Optional.empty();
        }
    }

    /** Read without the mapper, whose reflection takes longer than the database. */
    private List<Element> rows(Branch branch) {
        ElementContent.Reader reader = new ElementContent.Reader();
        return jdbc.query(LIVE, (row, _) -> reader.read(row.getObject(1, UUID.class), row.getString(2)), branch.id());
    }

    /**
     * Keeps the snapshot that a revision made in one piece, from which the branch is loaded quicker than from its rows.
     */
    public void checkpoint(Branch branch, int number, Model model) {
        checkpoints.put(branch.id(), number, CheckpointWriter.write(model.ownElements()));
    }

    /** How many states of elements loading reads that are not in the branch's checkpoint. */
    public int changesSinceCheckpoint(Branch branch) {
        return mapper.changesSince(
                branch.id(), checkpoints.numberOf(branch.id()).orElse(0));
    }

    /**
     * Writes a revision; when this returns it is on disk.
     *
     * @throws IllegalStateException if the branch has moved on: {@code revision.number()} is not its head plus one
     */
    @Transactional
    public void commit(Branch branch, Person author, Revision revision, Difference difference) {
        if (mapper.moveHead(branch.id(), revision.number()) != 1) {
            throw new IllegalStateException("the branch has moved on from r" + (revision.number() - 1));
        }
        mapper.addRevision(
                branch.id(),
                revision.number(),
                author.id(),
                revision.at(),
                revision.summary(),
                revision.act(),
                revision.of());
        List<UUID> ended = difference.changes().stream()
                .filter(change -> change.before() != null)
                .map(change -> change.id().value())
                .toList();
        slices(ended).forEach(ids -> mapper.close(branch.id(), ids, revision.number()));
        List<Object[]> begun = difference.changes().stream()
                .filter(change -> change.after() != null)
                .map(change -> new Object[] {
                    branch.id(), change.id().value(), revision.number(), ElementContent.write(change.after())
                })
                .toList();
        slices(begun).forEach(rows -> jdbc.batchUpdate(BEGIN, rows));
        numbers.seen(branch, difference);
    }

    /** So many rows go into one statement; the database plans it once and then knows it. */
    private static <T> List<List<T>> slices(List<T> all) {
        List<List<T>> slices = new ArrayList<>();
        for (int from = 0; from < all.size(); from += MOST_AT_ONCE) {
            slices.add(all.subList(from, Math.min(all.size(), from + MOST_AT_ONCE)));
        }
        return slices;
    }

    /** What a revision changed, before and after. */
    public Difference difference(Branch branch, int number) {
        return difference(branch, number - 1, number);
    }

    /** What changed between two revisions, the earlier first; its cost grows with the change and not with the model. */
    public Difference difference(Branch branch, int from, int to) {
        ElementContent.Reader reader = new ElementContent.Reader();
        Map<UUID, Element> before = new HashMap<>();
        mapper.ended(branch.id(), from, to).forEach(row -> before.put(row.elementId(), element(reader, row)));
        List<ElementChange> changes = new ArrayList<>();
        mapper.begun(branch.id(), from, to)
                .forEach(row -> changes.add(new ElementChange(before.remove(row.elementId()), element(reader, row))));
        before.values().forEach(removed -> changes.add(new ElementChange(removed, null)));
        return new Difference(changes);
    }

    /** Which elements revisions after one changed, added or removed. */
    public List<ElementId> changedSince(Branch branch, int number) {
        return mapper.changedSince(branch.id(), number).stream()
                .map(ElementId::of)
                .toList();
    }

    /** A revision, its author's name, and its UUID. */
    public record Entry(Revision revision, String authorName, UUID uuid) {}

    /** The revisions up to one, newest first. */
    public List<Entry> revisions(Branch branch, int upTo, int most) {
        return mapper.revisions(branch.id(), null, upTo, most).stream()
                .map(BranchStore::entry)
                .toList();
    }

    public Optional<Entry> revision(Branch branch, int number) {
        return revisions(branch, number, 1).stream()
                .filter(entry -> entry.revision().number() == number)
                .findFirst();
    }

    /** The branch and number of a revision with a given UUID. */
    public record Place(long branch, int number) {}

    public Optional<Place> placeOf(UUID revision) {
        return mapper.placeOf(revision);
    }

    /** One person's newest revisions, the oldest of them first. */
    public List<Revision> revisionsBy(Branch branch, Person author, int most) {
        return mapper.revisions(branch.id(), author.signIn(), Integer.MAX_VALUE, most).reversed().stream()
                .map(BranchMapper.Row::revision)
                .toList();
    }

    /** The revisions that changed an element, newest first. */
    public List<Entry> revisionsOf(Branch branch, ElementId element) {
        return revisionsOf(branch, List.of(element));
    }

    /** The revisions that changed one of several elements, newest first. */
    public List<Entry> revisionsOf(Branch branch, Collection<ElementId> elements) {
        return mapper
                .revisionsOf(
                        branch.id(), elements.stream().map(ElementId::value).toList())
                .stream()
                .map(BranchStore::entry)
                .toList();
    }

    /** The revisions with some numbers. */
    public Map<Integer, Entry> revisions(Branch branch, Collection<Integer> numbers) {
        Map<Integer, Entry> entries = new HashMap<>();
        slices(numbers.stream().distinct().toList())
                .forEach(some -> mapper.revisionsNumbered(branch.id(), some)
                        .forEach(row -> entries.put(row.number(), entry(row))));
        return entries;
    }

    /** The revision that changed each of some elements last; those that never were on the branch are left out. */
    public Map<ElementId, Entry> lastChanges(Branch branch, Collection<ElementId> elements) {
        return lastChanges(branch, elements, -1, Integer.MAX_VALUE);
    }

    /**
     * The same among the revisions after one and up to another.
     *
     * @param after a number, as {@code upTo}
     */
    public Map<ElementId, Entry> lastChanges(Branch branch, Collection<ElementId> elements, int after, int upTo) {
        Map<ElementId, Integer> numbers = new HashMap<>();
        slices(elements.stream().map(ElementId::value).distinct().toList())
                .forEach(ids -> mapper.lastChanges(branch.id(), ids, after, upTo)
                        .forEach(change -> numbers.put(ElementId.of(change.elementId()), change.number())));
        Map<Integer, Entry> entries = revisions(branch, numbers.values());
        Map<ElementId, Entry> found = new HashMap<>();
        numbers.forEach((id, number) -> found.put(id, entries.get(number)));
        return found;
    }

    private static Entry entry(BranchMapper.Row row) {
        return new Entry(row.revision(), row.authorName(), row.uuid());
    }

    private static Element element(ElementContent.Reader reader, BranchMapper.Version row) {
        return reader.read(row.elementId(), row.content());
    }
}
