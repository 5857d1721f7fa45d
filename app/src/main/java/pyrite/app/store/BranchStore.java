package pyrite.app.store;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
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
    private static final int MOST_AT_ONCE = 200;

    private final BranchMapper mapper;

    public BranchStore(BranchMapper mapper) {
        this.mapper = mapper;
    }

    public Optional<Branch> find(String project, String branch) {
        return mapper.find(project, branch);
    }

    public List<Branch> all() {
        return mapper.all();
    }

    /** Makes a project with one branch, both empty. */
    @Transactional
    public Branch create(String projectSlug, String projectName, String branchSlug, String branchName) {
        mapper.addProject(projectSlug, projectName);
        mapper.addBranch(mapper.projectId(projectSlug).orElseThrow(), branchSlug, branchName);
        return mapper.find(projectSlug, branchSlug).orElseThrow();
    }

    /** The newest snapshot of a branch. */
    public Model load(Branch branch) {
        return model(mapper.live(branch.id()));
    }

    /** The snapshot that a revision made. */
    public Model load(Branch branch, int number) {
        return model(mapper.at(branch.id(), number));
    }

    private static Model model(List<BranchMapper.Version> rows) {
        return Library.model().with(rows.parallelStream().map(BranchStore::element).toList());
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
        List<BranchMapper.Version> begun = difference.changes().stream().filter(change -> change.after() != null)
                .map(change -> new BranchMapper.Version(change.id().value(), ElementContent.write(change.after()))).toList();
        slices(begun).forEach(versions -> mapper.open(branch.id(), versions, revision.number()));
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
        Map<UUID, Element> before = new HashMap<>();
        mapper.endedBy(branch.id(), number).forEach(row -> before.put(row.elementId(), element(row)));
        List<ElementChange> changes = new ArrayList<>();
        mapper.begunBy(branch.id(), number).forEach(row ->
                changes.add(new ElementChange(before.remove(row.elementId()), element(row))));
        before.values().forEach(gone -> changes.add(new ElementChange(gone, null)));
        return new Difference(changes);
    }

    /** Which of some elements changed after a revision. */
    public List<ElementId> movedSince(Branch branch, int number, Collection<ElementId> elements) {
        return elements.isEmpty() ? List.of() : mapper.movedSince(branch.id(), number,
                elements.stream().map(ElementId::value).toList()).stream().map(ElementId::of).toList();
    }

    /** A revision and the name of who made it. */
    public record Entry(Revision revision, String authorName) {
    }

    /** All revisions, newest first. */
    public List<Entry> revisions(Branch branch) {
        return mapper.revisions(branch.id(), null).reversed().stream().map(BranchStore::entry).toList();
    }

    /** One person's revisions, oldest first. */
    public List<Revision> revisionsBy(Branch branch, Person author) {
        return mapper.revisions(branch.id(), author.signIn()).stream().map(BranchMapper.Row::revision).toList();
    }

    /** The revisions that changed an element, newest first. */
    public List<Entry> revisionsOf(Branch branch, ElementId element) {
        return mapper.revisionsOf(branch.id(), element.value()).stream().map(BranchStore::entry).toList();
    }

    private static Entry entry(BranchMapper.Row row) {
        return new Entry(row.revision(), row.authorName());
    }

    private static Element element(BranchMapper.Version row) {
        return ElementContent.read(row.elementId(), row.content());
    }
}
