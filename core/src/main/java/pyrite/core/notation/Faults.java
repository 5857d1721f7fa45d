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
 * The faults of some texts, collected by several threads. The message of a fault may be expensive to compute, such as
 * the most similar known name, so it is computed only for the faults that are reported.
 */
final class Faults {
    /** Of more faults than these people read none. */
    private static final int MOST_TOLD = 500;

    private final List<Fault> all = new ArrayList<>();
    private final List<Fault> hints = new ArrayList<>();

    /** Receives a fault of one text: its place and a supplier of its message. */
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

    synchronized void hint(Source source, Span span, String message) {
        hints.add(new Fault(source, span, () -> message));
    }

    boolean isEmpty() {
        return all.isEmpty();
    }

    /** The first of them in the order of the texts, each once. */
    List<TextProblem> reported() {
        return located(all);
    }

    /** What is right and may be meant otherwise, in the order of the texts. */
    List<TextProblem> hints() {
        return located(hints);
    }

    private static List<TextProblem> located(List<Fault> all) {
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
