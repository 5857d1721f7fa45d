package pyrite.core.trace;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.specification.Specification;

/**
 * Removes elements with all they own, and the links that lead to them from elsewhere.
 *
 * @param requirements the number of removed requirements
 * @param links the removed links that join a removed element with a remaining one
 */
public record Removal(Edit edit, String summary, int requirements, List<Link> links) {

    public static Removal of(Model model, Collection<Element> tops) {
        Set<ElementId> removed = new HashSet<>();
        tops.forEach(top -> model.subtree(top.id()).forEach(each -> removed.add(each.id())));
        Links links = Links.in(model);
        Set<Link> cut = new LinkedHashSet<>();
        removed.forEach(id -> links.of(id).stream()
                .filter(link -> !removed.contains(link.source()) || !removed.contains(link.target()))
                .forEach(cut::add));
        List<Link> fromOutside =
                cut.stream().filter(link -> !removed.contains(link.carrier())).toList();
        Edit unlinked = new Linking(model).remove(fromOutside);
        Set<ElementId> remove = new LinkedHashSet<>(unlinked.remove());
        tops.forEach(top -> remove.add(top.id()));
        int requirements = (int) removed.stream()
                .map(model::get)
                .filter(Specification::isRequirement)
                .count();
        return new Removal(
                new Edit(unlinked.put(), remove),
                summary(model, tops, requirements, cut.size()),
                requirements,
                List.copyOf(cut));
    }

    private static String summary(Model model, Collection<Element> tops, int requirements, int links) {
        LinkRules.Labelled names = new LinkRules.Labelled(model);
        List<String> with = new ArrayList<>();
        boolean onlyItself =
                tops.size() == 1 && Specification.isRequirement(tops.iterator().next());
        if (requirements > (onlyItself ? 1 : 0)) {
            with.add(counted(requirements - (onlyItself ? 1 : 0), "requirement"));
        }
        if (links > 0) {
            with.add(counted(links, "link"));
        }
        String what = tops.size() == 1 ? names.of(tops.iterator().next()) : tops.size() + " rows";
        return what + " removed" + (with.isEmpty() ? "" : " with " + String.join(" and ", with));
    }

    private static String counted(int count, String noun) {
        return count + " " + noun + (count == 1 ? "" : "s");
    }
}
