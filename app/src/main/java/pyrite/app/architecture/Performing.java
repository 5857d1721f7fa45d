package pyrite.app.architecture;

import java.util.List;
import java.util.Optional;
import pyrite.core.function.FunctionTree;
import pyrite.core.function.PartTree;
import pyrite.core.function.Performers;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/**
 * The parts that perform a function, as its page shows them.
 *
 * @param whole what they are parts of
 */
public record Performing(Element whole, PartTree tree, List<PartTree.Part> parts) {
    /** Nothing for what is no function definition, or where there is no part to perform it. */
    public static Optional<Performing> of(Model model, Element function) {
        if (function.kind() != ElementKind.ACTION_DEFINITION || model.isLibrary(function.id())) {
            return Optional.empty();
        }
        return FunctionQuestion.wholes(model).stream().findFirst().map(whole -> {
            PartTree tree = PartTree.of(model, whole);
            return new Performing(
                    whole,
                    tree,
                    List.copyOf(Performers.of(model, tree)
                            .own(FunctionTree.of(model, function).top())));
        });
    }
}
