package pyrite.core.specification;

import java.util.List;
import java.util.Set;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.Rank;
import pyrite.core.model.Reference;

/**
 * Something outside the model that an element comes from or leads to.
 *
 * @param element the metadata that states the reference
 * @param address of a web page or mailbox, or of a file kept with the project
 * @param incoming whether the element comes from it
 */
public record ExternalReference(Element element, String address, String description, boolean incoming) {
    /** What addresses of files begin with that are kept with the project. */
    public static final String FILES = "attachments/";

    public static List<ExternalReference> of(Model model, Element carrier) {
        return Metadata.allOf(model, carrier, Metadata.REFERENCE).stream()
                .map(each -> new ExternalReference(
                        each,
                        Metadata.text(model, each, "address"),
                        Metadata.text(model, each, "description"),
                        Metadata.truth(model, each, "isIncoming")))
                .toList();
    }

    /** Whether a page may offer to go there: the model may have been written elsewhere. */
    public boolean isSafe() {
        return isFile() || SafeAddress.isAllowed(address);
    }

    public boolean isFile() {
        return address.matches(FILES + "[0-9a-f-]{36}");
    }

    /** @throws IllegalArgumentException if the address is none a model may lead to */
    public static Edit add(Model model, Element carrier, String address, String description, boolean incoming) {
        String requested = address.strip();
        if (!SafeAddress.isAllowed(requested) && !requested.startsWith(FILES)) {
            throw new IllegalArgumentException("'" + requested
                    + "' is no address to refer to; one begins with http://, https:// or mailto:, for "
                    + "instance https://harbour.example/port-rules");
        }
        Element reference = Element.of(ElementKind.METADATA, carrier.id(), model.rankAtEnd(carrier.id()), null)
                .with(Property.TYPES, List.of(Reference.to(Metadata.REFERENCE)));
        List<Rank> ranks = Rank.after(null, 3);
        return new Edit(
                List.of(
                        reference,
                        Metadata.text(model, reference, "address", requested, ranks.get(0)),
                        Metadata.text(model, reference, "description", description.strip(), ranks.get(1)),
                        Metadata.truth(model, reference, "isIncoming", incoming, ranks.get(2))),
                Set.of());
    }
}
