package pyrite.app.architecture;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.structure.Flows;
import pyrite.core.structure.PairTable;

/** What belongs together at the ends of an interface definition, and the flows that a connection allows. */
@Controller
class PairsController {
    private static final int MOST_PAIRS = 1000;

    private final Pages pages;
    private final Workspace workspace;

    PairsController(Pages pages, Workspace workspace) {
        this.pages = pages;
        this.workspace = workspace;
    }

    @GetMapping("/p/{project}/{branch}/element/{id}/pairs")
    String pairs(Workspace.Head head, Person person, @PathVariable String id, org.springframework.ui.Model page) {
        Element definition = head.element(id);
        PairTable table = table(head, definition);
        pages.frame(page, head, person, Station.ARCHITECTURE, new Labels(head.model()).full(definition) + " · Pairs");
        page.addAttribute("element", definition);
        page.addAttribute("table", table);
        page.addAttribute("picture", new PairPicture(table));
        return "architecture/pairs";
    }

    private static PairTable table(Workspace.Head head, Element definition) {
        return PairTable.of(head.model(), definition)
                .orElseThrow(() -> new NotFound(new Labels(head.model()).name(definition)
                        + " has no two ports as ends; an interface definition has"));
    }

    record Paired(
            @NotNull @Size(max = MOST_PAIRS) Map<@Size(max = 500) String, @Size(max = 500) String> pairs,
            @PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/pairs")
    ResponseEntity<Answer> pair(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Paired paired) {
        Element definition = head.element(id);
        Map<String, String> pairs = paired.pairs().entrySet().stream()
                .filter(pair -> !pair.getValue().isBlank())
                .collect(Collectors.toMap(Map.Entry::getKey, Map.Entry::getValue));
        return switch (table(head, definition).pair(head.model(), definition, pairs)) {
            case PairTable.Result.Refused(String reason) -> Answer.unprocessable(reason);
            case PairTable.Result.Made(var edit) ->
                Answer.of(
                        head,
                        workspace.commit(
                                head.branch(),
                                paired.base(),
                                edit,
                                person,
                                "pairs of " + new Labels(head.model()).name(definition) + " changed"),
                        "nothing changed");
        };
    }

    record Asked(@PositiveOrZero int base) {}

    @PostMapping("/p/{project}/{branch}/element/{id}/flows")
    ResponseEntity<Answer> flows(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Asked asked) {
        Element connection = head.element(id);
        var proposed = Flows.proposed(head.model(), connection);
        return proposed.isEmpty()
                ? Answer.unprocessable("every flow that the directions allow is there, or the ports do not fit")
                : Answer.of(
                        head,
                        workspace.commit(
                                head.branch(),
                                asked.base(),
                                Flows.make(head.model(), connection),
                                person,
                                (proposed.size() == 1 ? "flow of " : "flows: ")
                                        + proposed.stream()
                                                .map(Flows.Proposal::words)
                                                .collect(Collectors.joining(", "))),
                        "nothing changed");
    }
}
