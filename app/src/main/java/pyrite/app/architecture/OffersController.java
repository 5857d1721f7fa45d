package pyrite.app.architecture;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/** What can be brought into a drawing: definitions and requirements of the project, and other projects' libraries. */
@RestController
class OffersController {
    private static final int MOST_OFFERED = 80;
    private static final int MOST_LISTED = 1000;

    private final SharedLibraries shared;

    OffersController(SharedLibraries shared) {
        this.shared = shared;
    }

    /**
     * @param use definition or requirement
     * @param source where a definition of another project comes from that is not used here yet; null for all others
     */
    record Offer(
            String id,
            String name,
            String where,
            String family,
            String use,
            String text,
            @Nullable Source source) {}

    /** A library package of another project at its newest baseline. */
    record Source(String project, String top, int number) {}

    /** What can be brought in: definitions and requirements by a part of their name or id. */
    /** Without a text the outline, package by package; with one whatever goes by it. */
    @Costly
    @GetMapping("/p/{project}/{branch}/drawing/offers.json")
    List<Offer> offers(Workspace.Head head, @RequestParam(defaultValue = "") String text) {
        Labels labels = new Labels(head.model());
        String sought = text.strip().toLowerCase(Locale.ROOT);
        Comparator<Element> byName = Comparator.comparing(
                        (Element element) -> element.kind().isRequirement())
                .thenComparing(element ->
                        !labels.full(element).toLowerCase(Locale.ROOT).startsWith(sought))
                .thenComparing(labels::full);
        Stream<Offer> own = head.model().ownElements().stream()
                .filter(element -> element.kind() != ElementKind.METADATA_DEFINITION
                        && (element.kind().isDefinition() || element.kind() == ElementKind.REQUIREMENT))
                .filter(element -> labels.full(element).toLowerCase(Locale.ROOT).contains(sought))
                .sorted(sought.isEmpty() ? byPlace(labels).thenComparing(byName) : byName)
                .limit(sought.isEmpty() ? MOST_LISTED : MOST_OFFERED)
                .map(element -> offer(head.model(), labels, element));
        return Stream.concat(own, sought.isEmpty() ? Stream.empty() : shared(head, sought))
                .toList();
    }

    /** As the outline has them: package by package, those with definitions first. */
    private static Comparator<Element> byPlace(Labels labels) {
        return Comparator.comparing((Element element) -> element.kind().isRequirement())
                .thenComparing(element -> element.owner() == null ? "" : labels.withOwner(element.owner()));
    }

    private static Offer offer(Model model, Labels labels, Element element) {
        return new Offer(
                element.id().toString(),
                labels.full(element),
                element.owner() == null ? "" : labels.name(element.owner()),
                labels.family(element),
                element.kind() == ElementKind.REQUIREMENT ? "requirement" : "definition",
                model.inheritance().documentation(element),
                null);
    }

    /** Definitions of other projects' libraries that are not used here. */
    private Stream<Offer> shared(Workspace.Head head, String sought) {
        return shared.offers(head, sought).stream()
                .flatMap(offer -> offer.packages().stream()
                        .filter(each -> !each.isUsed())
                        .flatMap(each -> each.definitions().stream()
                                .map(definition -> new Offer(
                                        definition.id(),
                                        definition.name(),
                                        each.top().name() + ", "
                                                + offer.branch().projectName() + " "
                                                + offer.baseline().name(),
                                        "structure",
                                        "definition",
                                        definition.doc(),
                                        new Source(
                                                offer.branch().projectUuid().toString(),
                                                each.top().id().toString(),
                                                offer.baseline().number())))))
                .limit(MOST_OFFERED);
    }
}
