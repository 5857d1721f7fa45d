package pyrite.core.specification;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Names;
import pyrite.core.model.Rank;
import pyrite.core.model.Redirection;

/** Copies elements with all they own. References between copied elements lead to the copies. */
public final class SubtreeCopy {
    private final Model model;
    private final Supplier<String> ids;
    private final Map<ElementId, ElementId> copies = new HashMap<>();
    /** The names that copies at the top have got already. */
    private final Set<String> given = new HashSet<>();

    /** @param ids gives the id of each copied requirement */
    public SubtreeCopy(Model model, Supplier<String> ids) {
        this.model = model;
        this.ids = ids;
    }

    List<Element> of(Element top, Rank rank) {
        return of(List.of(top), top.owner(), List.of(rank));
    }

    /**
     * @param owner what gets the copies
     * @param ranks their places, one for each of {@code tops}
     */
    public List<Element> of(List<Element> tops, @Nullable ElementId owner, List<Rank> ranks) {
        List<Element> copied = new ArrayList<>();
        for (int i = 0; i < tops.size(); i++) {
            Element top = tops.get(i);
            for (Element original : model.subtree(top.id())) {
                boolean isTop = original.equals(top);
                if (isTop) {
                    copied.add(copy(original, owner, ranks.get(i), freeName(original, owner)));
                } else if (!isLink(original) && copies.containsKey(original.owner())) {
                    copied.add(copy(original, copies.get(original.owner()), original.rank(), original.name()));
                }
            }
        }
        Redirection toCopies = new Redirection(copies);
        return copied.stream().map(toCopies::of).toList();
    }

    private Element copy(Element original, @Nullable ElementId owner, Rank rank, @Nullable String name) {
        ElementId id = ElementId.fresh();
        copies.put(original.id(), id);
        String shortName = original.shortName() != null && Specification.isRequirement(original)
                ? ids.get()
                : original.shortName();
        return new Element(id, original.kind(), owner, rank, name, shortName, original.properties());
    }

    private static boolean isLink(Element element) {
        return switch (element.kind()) {
            case DEPENDENCY, SATISFACTION, FRAMED_CONCERN, VERIFIED_REQUIREMENT, ALLOCATION -> true;
            default -> false;
        };
    }

    private @Nullable String freeName(Element original, @Nullable ElementId owner) {
        String name = original.name();
        if (name == null) {
            return null;
        }
        Set<String> taken = new HashSet<>(given);
        if (owner != null) {
            taken.addAll(model.names().membersOf(owner));
        }
        String free = Names.free(taken, name);
        given.add(free);
        return free;
    }
}
