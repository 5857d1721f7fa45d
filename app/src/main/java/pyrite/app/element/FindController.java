package pyrite.app.element;

import io.swagger.v3.oas.annotations.Operation;
import io.swagger.v3.oas.annotations.tags.Tag;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import pyrite.app.workspace.ApiAddress;
import pyrite.app.workspace.Labels;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/** Finds elements whose name or short name begins with, or else contains, the typed text. */
@RestController
class FindController {
    private static final int MOST = 12;
    /** A hit and its address; {@code behind} is the number of ranks by which it comes after better matches. */
    record Hit(String label, String kind, String where, String address, int behind) {}

    @Tag(name = ApiAddress.WORK)
    @Operation(summary = "Elements by a part of their name or id, the best match first")
    @GetMapping({"/p/{project}/{branch}/find", ApiAddress.BRANCH + "/find"})
    List<Hit> find(Workspace.Head head, @RequestParam String q) {
        String requested = q.strip();
        Labels labels = new Labels(head.model());
        return requested.isEmpty()
                ? List.of()
                : head.model().ownElements().stream()
                        .filter(e -> e.name() != null || e.shortName() != null)
                        .filter(e -> rank(e, requested) < Integer.MAX_VALUE)
                        .sorted(Comparator.comparingInt((Element e) -> rank(e, requested) + behind(e))
                                .thenComparing(labels::full))
                        .limit(MOST)
                        .map(e -> new Hit(
                                labels.full(e),
                                e.kind().title(),
                                where(head.model(), e),
                                head.address("element/" + e.id()),
                                behind(e)))
                        .toList();
    }

    private static int behind(Element element) {
        return element.kind().isRole() ? 3 : element.kind() == ElementKind.ATTRIBUTE ? 1 : 0;
    }

    private static String where(Model model, Element element) {
        return element.owner() == null ? "" : model.names().qualifiedName(model.get(element.owner()));
    }

    private static int rank(Element element, String requested) {
        return Math.min(rank(element.shortName(), requested), rank(element.name(), requested));
    }

    private static int rank(@Nullable String name, String requested) {
        if (name == null) {
            return Integer.MAX_VALUE;
        }
        String lower = name.toLowerCase(Locale.ROOT);
        String sought = requested.toLowerCase(Locale.ROOT);
        return name.equals(requested)
                ? 0
                : lower.equals(sought)
                        ? 1
                        : lower.startsWith(sought) ? 2 : lower.contains(sought) ? 3 : Integer.MAX_VALUE;
    }
}
