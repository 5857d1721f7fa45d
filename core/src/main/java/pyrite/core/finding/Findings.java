package pyrite.core.finding;

import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Difference;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.IncrementalIndex;
import pyrite.core.model.Model;
import pyrite.core.model.SnapshotMap;

/**
 * All findings of a snapshot. Found in one pass, then kept up with edits by looking again at what these reach. Those of
 * {@link Rule#LIMIT} are no part of it: they are verdicts. Nor are those of {@link Rule#BROKEN_PATH}: they rest on all
 * that is exchanged.
 */
public final class Findings {
    /** Beyond so many elements or edits everything is looked at anew. */
    private static final int MOST_REACHED = 5_000;

    private static final int MOST_EDITS = 200;

    private final SnapshotMap<List<Finding>> byElement;

    private Findings(SnapshotMap<List<Finding>> byElement) {
        this.byElement = byElement;
    }

    public static Findings in(Model model) {
        return model.derived(Kept.class, _ -> new Kept(null, List.of())).in(model);
    }

    /**
     * The findings of an earlier snapshot and the edits since. They are brought up to date when somebody asks, because
     * a snapshot that was not checked yet must not be looked at.
     */
    private static final class Kept implements IncrementalIndex {
        private final @Nullable Findings before;
        private final List<Difference> edits;
        private @Nullable Findings now;

        Kept(@Nullable Findings before, List<Difference> edits) {
            this.before = before;
            this.edits = edits;
        }

        @Override
        public synchronized @Nullable Kept after(Model next, Difference difference) {
            if (now != null) {
                return new Kept(now, List.of(difference));
            }
            return before == null || edits.size() >= MOST_EDITS
                    ? null
                    : new Kept(
                            before,
                            Stream.concat(edits.stream(), Stream.of(difference)).toList());
        }

        synchronized Findings in(Model model) {
            if (now == null) {
                now = before == null ? everything(model) : before.after(model, edits);
            }
            return now;
        }
    }

    /** Looks at all elements, whatever was known before. */
    public static Findings everything(Model model) {
        Checks checks = new Checks(model);
        Map<ElementId, List<Finding>> found = new HashMap<>();
        model.ownElements().forEach(element -> {
            List<Finding> findings = checks.of(element);
            if (!findings.isEmpty()) {
                found.put(element.id(), findings);
            }
        });
        return new Findings(SnapshotMap.<List<Finding>>empty().with(found.size(), found::forEach));
    }

    private Findings after(Model next, List<Difference> edits) {
        Set<ElementId> reached = Reach.of(next, edits, MOST_REACHED);
        if (reached.size() > MOST_REACHED) {
            return everything(next);
        }
        Checks checks = new Checks(next);
        Map<ElementId, @Nullable List<Finding>> changed = new HashMap<>();
        for (ElementId id : reached) {
            List<Finding> now = next.find(id)
                    .filter(_ -> !next.isLibrary(id))
                    .map(checks::of)
                    .orElse(List.of());
            if (!now.equals(of(id))) {
                changed.put(id, now.isEmpty() ? null : now);
            }
        }
        return new Findings(byElement.with(changed.size(), changed::forEach));
    }

    /** Of one element. */
    public List<Finding> of(ElementId element) {
        List<Finding> found = byElement.get(element);
        return found == null ? List.of() : found;
    }

    /** By rule, and in the order of the qualified names. */
    public List<Finding> all(Model model) {
        return byElement.values().stream()
                .flatMap(List::stream)
                .sorted(Comparator.comparing(Finding::rule)
                        .thenComparing(finding -> place(model, finding.element()))
                        .thenComparing(Finding::about))
                .toList();
    }

    private static String place(Model model, ElementId id) {
        return model.names().qualifiedName(model.get(id));
    }

    /** The elements with findings. */
    public Set<ElementId> elements() {
        Set<ElementId> elements = new LinkedHashSet<>();
        byElement.values().forEach(findings -> elements.add(findings.getFirst().element()));
        return elements;
    }

    /** Whether a finding still holds in a snapshot, and which it is. */
    public static Optional<Finding> find(Model model, Element element, String key) {
        return in(model).of(element.id()).stream()
                .filter(finding -> finding.key().equals(key))
                .findFirst();
    }
}
