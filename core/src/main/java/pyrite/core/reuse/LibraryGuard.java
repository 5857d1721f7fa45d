package pyrite.core.reuse;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import pyrite.core.model.Difference;
import pyrite.core.model.Element;
import pyrite.core.model.ElementChange;
import pyrite.core.model.Model;
import pyrite.core.model.Problem;

/** What comes from another project is not edited here; it is taken, moved to another baseline or left as a whole. */
public final class LibraryGuard {
    private static final int MOST = 20;

    private LibraryGuard() {}

    public static List<Problem> check(Model before, Model after, Difference difference) {
        if (UsedLibrary.all(before).isEmpty()) {
            return List.of();
        }
        List<Problem> problems = new ArrayList<>();
        for (ElementChange change : difference.changes()) {
            held(before, after, change)
                    .ifPresent(
                            library -> problems.add(
                                    Problem.of(
                                            Objects.requireNonNull(
                                                    change.after() == null ? change.before() : change.after()),
                                            "it belongs to " + library.top().name() + " of "
                                                    + library.pin().projectName() + " at "
                                                    + library.pin().baseline()
                                                    + "; change it in that project and move to a newer baseline, or specialise it here")));
            if (problems.size() == MOST) {
                break;
            }
        }
        return problems;
    }

    /** The library that a change is made in; none if the change is part of its move. */
    private static Optional<UsedLibrary> held(Model before, Model after, ElementChange change) {
        UsedLibrary was = around(before, change.before());
        UsedLibrary is = around(after, change.after());
        UsedLibrary library = was == null ? is : was;
        if (library == null) {
            return Optional.empty();
        }
        Optional<UsedLibrary> then = before.find(library.top().id()).flatMap(top -> UsedLibrary.of(before, top));
        Optional<UsedLibrary> now = after.find(library.top().id()).flatMap(top -> UsedLibrary.of(after, top));
        boolean isOfMark = isOf(change.before(), then) || isOf(change.after(), now);
        return then.isPresent()
                        && now.isPresent()
                        && then.get().pin().equals(now.get().pin())
                        && !isOfMark
                ? then
                : Optional.empty();
    }

    private static @Nullable UsedLibrary around(Model model, @Nullable Element element) {
        return element == null ? null : UsedLibrary.around(model, element).orElse(null);
    }

    private static boolean isOf(@Nullable Element element, Optional<UsedLibrary> library) {
        return element != null
                && library.isPresent()
                && library.get().mark().id().equals(element.owner());
    }
}
