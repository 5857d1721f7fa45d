package pyrite.app.api;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import jakarta.servlet.http.HttpServletRequest;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.workspace.Costly;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.exchange.ElementJson;
import pyrite.core.exchange.Query;
import pyrite.core.exchange.Relationships;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** The elements of a commit (Systems Modeling API, Element, Relationship and Query). */
@RestController
@RequestMapping("/api/projects/{projectId}")
@Tag(name = "3 Elements")
class ElementsApi {
    private static final int MOST = 5000;

    private final ApiBranches branches;

    ElementsApi(ApiBranches branches) {
        this.branches = branches;
    }

    @Operation(summary = "The elements in the order of their ids, page by page; the Link header leads to the next page")
    @Costly
    @GetMapping("/commits/{commitId}/elements")
    ResponseEntity<List<Map<String, @Nullable Object>>> elements(
            @PathVariable UUID projectId,
            @PathVariable UUID commitId,
            @RequestParam(name = "page[size]", defaultValue = "200") int size,
            @RequestParam(name = "page[after]") Optional<UUID> after,
            HttpServletRequest request) {
        Workspace.Head head = branches.at(projectId, commitId);
        int most = Math.clamp(size, 1, MOST);
        ElementJson writer = new ElementJson(head.model());
        List<ElementId> all = head.model().derived(ById.class, ById::of).ids();
        int from = after.map(id -> behind(all, ElementId.of(id))).orElse(0);
        List<Element> found = all.subList(from, Math.min(all.size(), from + most + 1)).stream()
                .map(head.model()::get)
                .toList();
        return page(found.stream().map(writer::write).toList(), most, request);
    }

    /** @param found one more than a page has, if there is a next one */
    private static ResponseEntity<List<Map<String, @Nullable Object>>> page(
            List<Map<String, @Nullable Object>> found, int most, HttpServletRequest request) {
        List<Map<String, @Nullable Object>> page = found.subList(0, Math.min(most, found.size()));
        return found.size() > most
                ? NextPage.after(page, Objects.requireNonNull(page.getLast().get(ElementJson.ID)), most, request)
                : ResponseEntity.ok(page);
    }

    /** The elements of a snapshot in the order of pages. */
    private record ById(List<ElementId> ids) {
        static ById of(Model model) {
            return new ById(
                    model.ownElements().stream().map(Element::id).sorted().toList());
        }
    }

    /** The index of the first behind an id, whether or not that is there still. */
    private static int behind(List<ElementId> all, ElementId id) {
        int index = Collections.binarySearch(all, id);
        return index < 0 ? -index - 1 : index + 1;
    }

    @Operation(summary = "The elements that nothing owns")
    @Costly
    @GetMapping("/commits/{commitId}/roots")
    List<Map<String, @Nullable Object>> roots(@PathVariable UUID projectId, @PathVariable UUID commitId) {
        Workspace.Head head = branches.at(projectId, commitId);
        return head.model().ownRoots().stream()
                .map(new ElementJson(head.model())::write)
                .toList();
    }

    @Operation(summary = "One element")
    @GetMapping("/commits/{commitId}/elements/{elementId}")
    Map<String, @Nullable Object> element(
            @PathVariable UUID projectId, @PathVariable UUID commitId, @PathVariable String elementId) {
        Workspace.Head head = branches.at(projectId, commitId);
        return new ElementJson(head.model()).write(head.element(elementId));
    }

    @Operation(summary = "The relationships an element is an end of; direction is in, out or both")
    @GetMapping("/commits/{commitId}/elements/{elementId}/relationships")
    List<Map<String, @Nullable Object>> relationships(
            @PathVariable UUID projectId,
            @PathVariable UUID commitId,
            @PathVariable String elementId,
            @RequestParam(defaultValue = "both") String direction) {
        Workspace.Head head = branches.at(projectId, commitId);
        Relationships relationships = new Relationships(head.model());
        ElementJson writer = new ElementJson(head.model());
        return relationships.of(head.element(elementId).id(), direction(direction)).stream()
                .map(each -> {
                    Map<String, @Nullable Object> json = writer.write(each);
                    json.put(
                            "relatingSource",
                            relationships.sources(each).stream()
                                    .map(ElementJson::reference)
                                    .toList());
                    json.put(
                            "relatingTarget",
                            relationships.targets(each).stream()
                                    .map(ElementJson::reference)
                                    .toList());
                    return json;
                })
                .toList();
    }

    private static Relationships.Direction direction(String word) {
        return switch (word) {
            case "in" -> Relationships.Direction.IN;
            case "out" -> Relationships.Direction.OUT;
            case "both" -> Relationships.Direction.BOTH;
            default -> throw new NotFound("a direction is in, out or both, not " + word);
        };
    }

    @Operation(
            summary = "The elements that a query chooses, at a commit or else at the newest, page by page; "
                    + "the Link header leads to the next page, "
                    + "for which the query is sent again")
    @Costly
    @PostMapping("/query-results")
    ResponseEntity<List<Map<String, @Nullable Object>>> query(
            @PathVariable UUID projectId,
            @RequestParam Optional<UUID> commitId,
            @RequestParam(name = "page[size]", defaultValue = "200") int size,
            @RequestParam(name = "page[after]") Optional<UUID> after,
            @RequestBody Map<String, @Nullable Object> query,
            HttpServletRequest request) {
        Workspace.Head head = commitId.map(id -> branches.at(projectId, id))
                .orElseGet(() -> branches.headOrFirst(projectId, Optional.empty()));
        int most = Math.clamp(size, 1, MOST);
        return page(Query.read(query).on(head.model(), after.map(ElementId::of).orElse(null), most + 1), most, request);
    }

    @Operation(summary = "Elements in the textual notation: one with all it owns, or the whole model")
    @Costly
    @GetMapping(path = "/commits/{commitId}/notation", produces = "text/plain;charset=UTF-8")
    String notation(@PathVariable UUID projectId, @PathVariable UUID commitId, @RequestParam Optional<String> element) {
        Workspace.Head head = branches.at(projectId, commitId);
        return NotationWriter.write(
                head.model(),
                element.map(id -> List.of(head.element(id)))
                        .orElseGet(() -> head.model().ownRoots()));
    }
}
