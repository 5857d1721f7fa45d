package pyrite.core.specification;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import pyrite.core.model.Element;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/**
 * What a requirement says, with the values it shares with its formal side put in: {@code {within}} in the text stands
 * for the value of the requirement's attribute of that name, so that the number is written once. A name that is no
 * attribute stays as it is.
 */
public final class RequirementText {
    private static final Pattern PLACE = Pattern.compile("\\{(\\p{Alpha}\\w*)}");
    private static final Pattern QUANTITY = Pattern.compile("(\\S.*?) ?\\[([^\\]]+)]");

    private RequirementText() {}

    public static String of(Model model, Element requirement) {
        String text = model.inheritance().documentation(requirement);
        return text.indexOf('{') < 0
                ? text
                : PLACE.matcher(text)
                        .replaceAll(place -> Matcher.quoteReplacement(
                                value(model, requirement, place.group(1)).orElse(place.group())));
    }

    private static Optional<String> value(Model model, Element requirement, String name) {
        return model.names()
                .member(requirement.id(), name)
                .map(model::get)
                .flatMap(feature -> model.inheritance()
                        .value(feature)
                        .map(FeatureValue::expression)
                        .map(expression -> QUANTITY.matcher(NotationWriter.expression(model, expression, feature.id()))
                                .replaceAll("$1 $2")));
    }
}
