package pyrite.app.links;

import java.util.Comparator;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import pyrite.app.recheck.Rechecks;
import pyrite.app.store.BranchStore;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.RequirementIds;
import pyrite.core.trace.Agreements;
import pyrite.core.trace.Link;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.Links;

/** The links of one element as its page shows them: who made each and when, its note, whether it needs recheck. */
@Component
public class ElementLinks {
    private static final int MOST_WITH_AUTHOR = 60;

    private final BranchStore store;
    private final Rechecks rechecks;

    ElementLinks(BranchStore store, Rechecks rechecks) {
        this.store = store;
        this.rechecks = rechecks;
    }

    /**
     * A link seen from an element.
     *
     * @param key identifies the link on pages: its carrier and its ends
     * @param made the revision that made it; null if it is not looked up
     */
    public record LinkView(
            Link link,
            String key,
            String words,
            boolean up,
            Element other,
            String note,
            boolean doubt,
            BranchStore.@Nullable Entry made) {
        public boolean isRunnable() {
            return link.kind().equals(LinkKind.VERIFY) && !up;
        }
    }

    public List<LinkView> of(Workspace.Head head, Element element) {
        Model model = head.model();
        Set<Link> doubted = doubted(head, element.id());
        List<Link> links = Links.in(model).of(element).stream()
                .sorted(Comparator.comparing((Link link) -> !link.below().equals(element.id()))
                        .thenComparing(link -> link.words(element.id()))
                        .thenComparing(
                                link -> RequirementIds.of(model, model.get(link.other(element.id()))),
                                RequirementIds.ORDER))
                .toList();
        return links.stream()
                .map(link -> new LinkView(
                        link,
                        link.carrier() + " " + link.source() + " " + link.target(),
                        link.words(element.id()),
                        link.below().equals(element.id()),
                        model.get(link.other(element.id())),
                        note(model, link),
                        doubted.contains(link),
                        links.size() <= MOST_WITH_AUTHOR
                                ? store.revisionsOf(head.branch(), link.carrier())
                                        .getLast()
                                : null))
                .toList();
    }

    /** What was noted at the link itself; what it leads to has a text of its own. */
    private static String note(Model model, Link link) {
        return model.inheritance()
                .documentationOf(model.get(link.carrier()))
                .flatMap(note -> note.get(Property.TEXT))
                .orElse("");
    }

    /** The links at an element that need recheck. */
    public Set<Link> doubted(Workspace.Head head, ElementId element) {
        return rechecks.of(head, element).stream().map(Agreements.Doubt::link).collect(Collectors.toSet());
    }

    /** The other ends of links that need recheck. */
    public Set<ElementId> doubtedEnds(Workspace.Head head, ElementId element) {
        return doubted(head, element).stream().map(link -> link.other(element)).collect(Collectors.toSet());
    }
}
