package pyrite.app.links;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.trace.Link;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.LinkRule;
import pyrite.core.trace.LinkRules;
import pyrite.core.trace.RuleEditing;
import pyrite.core.trace.TraceGraph;

/** The link rules: a grid of them, and an editor for administrators. */
@Controller
class RulesController {
    private static final int MOST_BREAKING = 50;

    private final Pages pages;
    private final Workspace workspace;

    RulesController(Pages pages, Workspace workspace) {
        this.pages = pages;
        this.workspace = workspace;
    }

    /** A kind with its rules and its number of links. */
    public record Row(LinkKind kind, List<LinkRule> rules, int links, boolean own) {}

    /** An existing link that violates a rule added later. */
    public record Breaking(Link link, Element source, Element target, String violation) {}

    @GetMapping("/p/{project}/{branch}/rules")
    String rules(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.REQUIREMENTS, "Link rules");
        Model model = head.model();
        LinkRules rules = LinkRules.in(model);
        Set<Link> all = TraceGraph.of(model).links();
        Map<LinkKind, Long> counts = all.stream().collect(Collectors.groupingBy(Link::kind, Collectors.counting()));
        page.addAttribute(
                "rows",
                LinkKind.all(model).stream()
                        .map(kind -> new Row(
                                kind,
                                rules.of(kind),
                                counts.getOrDefault(kind, 0L).intValue(),
                                rules.of(kind).stream()
                                        .anyMatch(rule ->
                                                !model.isLibrary(rule.element().id()))))
                        .toList());
        page.addAttribute("picture", RulePicture.of(rules.all(), LinkKind.all(model)));
        page.addAttribute(
                "breaking",
                all.stream()
                        .filter(link -> !rules.allows(link))
                        .limit(MOST_BREAKING)
                        .map(link -> new Breaking(
                                link, model.get(link.source()), model.get(link.target()), rules.violation(link)))
                        .toList());
        page.addAttribute("mayRule", person.isAdministrator() && !head.past());
        return "links/rules";
    }

    /** A rule to write; {@code element} is the rule it replaces, null for a new one. */
    record Ruled(
            @Nullable String element,
            @NotNull @Size(max = 60) String kind,
            @NotNull @Size(max = 400) String from,
            @NotNull @Size(max = 400) String to,
            @PositiveOrZero int leastFrom,
            @PositiveOrZero int leastTo,
            @NotNull @Size(max = 400) String watched,
            @PositiveOrZero int base) {}

    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "Make or change a rule for links; takes an administrator")
    @PostMapping({"/p/{project}/{branch}/rules", ApiAddress.BRANCH + "/rules"})
    @ResponseBody
    ResponseEntity<Answer> save(Workspace.Head head, Person person, @Valid @RequestBody Ruled ruled) {
        RuleEditing.Proposal proposal = new RuleEditing(head.model())
                .put(
                        ruled.element() == null ? null : head.element(ruled.element()),
                        new RuleEditing.Request(
                                ruled.kind(),
                                ruled.from(),
                                ruled.to(),
                                ruled.leastFrom(),
                                ruled.leastTo(),
                                ruled.watched()));
        return proposal.problem().isEmpty()
                ? Answer.of(
                        head,
                        workspace.commit(
                                head.branch(),
                                ruled.base(),
                                proposal.edit(),
                                person,
                                "link rule for " + ruled.kind() + " changed"),
                        "nothing changed")
                : Answer.unprocessable(proposal.problem());
    }

    /** A rule to remove, or a kind of link to add. */
    record Removed(@NotNull String element, @PositiveOrZero int base) {}

    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "Remove a rule for links; takes an administrator")
    @PostMapping({"/p/{project}/{branch}/rules/remove", ApiAddress.BRANCH + "/rules/remove"})
    @ResponseBody
    ResponseEntity<Answer> remove(Workspace.Head head, Person person, @Valid @RequestBody Removed removed) {
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        removed.base(),
                        pyrite.core.model.Edit.remove(
                                head.element(removed.element()).id()),
                        person,
                        "link rule removed"),
                "nothing changed");
    }

    record NewKind(
            @NotNull @Size(max = 60) String key,
            @NotNull @Size(max = 100) String forward,
            @NotNull @Size(max = 100) String backward,
            @PositiveOrZero int base) {}

    @Tag(name = ApiAddress.TRACING)
    @Operation(summary = "Make a kind of link; takes an administrator")
    @PostMapping({"/p/{project}/{branch}/rules/kinds", ApiAddress.BRANCH + "/rules/kinds"})
    @ResponseBody
    ResponseEntity<Answer> kind(Workspace.Head head, Person person, @Valid @RequestBody NewKind kind) {
        RuleEditing.Proposal proposal = new RuleEditing(head.model()).kind(kind.key(), kind.forward(), kind.backward());
        return proposal.problem().isEmpty()
                ? Answer.of(
                        head,
                        workspace.commit(
                                head.branch(),
                                kind.base(),
                                proposal.edit(),
                                person,
                                "kind of link " + kind.key() + " added"),
                        "nothing changed")
                : Answer.unprocessable(proposal.problem());
    }
}
