package pyrite.app.recheck;

import org.jspecify.annotations.Nullable;
import pyrite.app.workspace.Query;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.trace.Agreements;
import pyrite.core.trace.RecheckRecord;

/**
 * Which of the links that need recheck are asked for; what is empty or missing asks nothing.
 *
 * @param kind of link
 * @param cause the property that changed
 * @param way {@code up} where what the link comes from changed, {@code down} where what realises it did
 * @param spec the specification that one of the ends stands in, by the id of its package
 * @param of one of the ends, by its id
 * @param seen {@code kept} where somebody looked and left the link open, {@code new} where nobody did
 */
public record RecheckFilter(
        @Nullable String kind,
        @Nullable String cause,
        @Nullable String way,
        @Nullable String spec,
        @Nullable String of,
        @Nullable String seen) {

    /** What a view asks that was kept from the page. */
    public static RecheckFilter of(Query query) {
        return new RecheckFilter(
                query.first("kind"),
                query.first("cause"),
                query.first("way"),
                query.first("spec"),
                query.first("of"),
                query.first("seen"));
    }

    public boolean takes(Model model, Agreements.Doubt doubt) {
        return takes(kind, doubt.link().kind().key()::equals)
                && takes(
                        cause,
                        requested -> doubt.changes().stream()
                                .anyMatch(change -> change.property().equals(requested)))
                && takes(
                        way,
                        requested -> doubt.isAbout(
                                requested.equals("up")
                                        ? doubt.link().above()
                                        : doubt.link().below()))
                && takes(
                        spec,
                        requested -> isIn(model, doubt.link().source(), requested)
                                || isIn(model, doubt.link().target(), requested))
                && takes(
                        of,
                        requested -> doubt.link().source().toString().equals(requested)
                                || doubt.link().target().toString().equals(requested))
                && takes(seen, requested -> RecheckRecord.keptOpen(model, doubt).isPresent() == requested.equals("kept"));
    }

    private static boolean takes(@Nullable String requested, java.util.function.Predicate<String> holds) {
        return requested == null || requested.isEmpty() || holds.test(requested);
    }

    private static boolean isIn(Model model, ElementId end, String specification) {
        return model.owners(model.get(end)).stream()
                .anyMatch(owner -> owner.id().toString().equals(specification));
    }
}
