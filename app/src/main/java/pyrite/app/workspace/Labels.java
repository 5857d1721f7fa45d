package pyrite.app.workspace;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.verification.Wording;

/** The labels of elements and numbers on pages. */
public final class Labels {
    private final Model model;

    public Labels(Model model) {
        this.model = model;
    }

    /** The name; of what has none, its kind and what it stands in. */
    public String name(Element element) {
        String name = model.names().effectiveName(element);
        return name != null
                ? name
                : element.kind().title()
                        + owner(element).map(owner -> " of " + owner).orElse("");
    }

    public boolean isNamed(Element element) {
        return model.names().effectiveName(element) != null;
    }

    private Optional<String> owner(Element element) {
        return Optional.ofNullable(element.owner())
                .flatMap(model::find)
                .flatMap(owner -> Optional.ofNullable(
                        owner.kind().isRequirement() && owner.shortName() != null
                                ? owner.shortName()
                                : model.names().calledBy(owner)));
    }

    public String name(ElementId id) {
        return model.find(id).map(this::name).orElse("(removed)");
    }

    /** A requirement's id with its name, anything else by its name. */
    public String full(Element element) {
        String id = element.kind().isRequirement() ? RequirementIds.of(model, element) : "";
        String name = model.names().effectiveName(element);
        return id.isEmpty() ? name(element) : name == null || id.equals(name) ? id : id + " " + name;
    }

    /** As short as can be: a requirement's id, anything else by its name. */
    public String tag(Element element) {
        String id = element.kind().isRequirement() ? RequirementIds.of(model, element) : "";
        return id.isEmpty() ? name(element) : id;
    }

    /** With the owner before it, where the name alone says too little: {@code gate.drive}. */
    public String withOwner(Element element) {
        Element owner =
                element.owner() == null ? null : model.find(element.owner()).orElse(null);
        return owner == null || owner.kind().isPackage() ? full(element) : name(owner) + " · " + full(element);
    }

    public String withOwner(ElementId id) {
        return model.find(id).map(this::withOwner).orElseGet(() -> name(id));
    }

    public String family(Element element) {
        return element.kind().family().name().toLowerCase(Locale.ROOT);
    }

    /** The owners from the top down to just above the element. */
    public List<Element> path(Element element) {
        return model.owners(element).reversed();
    }

    public String number(double value) {
        return Wording.number(value);
    }

    public String instant(double t) {
        return Wording.instant(t);
    }

    /** A time in the unit of a whole that it is a part of. */
    public String span(double t, double whole) {
        return Wording.span(t, whole);
    }
}
