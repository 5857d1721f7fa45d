package pyrite.core.story;

import java.util.Objects;
import pyrite.core.behavior.StepGraph.Succession;
import pyrite.core.expression.Expression;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** What a story says in words: the documentation of steps and of what their conditions name, else the notation. */
final class StoryTexts {
    private final Model model;

    StoryTexts(Model model) {
        this.model = model;
    }

    String of(Element step) {
        String text = documentation(step);
        if (!text.isEmpty()) {
            return text;
        }
        return step.kind() == ElementKind.ACTION || step.kind() == ElementKind.USE_CASE
                ? Objects.requireNonNullElse(
                        model.names().effectiveName(step), step.kind().title())
                : NotationWriter.head(model, step).replaceFirst("^then ", "");
    }

    String documentation(Element step) {
        return model.inheritance().documentation(step).strip();
    }

    /** The words for a condition; empty if it says nothing but that there is one. */
    String condition(Succession succession) {
        if (succession.guard() == null) {
            return "";
        }
        if (succession.guard() instanceof Expression.FeatureReference feature
                && feature.chain().size() == 1
                && feature.chain().getFirst() instanceof ElementId id
                && model.find(id).isPresent()) {
            String text = documentation(model.get(id));
            return !text.isEmpty() || StoryEditing.isProposedCondition(model.get(id))
                    ? text
                    : Objects.requireNonNullElse(model.names().effectiveName(model.get(id)), "");
        }
        return NotationWriter.expression(
                model, succession.guard(), succession.carrier().id());
    }
}
