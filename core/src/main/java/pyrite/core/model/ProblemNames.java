package pyrite.core.model;

import java.util.Objects;

/** What elements are called in the messages about them. */
final class ProblemNames {
    private final Model model;

    ProblemNames(Model model) {
        this.model = model;
    }

    /** The name in quotes, or {@code the part} for one without. */
    String of(Element element) {
        return model.names().effectiveName(element) == null ? plain(element) : "'" + plain(element) + "'";
    }

    /** The name without quotes. */
    String plain(Element element) {
        return Objects.requireNonNullElseGet(
                model.names().effectiveName(element),
                () -> "the " + element.kind().title());
    }
}
