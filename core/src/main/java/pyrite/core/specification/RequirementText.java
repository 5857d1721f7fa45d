package pyrite.core.specification;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import pyrite.core.model.Element;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/**
 * The text of a requirement with the values of its formal side inserted: {@code {within}} stands for the value of the
 * requirement's attribute of that name, so a number is written once. A name that is not an attribute is left as it is.
 */
public final class RequirementText {
    private static final Pattern PLACE = Pattern.compile("\\{(\\p{Alpha}\\w*)}");
    private static final Pattern QUANTITY = Pattern.compile(" ?\\[([^\\[\\]]+)]");

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
                                .replaceAll(" $1")));
    }
}
