package pyrite.app.recheck;

import org.jspecify.annotations.Nullable;
import pyrite.app.workspace.Query;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.trace.Agreements;
import pyrite.core.trace.RecheckRecord;

/**
 * Filters the links that need recheck; an empty or missing parameter does not restrict.
 *
 * @param kind of link
 * @param cause the property that changed
 * @param way {@code up} if the end above changed, {@code down} if the end below did
 * @param spec the specification of one of the ends, by the id of its package
 * @param of one of the ends, by its id
 * @param seen {@code kept} if the link was examined and left open, {@code new} if not
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
                && takes(
                        seen,
                        requested -> RecheckRecord.keptOpen(model, doubt).isPresent() == requested.equals("kept"));
    }

    private static boolean takes(@Nullable String requested, java.util.function.Predicate<String> holds) {
        return requested == null || requested.isEmpty() || holds.test(requested);
    }

    private static boolean isIn(Model model, ElementId end, String specification) {
        return model.owners(model.get(end)).stream()
                .anyMatch(owner -> owner.id().toString().equals(specification));
    }
}
