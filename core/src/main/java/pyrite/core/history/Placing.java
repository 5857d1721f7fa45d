package pyrite.core.history;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.NavigableSet;
import java.util.Objects;
import java.util.Optional;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Rank;

/** Gives what an edit adds or moves a place of its own, where somebody else has put something meanwhile. */
public final class Placing {
    private Placing() {}

    /** The same edit; of two siblings with one rank, the one that the edit puts comes behind the other. */
    public static Edit apart(Model head, Edit edit) {
        List<Element> clashing = edit.put().stream()
                .filter(element -> isNewThere(head, element) && isTaken(head, element, edit))
                .sorted(Comparator.comparing(Element::rank))
                .toList();
        if (clashing.isEmpty()) {
            return edit;
        }
        Map<ElementId, Element> placed = new HashMap<>();
        Map<Optional<ElementId>, NavigableSet<Rank>> taken = new HashMap<>();
        for (Element element : clashing) {
            NavigableSet<Rank> ranks = taken.computeIfAbsent(
                    Optional.ofNullable(element.owner()), owner -> taken(head, owner.orElse(null), edit));
            Rank rank = Rank.between(element.rank(), ranks.higher(element.rank()));
            ranks.add(rank);
            placed.put(element.id(), element.withOwner(element.owner(), rank));
        }
        List<Element> put = new ArrayList<>();
        edit.put().forEach(element -> put.add(placed.getOrDefault(element.id(), element)));
        return new Edit(put, edit.remove());
    }

    private static boolean isNewThere(Model head, Element element) {
        return head.find(element.id())
                .filter(known -> Objects.equals(known.owner(), element.owner())
                        && known.rank().equals(element.rank()))
                .isEmpty();
    }

    private static boolean isTaken(Model head, Element element, Edit edit) {
        List<Element> siblings = siblings(head, element.owner());
        int low = 0;
        int high = siblings.size();
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (siblings.get(middle).rank().compareTo(element.rank()) < 0) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        for (int i = low; i < siblings.size() && siblings.get(i).rank().equals(element.rank()); i++) {
            ElementId id = siblings.get(i).id();
            if (!id.equals(element.id()) && !edit.remove().contains(id) && !isPut(edit, id)) {
                return true;
            }
        }
        return false;
    }

    private static boolean isPut(Edit edit, ElementId id) {
        return edit.put().stream().anyMatch(element -> element.id().equals(id));
    }

    private static NavigableSet<Rank> taken(Model head, @Nullable ElementId owner, Edit edit) {
        NavigableSet<Rank> ranks = new TreeSet<>();
        siblings(head, owner).forEach(sibling -> ranks.add(sibling.rank()));
        edit.put().stream()
                .filter(element -> Objects.equals(element.owner(), owner))
                .forEach(element -> ranks.add(element.rank()));
        return ranks;
    }

    private static List<Element> siblings(Model head, @Nullable ElementId owner) {
        return owner == null ? head.ownRoots() : head.has(owner) ? head.children(owner) : List.of();
    }
}
