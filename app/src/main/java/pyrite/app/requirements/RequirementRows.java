package pyrite.app.requirements;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.springframework.stereotype.Component;
import pyrite.app.evidence.CoverageCache;
import pyrite.app.evidence.VerdictDependentCache;
import pyrite.app.evidence.VerdictView;
import pyrite.app.evidence.Verdicts;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.trace.Coverage;
import pyrite.core.trace.Link;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.TraceGraph;

/** All requirements with their satisfying parts, verifying cases and verdicts, ordered by id. */
@Component
public class RequirementRows {
    private final VerdictDependentCache<List<Row>> kept;

    RequirementRows(Verdicts verdicts, CoverageCache coverages) {
        this.kept =
                new VerdictDependentCache<>(verdicts, (head, judged) -> rows(head.model(), judged, coverages.of(head)));
    }

    /** One requirement; its worst verdict comes first. */
    public record Row(
            Element element,
            String id,
            List<Element> needs,
            Coverage.Standing standing,
            List<Element> satisfiedBy,
            List<Element> verifiedBy,
            List<VerdictView> verdicts) {
        private boolean marked(String... marks) {
            return !verdicts.isEmpty()
                    && List.of(marks).contains(verdicts.getFirst().mark());
        }

        boolean isStale() {
            return verdicts.stream().anyMatch(VerdictView::stale);
        }
    }

    /** A selection of requirements, shown as a number on the first page and as a list of its own. */
    public enum Show {
        ALL("in all"),
        PASSING("pass"),
        FAILING("fail"),
        STALE("stale"),
        OPEN("without a verdict"),
        UNSATISFIED("not satisfied"),
        UNVERIFIED("not verified"),
        UNASKED("asked for by nobody");

        private final String words;

        Show(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }

        /** As it stands in an address. */
        public String key() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }

        public boolean takes(Row row) {
            return switch (this) {
                case ALL -> true;
                case PASSING -> row.standing().passing();
                case FAILING -> row.marked("fail", "error");
                case STALE -> row.isStale();
                case OPEN -> row.verdicts().isEmpty() || row.marked("inconclusive");
                case UNSATISFIED -> !row.standing().satisfied();
                case UNVERIFIED -> !row.standing().verified();
                case UNASKED -> row.standing().unasked();
            };
        }

        public long count(List<Row> rows) {
            return rows.stream().filter(this::takes).count();
        }
    }

    public List<Row> of(Workspace.Head head) {
        return kept.of(head);
    }

    private static List<Row> rows(Model model, Map<ElementId, List<VerdictView>> judged, Coverage coverage) {
        TraceGraph links = TraceGraph.of(model);
        return RequirementIds.sorted(
                model.ownElements(ElementKind.REQUIREMENT)
                        .map(each -> row(
                                model,
                                links,
                                each,
                                Objects.requireNonNull(coverage.standings().get(each.id())),
                                judged.getOrDefault(each.id(), List.of()))),
                Row::id);
    }

    private static Row row(
            Model model, TraceGraph links, Element requirement, Coverage.Standing standing, List<VerdictView> judged) {
        List<Link> all = links.of(requirement.id());
        return new Row(
                requirement,
                RequirementIds.of(model, requirement),
                ends(model, all, LinkKind.FRAME, requirement),
                standing,
                ends(model, all, LinkKind.SATISFY, requirement),
                ends(model, all, LinkKind.VERIFY, requirement),
                judged);
    }

    private static List<Element> ends(Model model, List<Link> links, LinkKind kind, Element from) {
        return links.stream()
                .filter(link -> link.kind().equals(kind))
                .map(link -> model.get(link.other(from.id())))
                .distinct()
                .toList();
    }
}
