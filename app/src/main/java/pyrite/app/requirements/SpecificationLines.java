package pyrite.app.requirements;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.springframework.stereotype.Component;
import pyrite.app.workspace.NotFound;
import pyrite.app.workspace.Workspace;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.specification.Specification;
import pyrite.core.specification.Specification.Item;

/** The lines of one specification, or of all. The most recent results are cached. */
@Component
public class SpecificationLines {
    private static final int MOST_KEPT = 24;

    private final Cache<Key, List<Item>> kept =
            Caffeine.newBuilder().maximumSize(MOST_KEPT).build();

    private record Key(long branch, int number, String specification) {}

    /** @param specification the id of a specification's package; empty for everything that is required or wanted */
    public List<Item> of(Workspace.Head head, String specification) {
        return kept.get(
                new Key(head.branch().id(), head.number(), specification),
                _ -> specification.isEmpty()
                        ? all(head.model())
                        : one(head, specification).items(head.model()));
    }

    public Specification one(Workspace.Head head, String specification) {
        return Specification.of(head.model(), head.element(specification), false)
                .orElseThrow(() -> new NotFound("this package is no specification; one is marked with @Specification"));
    }

    private static List<Item> all(Model model) {
        List<Item> items = new ArrayList<>();
        for (Specification specification : Specification.all(model)) {
            items.add(new Item(specification.element(), Item.Type.HEADING, 0, ""));
            specification
                    .items(model)
                    .forEach(item -> items.add(new Item(item.element(), item.type(), item.depth() + 1, item.number())));
        }
        elsewhere(model).forEach((owner, requirements) -> {
            items.add(new Item(owner, Item.Type.HEADING, 0, ""));
            requirements.forEach(requirement -> items.add(new Item(requirement, Item.Type.REQUIREMENT, 1, "")));
        });
        return items;
    }

    /** Requirements that stand in no specification, by what owns them. */
    private static Map<Element, List<Element>> elsewhere(Model model) {
        Map<Element, List<Element>> found = new LinkedHashMap<>();
        Map<ElementId, Boolean> within = new LinkedHashMap<>();
        model.ownElements(ElementKind.REQUIREMENTS)
                .sorted(Comparator.comparing(Element::rank))
                .forEach(element -> {
                    ElementId owner = element.owner();
                    if (owner != null
                            && !within.computeIfAbsent(
                                    owner,
                                    id -> Specification.of(model, model.get(id), true)
                                            .isPresent())) {
                        found.computeIfAbsent(model.get(owner), _ -> new ArrayList<>())
                                .add(element);
                    }
                });
        return found;
    }
}
