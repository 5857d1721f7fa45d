package pyrite.app.store;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.concurrent.ForkJoinTask;
import org.springframework.jdbc.core.JdbcOperations;
import org.springframework.jdbc.core.RowCallbackHandler;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;
import pyrite.core.history.Revision;
import pyrite.core.model.Difference;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;

/** Keeps branches: their revisions, and every state each element was in. */
@Repository
public class BranchStore {
    private static final int MOST_AT_ONCE = 1000;

    private static final String BEGIN = "insert into element_version (branch_id, element_id, from_number, content) values (?, ?, ?, ?)";
    private static final String LIVE = "select element_id, content from element_version where branch_id = ? and to_number is null";

    private final BranchMapper mapper;
    private final JdbcOperations jdbc;
    private final RequirementNumbers numbers;

    public BranchStore(BranchMapper mapper, JdbcOperations jdbc, RequirementNumbers numbers) {
        this.mapper = mapper;
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

    /** The newest snapshot of a branch. Its rows are read without the mapper, whose reflection takes longer than the database. */
    public Model load(Branch branch) {
        Incoming rows = new Incoming();
        jdbc.query(LIVE, (RowCallbackHandler) row -> rows.add(new BranchMapper.Version(row.getObject(1, UUID.class), row.getString(2))), branch.id());
        return Library.model().with(rows.elements());
    }

    /** Rows as they come: what is there already becomes elements on another processor while the database gives more. */
    private static final class Incoming {
        private final ElementContent.Reader reader = new ElementContent.Reader();
        private final List<ForkJoinTask<List<Element>>> begun = new ArrayList<>();
        private List<BranchMapper.Version> rows = new ArrayList<>(MOST_AT_ONCE);

        void add(BranchMapper.Version row) {
            rows.add(row);
            if (rows.size() == MOST_AT_ONCE) {
                begin();
            }
        }

        private void begin() {
            List<BranchMapper.Version> slice = rows;
            begun.add(ForkJoinTask.adapt(() -> slice.stream().map(row -> element(reader, row)).toList()).fork());
            rows = new ArrayList<>(MOST_AT_ONCE);
        }

        List<Element> elements() {
            begin();
            // From the end, so that this processor and the other meet.
            begun.reversed().stream().filter(ForkJoinTask::tryUnfork).forEach(ForkJoinTask::invoke);
            List<Element> all = new ArrayList<>(begun.size() * MOST_AT_ONCE);
            begun.forEach(slice -> all.addAll(slice.join()));
            return all;
        }
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
        mapper.addRevision(branch.id(), revision.number(), author.id(), revision.at(), revision.summary(), revision.act(),
                revision.of());
        List<UUID> ended = difference.changes().stream().filter(change -> change.before() != null).map(change -> change.id().value()).toList();
        slices(ended).forEach(ids -> mapper.close(branch.id(), ids, revision.number()));
        List<Object[]> begun = difference.changes().stream().filter(change -> change.after() != null)
                .map(change -> new Object[] {branch.id(), change.id().value(), revision.number(), ElementContent.write(change.after())}).toList();
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
        mapper.begun(branch.id(), from, to).forEach(row ->
                changes.add(new ElementChange(before.remove(row.elementId()), element(reader, row))));
        before.values().forEach(gone -> changes.add(new ElementChange(gone, null)));
        return new Difference(changes);
    }

    /** Which of some elements changed after a revision. */
    public List<ElementId> movedSince(Branch branch, int number, Collection<ElementId> elements) {
        return elements.isEmpty() ? List.of() : mapper.movedSince(branch.id(), number,
                elements.stream().map(ElementId::value).toList()).stream().map(ElementId::of).toList();
    }

    /** A revision, the name of who made it, and the name other programs know it by. */
    public record Entry(Revision revision, String authorName, UUID uuid) {
    }

    /** The revisions up to one, newest first. */
    public List<Entry> revisions(Branch branch, int upTo, int most) {
        return mapper.revisions(branch.id(), null, upTo, most).stream().map(BranchStore::entry).toList();
    }

    public Optional<Entry> revision(Branch branch, int number) {
        return revisions(branch, number, 1).stream().filter(entry -> entry.revision().number() == number).findFirst();
    }

    /** Where a revision is that other programs know by its UUID. */
    public record Place(long branch, int number) {
    }

    public Optional<Place> placeOf(UUID revision) {
        return mapper.placeOf(revision);
    }

    /** One person's newest revisions, the oldest of them first. */
    public List<Revision> revisionsBy(Branch branch, Person author, int most) {
        return mapper.revisions(branch.id(), author.signIn(), Integer.MAX_VALUE, most).reversed().stream().map(BranchMapper.Row::revision).toList();
    }

    /** The revisions that changed an element, newest first. */
    public List<Entry> revisionsOf(Branch branch, ElementId element) {
        return mapper.revisionsOf(branch.id(), element.value()).stream().map(BranchStore::entry).toList();
    }

    private static Entry entry(BranchMapper.Row row) {
        return new Entry(row.revision(), row.authorName(), row.uuid());
    }

    private static Element element(ElementContent.Reader reader, BranchMapper.Version row) {
        return reader.read(row.elementId(), row.content());
    }
}
