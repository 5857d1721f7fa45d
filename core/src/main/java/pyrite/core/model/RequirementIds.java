package pyrite.core.model;

/** The id people call a requirement by. */
public final class RequirementIds {
    private RequirementIds() {
    }

    /** The short name of a requirement, else that of the nearest definition it has one from, else its name. */
    public static String of(Model model, Element requirement) {
        return model.inheritance().generals(requirement).stream().map(Element::shortName)
                .filter(java.util.Objects::nonNull).findFirst()
                .orElseGet(() -> java.util.Objects.requireNonNullElse(model.names().effectiveName(requirement), ""));
    }
}
