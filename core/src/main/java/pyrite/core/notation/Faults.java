package pyrite.core.notation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.IdentityHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Span;

/**
 * What is wrong in some texts, collected by several threads. What is said about a fault may take long to find, such as
 * the name that comes nearest to one that is not there; so it is found for those alone that are told.
 */
final class Faults {
    /** Of more faults than these people read none. */
    private static final int MOST_TOLD = 500;

    private final List<Fault> all = new ArrayList<>();

    /** Takes a fault of one text: where, and what to say about it. */
    interface Report {
        void fault(Span span, Supplier<String> message);
    }

    private record Fault(@Nullable Source source, Span span, Supplier<String> message) {
        String name() {
            return source == null ? "model" : source.name();
        }
    }

    /** @param source the text; null for what is in none of them */
    synchronized void add(@Nullable Source source, Span span, Supplier<String> message) {
        all.add(new Fault(source, span, message));
    }

    boolean isEmpty() {
        return all.isEmpty();
    }

    /** The first of them in the order of the texts, each once. */
    List<TextProblem> reported() {
        all.sort(Comparator.comparing(Fault::name)
                .thenComparingInt(fault -> fault.span().start()));
        Map<Source, LineIndex> lines = new IdentityHashMap<>();
        return all.stream()
                .map(fault -> fault.source() == null
                        ? new TextProblem(
                                fault.name(), 1, 1, Span.NONE, fault.message().get())
                        : lines.computeIfAbsent(fault.source(), LineIndex::new)
                                .problem(fault.span(), fault.message().get()))
                .distinct()
                .limit(MOST_TOLD)
                .toList();
    }
}
