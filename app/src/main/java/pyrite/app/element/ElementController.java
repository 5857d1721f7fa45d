package pyrite.app.element;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.architecture.Performing;
import pyrite.app.evidence.Verdicts;
import pyrite.app.links.ElementLinks;
import pyrite.app.store.BranchStore;
import pyrite.app.store.Person;
import pyrite.app.store.RunStore;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.ElementKind.Family;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.notation.NotationWriter;
import pyrite.core.reuse.UsedLibrary;
import pyrite.core.specification.Attribute;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.ExternalReference;
import pyrite.core.specification.RequirementText;
import pyrite.core.specification.RichText;
import pyrite.core.specification.Specification;
import pyrite.core.specification.WordingQuestion;
import pyrite.core.trace.TraceThread;
import pyrite.core.verification.CaseSetup;
import pyrite.core.verification.Playable;
import pyrite.core.verification.VerdictPlot;
import pyrite.core.view.FeatureSheet;
import pyrite.core.view.Uses;
import pyrite.core.view.VerdictPrerequisites;

/** The page of one element: its text, features, equations, verdicts and history. */
@Controller
class ElementController {
    private final Pages pages;
    private final Verdicts verdicts;
    private final BranchStore branches;
    private final RunStore runs;
    private final ElementLinks links;

    ElementController(Pages pages, Verdicts verdicts, BranchStore branches, RunStore runs, ElementLinks links) {
        this.pages = pages;
        this.verdicts = verdicts;
        this.branches = branches;
        this.runs = runs;
        this.links = links;
    }

    /** Whether other projects may use it: it stands in a library package of this one, or comes from one. */
    private static boolean isShared(Model model, Element element) {
        return element.kind().isDefinition()
                && !model.isLibrary(element.id())
                && model.owners(element).stream()
                        .anyMatch(owner -> owner.owner() == null && owner.kind() == ElementKind.LIBRARY_PACKAGE);
    }

    @GetMapping("/p/{project}/{branch}/element/{id}")
    String show(Workspace.Head head, Person person, @PathVariable String id, org.springframework.ui.Model page) {
        Element element = head.element(id);
        Model model = head.model();
        pages.frame(page, head, person, station(element), title(model, element));
        page.addAttribute("element", element);
        UsedLibrary used = UsedLibrary.around(model, element).orElse(null);
        page.addAttribute("used", used);
        page.addAttribute("library", used != null || model.isLibrary(element.id()));
        page.addAttribute("isShared", isShared(model, element));
        page.addAttribute("signature", NotationWriter.head(model, element));
        page.addAttribute("text", model.inheritance().documentation(element));
        page.addAttribute(
                "textIsOwn", model.inheritance().documentationOf(element).isPresent());
        page.addAttribute("sheet", FeatureSheet.of(model, element));
        page.addAttribute("uses", Uses.of(model, element.id()));
        page.addAttribute("links", links.of(head, element));
        page.addAttribute("references", ExternalReference.of(model, element));
        page.addAttribute("verdicts", verdicts.of(head, element.id()));
        page.addAttribute(
                "history",
                branches.revisionsOf(head.branch(), whatMakesIt(model, element)).stream()
                        .limit(8)
                        .toList());
        page.addAttribute("notation", NotationWriter.write(model, List.of(element)));
        page.addAttribute(
                "drawable",
                element.kind().isPackage()
                        || element.kind().isDefinition()
                        || element.kind().isUsage());
        page.addAttribute("restorable", head.past() && person.mayEdit() && !model.isLibrary(element.id()));
        page.addAttribute("runnable", CaseSetup.isRunnable(model, element));
        page.addAttribute("playable", Playable.isOfKind(element.kind()));
        page.addAttribute("performing", Performing.of(model, element).orElse(null));
        if (!Specification.isRequirement(element)) {
            return "architecture/element";
        }
        page.addAttribute("requirementId", RequirementIds.of(model, element));
        page.addAttribute("need", element.kind().isNeed());
        page.addAttribute(
                "html",
                RichText.html(RequirementText.of(model, element), head.branch().address()));
        page.addAttribute("wording", WordingQuestion.of(model, element));
        page.addAttribute("managed", managed(model, element));
        Element subject = subject(model, element).orElse(null);
        page.addAttribute("subject", subject);
        page.addAttribute("subjectText", subject == null ? "" : declared(model, subject));
        page.addAttribute("wantedBy", wantedBy(model, element));
        page.addAttribute(
                "lacking", VerdictPrerequisites.of(model, element, each -> CaseSetup.isRunnable(model, each)));
        return "requirements/requirement";
    }

    /** An element with its texts and metadata; a requirement also with its constraints and what else it is made of. */
    private static List<ElementId> whatMakesIt(Model model, Element element) {
        boolean requirement = Specification.isRequirement(element);
        return Stream.concat(
                        Stream.of(element),
                        model.children(element.id()).stream()
                                .filter(child -> child.kind().family() == Family.ANNOTATION
                                        || requirement && !Specification.isRequirement(child))
                                .flatMap(child -> model.subtree(child.id()).stream()))
                .map(Element::id)
                .toList();
    }

    private static Optional<Element> subject(Model model, Element requirement) {
        return model.inheritance().features(requirement).stream()
                .filter(feature -> feature.kind() == ElementKind.SUBJECT && !model.isLibrary(feature.id()))
                .findFirst();
    }

    /** Name and type, such as {@code gate : SurgeGate}. */
    private static String declared(Model model, Element subject) {
        String type = model.inheritance().generals(subject).stream()
                .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                .map(Element::name)
                .findFirst()
                .orElse("?");
        return model.names().effectiveName(subject) + " : " + type;
    }

    /** A stakeholder of a need by what it is a kind of. */
    public record Stakeholder(Element member, Element type, boolean isOwn) {}

    private static List<Stakeholder> wantedBy(Model model, Element need) {
        return model.inheritance().features(need).stream()
                .filter(feature -> feature.kind() == ElementKind.STAKEHOLDER)
                .flatMap(member -> model.inheritance().generals(member).stream()
                        .filter(general -> general.kind().isDefinition() && !model.isLibrary(general.id()))
                        .limit(1)
                        .map(type -> new Stakeholder(member, type, need.id().equals(member.owner()))))
                .toList();
    }

    /** An attribute with its value, or the value that holds by default. */
    public record Managed(Attribute attribute, String value) {
        public String choices() {
            return attribute.choices().stream().map(Attribute.Choice::name).collect(Collectors.joining(","));
        }

        public String type() {
            return attribute.type().name().toLowerCase(Locale.ROOT);
        }
    }

    private static List<Managed> managed(Model model, Element requirement) {
        Attributes attributes = Attributes.in(model);
        return attributes.of(requirement).stream()
                .map(attribute -> new Managed(attribute, attributes.value(requirement, attribute)))
                .toList();
    }

    /** The neighbourhood of an element, for the panel at the right. */
    @GetMapping("/p/{project}/{branch}/thread/{id}")
    String thread(Workspace.Head head, Person person, @PathVariable String id, org.springframework.ui.Model page) {
        Element element = head.element(id);
        pages.frame(page, head, person, station(element), "");
        page.addAttribute("thread", TraceThread.of(head.model(), element));
        page.addAttribute("judged", verdicts.all(head));
        page.addAttribute("doubted", links.doubtedEnds(head, element.id()));
        return "frame/thread :: thread";
    }

    /** The plot for a verdict of a requirement. */
    record Picture(long run, String subject, VerdictPlot plot) {}

    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "What the verdicts of a requirement show: series with limits")
    @GetMapping({"/p/{project}/{branch}/element/{id}/plot.json", ApiAddress.BRANCH + "/requirements/{id}/exhibits"})
    @ResponseBody
    List<Picture> plots(Workspace.Head head, @PathVariable String id) {
        return verdicts.of(head, head.element(id).id()).stream()
                .filter(view -> view.stored() != null && view.run() != null)
                .map(view -> new Picture(view.run(), view.subject(), runs.plot(view.run(), view.stored())))
                .toList();
    }

    private static Station station(Element element) {
        return switch (element.kind().family()) {
            case REQUIREMENT -> element.kind().isNeed() ? Station.NEEDS : Station.REQUIREMENTS;
            case VERIFICATION -> Station.RUNS;
            default -> element.kind().isCase() ? Station.RUNS : Station.ARCHITECTURE;
        };
    }

    private static String title(Model model, Element element) {
        return new Labels(model).full(element);
    }
}
