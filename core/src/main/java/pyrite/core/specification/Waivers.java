package pyrite.core.specification;

import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/** Findings that somebody has examined and accepted, with the reason. */
public final class Waivers {
    private Waivers() {}

    /** The reasons by the key of the finding. */
    public static Map<String, String> of(Model model, Element element) {
        Map<String, String> waived = new LinkedHashMap<>();
        Metadata.allOf(model, element, Metadata.WAIVER)
                .forEach(each ->
                        waived.put(Metadata.text(model, each, "finding"), Metadata.text(model, each, "reason")));
        return waived;
    }

    /** Waives what was found at an element, or brings the finding back if the reason is empty. */
    public static Edit put(Model model, Element element, String key, String reason) {
        Set<pyrite.core.model.ElementId> old = new HashSet<>();
        Metadata.allOf(model, element, Metadata.WAIVER).stream()
                .filter(each -> Metadata.text(model, each, "finding").equals(key))
                .forEach(each -> old.add(each.id()));
        if (reason.isBlank()) {
            return new Edit(List.of(), old);
        }
        Element waiver = Element.of(ElementKind.METADATA, element.id(), model.rankAtEnd(element.id()), null)
                .with(Property.TYPES, List.of(Reference.to(Metadata.WAIVER)));
        List<Rank> ranks = Rank.after(null, 2);
        return new Edit(
                List.of(
                        waiver,
                        Metadata.text(model, waiver, "finding", key, ranks.get(0)),
                        Metadata.text(model, waiver, "reason", reason.strip(), ranks.get(1))),
                old);
    }
}
