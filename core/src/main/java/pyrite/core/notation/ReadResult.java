package pyrite.core.notation;

import java.util.Collections;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Span;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.model.Problem;

/**
 * The result of reading texts: the edit and the model after it, or all problems in the order of the text and the model
 * before it.
 *
 * @param read the elements read, owners first, also if there are problems
 * @param hints what is right and may be meant otherwise
 */
public record ReadResult(
        Model model,
        Edit edit,
        List<Element> read,
        Map<ElementId, ? extends Place> places,
        List<TextProblem> problems,
        List<TextProblem> hints) {

    /** The place of an element: its text, and the characters of its declaration's head. */
    public interface Place {
        Source source();

        Span span();
    }

    public ReadResult {
        read = List.copyOf(read);
        places = Collections.unmodifiableMap(places);
        problems = List.copyOf(problems);
        hints = List.copyOf(hints);
    }

    public boolean isGood() {
        return problems.isEmpty();
    }

    /** A problem of the model as a place in the text that was read; null if its element was not in the text. */
    public static @Nullable TextProblem locate(Problem problem, Map<ElementId, ? extends Place> places) {
        Place place = places.get(problem.element());
        if (place == null) {
            return null;
        }
        return place.source().problem(span(problem, place), problem.message());
    }

    static Span span(Problem problem, Place place) {
        return problem.span().end() > 0 ? problem.span() : place.span();
    }
}
