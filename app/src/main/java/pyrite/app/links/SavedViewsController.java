package pyrite.app.links;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.PositiveOrZero;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseBody;
import pyrite.app.store.Person;
import pyrite.app.workspace.Answer;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Pages;
import pyrite.app.workspace.Station;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Edit;
import pyrite.core.trace.SavedView;

/** Saved views: listing, opening, saving, pinning and removing. */
@Controller
@Tag(name = ApiAddress.TRACING)
class SavedViewsController {
    private static final java.util.regex.Pattern DRAWN =
            java.util.regex.Pattern.compile("(element/[0-9a-f-]{36}/(general|inside|context)|drawing/[0-9a-f-]{36})");

    private final Pages pages;
    private final Workspace workspace;
    private final ViewCounts counts;

    SavedViewsController(Pages pages, Workspace workspace, ViewCounts counts) {
        this.pages = pages;
        this.workspace = workspace;
        this.counts = counts;
    }

    /** A view with its current number of rows; empty if it is not a number. */
    public record Row(SavedView view, String count) {}

    @GetMapping("/p/{project}/{branch}/views")
    String views(Workspace.Head head, Person person, org.springframework.ui.Model page) {
        pages.frame(page, head, person, Station.REQUIREMENTS, "Views");
        page.addAttribute(
                "rows",
                SavedView.listed(head.model(), person.signIn()).stream()
                        .map(view -> new Row(view, counts.of(head, view)))
                        .toList());
        return "links/views";
    }

    /** Opens a view: its page with what it asks. */
    @GetMapping("/p/{project}/{branch}/views/{id}")
    String open(Workspace.Head head, @PathVariable String id) {
        SavedView view = SavedView.of(head.model(), head.element(id).id())
                .orElseThrow(() -> new NotFound("this element is no view that was kept from a page"));
        return "redirect:" + ViewCounts.address(head, view);
    }

    record Kept(
            @NotBlank @Size(max = 120) String name,

            @NotNull @Pattern(regexp = "requirements|trace|matrix|coverage|impact|recheck|drawing")
            String page,

            @NotNull @Size(max = 4000) String query,
            boolean shared,
            boolean pinned,
            @PositiveOrZero int base) {}

    @Operation(summary = "Keep a view; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/views", ApiAddress.BRANCH + "/views"})
    @ResponseBody
    ResponseEntity<Answer> keep(Workspace.Head head, Person person, @Valid @RequestBody Kept kept) {
        if (kept.page().equals(SavedView.DRAWING)
                && !DRAWN.matcher(kept.query()).matches()) {
            return Answer.unprocessable("this is no way to a drawing");
        }
        Edit edit = SavedView.put(
                head.model(),
                new SavedView.Request(
                        kept.name().strip(), kept.page(), kept.query(), person.signIn(), kept.shared(), kept.pinned()));
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        kept.base(),
                        edit,
                        person,
                        "view " + kept.name().strip() + " saved"),
                "it is kept so already",
                List.of());
    }

    record Changed(boolean pinned, @PositiveOrZero int base) {}

    @Operation(summary = "Pin a view to the Overview or take it off; takes an engineer")
    @PostMapping({"/p/{project}/{branch}/views/{id}/pin", ApiAddress.BRANCH + "/views/{id}/pin"})
    @ResponseBody
    ResponseEntity<Answer> pin(
            Workspace.Head head, Person person, @PathVariable String id, @Valid @RequestBody Changed changed) {
        SavedView view = SavedView.of(head.model(), head.element(id).id())
                .orElseThrow(() -> new NotFound("this element is no view"));
        Edit edit = SavedView.put(
                head.model(),
                new SavedView.Request(
                        view.name(), view.page(), view.query(), view.owner(), view.shared(), changed.pinned()));
        return Answer.of(
                head,
                workspace.commit(
                        head.branch(),
                        changed.base(),
                        edit,
                        person,
                        "view " + view.name() + (changed.pinned() ? " pinned" : " no longer pinned")),
                "nothing changed");
    }
}
