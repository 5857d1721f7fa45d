package pyrite.app.requirements;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.specification.RequirementText;
import pyrite.core.specification.Waivers;
import pyrite.core.specification.WordingCheck;
import pyrite.core.trace.Link;
import pyrite.core.trace.Links;
import pyrite.core.trace.Split;

/** Assists with the wording of requirements: findings while typing, waivers, and splitting. */
@RestController
@Tag(name = ApiAddress.TRACING)
class WordingController {
    private static final int LONGEST_TEXT = 100_000;

    private final Workspace workspace;
    private final NewIds ids;

    WordingController(Workspace workspace, NewIds ids) {
        this.workspace = workspace;
        this.ids = ids;
    }

    /** A finding as pages show it; {@code waived} is the reason, empty if it is not waived. */
    public record Found(String rule, int start, int end, String words, String why, String waived) {}

    static List<Found> findings(Model model, Element requirement, String text) {
        Map<String, String> waived = Waivers.of(model, requirement);
        boolean need = requirement.kind().isNeed();
        return WordingCheck.of(text, need).stream()
                .map(finding -> new Found(
                        finding.rule().key(),
                        finding.span().start(),
                        finding.span().end(),
                        finding.words(),
                        finding.rule().why(),
                        waived.getOrDefault(finding.rule().key(), "")))
                .toList();
    }

    /** What there is to ask about a text that is being written for a requirement. */
    @Operation(summary = "What the wording check asks about a requirement")
    @GetMapping({"/p/{project}/{branch}/element/{id}/wording.json", ApiAddress.BRANCH + "/requirements/{id}/wording"})
    List<Found> wording(Workspace.Head head, @PathVariable String id, @RequestParam(required = false) String text) {
        Element requirement = head.element(id);
        return findings(
                head.model(),
                requirement,
                text == null
                        ? RequirementText.of(head.model(), requirement)
                        : text.substring(0, Math.min(text.length(), LONGEST_TEXT)));
    }

    record Waived(
            @NotNull String rule,
            @NotNull @Size(max = 2000) String reason,
            @PositiveOrZero int base) {}

    @Operation(summary = "Waive a finding of the wording check with a reason; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/element/{id}/waive", ApiAddress.BRANCH + "/requirements/{id}/waive"})
    ResponseEntity<Answer> waive(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Waived waived) {
        Element requirement = head.element(id);
        WordingCheck.Rule rule;
        try {
            rule = WordingCheck.rule(waived.rule());
        } catch (IllegalArgumentException fault) {
            return Answer.unprocessable(fault);
        }
        String called = RequirementIds.of(head.model(), requirement);
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        waived.base(),
                        Waivers.put(head.model(), requirement, rule.key(), waived.reason()),
                        person,
                        waived.reason().isBlank()
                                ? "wording of " + called + ": '" + rule.key() + "' counts again"
                                : "wording of " + called + ": '" + rule.key() + "' waived"),
                "nothing changed");
    }

    /** A link that a part may keep, identified by its carrier and ends. */
    public record Choice(String key, String words) {}

    /** A proposed split of a requirement, which the author can still change. */
    public record Proposed(List<String> parts, List<Choice> links) {}

    @GetMapping("/p/{project}/{branch}/element/{id}/split.json")
    Proposed split(Workspace.Head head, @PathVariable String id) {
        Element requirement = head.element(id);
        Labels labels = new Labels(head.model());
        List<Choice> links = Links.in(head.model()).of(requirement).stream()
                .map(link -> new Choice(
                        key(link),
                        link.words(requirement.id()) + " "
                                + labels.full(head.model().get(link.other(requirement.id())))))
                .toList();
        List<String> parts =
                new ArrayList<>(Split.propose(head.model().inheritance().documentation(requirement)));
        if (parts.size() < 2) {
            parts.add("");
        }
        return new Proposed(parts, links);
    }

    private static String key(Link link) {
        return link.carrier() + " " + link.source() + " " + link.target();
    }

    record Part(
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @NotNull Set<String> links) {}

    record Parts(
            @NotNull @Size(min = 2, max = 50) List<@Valid Part> parts,
            @PositiveOrZero int base) {}

    @Operation(summary = "Split a requirement; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/element/{id}/split", ApiAddress.BRANCH + "/requirements/{id}/split"})
    ResponseEntity<Answer> split(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Parts requested) {
        Element requirement = head.element(id);
        if (requested.parts().stream().anyMatch(part -> part.text().isBlank())) {
            return Answer.unprocessable("each part says something; leave out the ones that do not");
        }
        Map<String, Link> links = Links.in(head.model()).of(requirement).stream()
                .collect(Collectors.toMap(WordingController::key, link -> link));
        List<Split.Part> parts = requested.parts().stream()
                .map(part -> new Split.Part(
                        part.text().strip(),
                        part.links().stream()
                                .filter(links::containsKey)
                                .map(links::get)
                                .collect(Collectors.toSet())))
                .toList();
        Split.Proposal proposal =
                Split.of(head.model(), requirement, parts, ids.take(head, requirement, parts.size() - 1));
        return proposal.refused().isEmpty()
                ? Answer.of(
                        head,
                        workspace.commit(
                                head.branch(),
                                requested.base(),
                                proposal.edit(),
                                person,
                                RequirementIds.of(head.model(), requirement) + " split into " + parts.size()),
                        "nothing changed",
                        proposal.made())
                : Answer.unprocessable(proposal.refused());
    }
}
