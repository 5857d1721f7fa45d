package pyrite.core.model;

import java.util.Comparator;
import java.util.Objects;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** The id people call a requirement by: as a rule a prefix, a hyphen and a number. */
public final class RequirementIds {
    private static final Pattern NUMBERED = Pattern.compile("(.*\\S)-(\\d{1,9})");

    /** MG-2 before MG-10; ids that are not numbered by their length and letters. */
    public static final Comparator<String> ORDER = Comparator.comparing((String id) -> parse(id).map(Numbered::prefix).orElse(""))
            .thenComparing(id -> parse(id).map(Numbered::number).orElse(0)).thenComparing(String::length).thenComparing(Comparator.naturalOrder());

    private RequirementIds() {
    }

    /** An id of a prefix and a number. */
    public record Numbered(String prefix, int number) {
        @Override
        public String toString() {
            return prefix + "-" + number;
        }
    }

    public static Optional<Numbered> parse(String id) {
        Matcher matcher = NUMBERED.matcher(id);
        return matcher.matches() ? Optional.of(new Numbered(matcher.group(1), Integer.parseInt(matcher.group(2)))) : Optional.empty();
    }

    /** The short name of a requirement, else that of the nearest definition it has one from, else its name. */
    public static String of(Model model, Element requirement) {
        if (requirement.shortName() != null) {
            return requirement.shortName();
        }
        return model.inheritance().generals(requirement).stream().map(Element::shortName).filter(Objects::nonNull).findFirst()
                .orElseGet(() -> Objects.requireNonNullElse(model.names().effectiveName(requirement), ""));
    }
}
