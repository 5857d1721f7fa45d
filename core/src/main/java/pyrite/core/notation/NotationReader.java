package pyrite.core.notation;

import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import org.jspecify.annotations.Nullable;
import pyrite.core.expression.Expression;
import pyrite.core.expression.Span;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Problem;
import pyrite.core.model.Rank;
import pyrite.core.model.Redefinitions;
import pyrite.core.structure.Fit;

/**
 * Reads the textual notation in three steps: the text becomes drafts whose names are unresolved ({@link MemberParser}),
 * the names are resolved in the model that the text joins ({@link Resolver}), and the result is checked like any other
 * edit. All faults are reported; a text with a fault changes nothing.
 */
public final class NotationReader {
    static final int DEEPEST = 200;

    private NotationReader() {}

    /** Reads whole texts, packages at the top, into a model; the texts may refer to each other in any order. */
    public static ReadResult read(Model base, List<Source> sources) {
        return read(base, null, sources, DraftCompletion.Ids.RANDOM);
    }

    /**
     * Reads members, such as one line {@code part pump : Pump;}, as if they stood at the end of {@code owner}'s body;
     * null stands for the top of the model.
     */
    public static ReadResult readMembers(Model base, @Nullable ElementId owner, Source source) {
        return read(base, owner, List.of(source), DraftCompletion.Ids.RANDOM);
    }

    /** Reads an expression as if it stood in {@code scope}. The spans count in the given text. */
    public static ExpressionReading readExpression(Model model, @Nullable ElementId scope, String text) {
        Source source = new Source("", text);
        Faults faults = new Faults();
        try {
            Expression parsed = ExpressionParser.whole(Tokens.of(text));
            Expression resolved =
                    new Resolver(model).resolve(parsed, scope, (span, message) -> faults.add(source, span, message));
            return new ExpressionReading(faults.isEmpty() ? resolved : null, faults.reported());
        } catch (Cursor.SyntaxFault fault) {
            return new ExpressionReading(null, List.of(source.problem(fault.span(), fault.getMessage())));
        }
    }

    /** Parses an expression without resolving its names. Meant for text that Pyrite wrote itself. */
    static Expression parseExpression(String text) {
        try {
            return ExpressionParser.whole(Tokens.of(text));
        } catch (Cursor.SyntaxFault fault) {
            throw new IllegalArgumentException(fault.getMessage() + " in " + text, fault);
        }
    }

    /** An expression with its names resolved, or its problems. */
    public record ExpressionReading(@Nullable Expression expression, List<TextProblem> problems) {
        public ExpressionReading {
            problems = List.copyOf(problems);
        }
    }

    /**
     * Reads a text that was written from elements of a model and edited since: what is still there keeps its id through
     * renaming, moving and reordering, what is new is added, what is gone is removed. The edit holds nothing else, so
     * it also fits a model in which somebody changed other elements meanwhile.
     *
     * @param written what stood at the top of the text, all with the same owner
     */
    public static ReadResult readBack(Model base, List<Element> written, Source source) {
        Faults faults = new Faults();
        Identified identified = identified(base, written, source, faults);
        Set<ElementId> replaced = new HashSet<>();
        written.forEach(root -> base.subtree(root.id()).forEach(element -> replaced.add(element.id())));
        return finish(
                base, identified.completion(), replaced, identified.identity().removed(), faults);
    }

    /**
     * Where the elements of a text stand that was written from a model and edited since; quicker than reading it whole.
     */
    public static Map<ElementId, ? extends ReadResult.Place> placesIn(
            Model base, List<Element> written, Source source) {
        return identified(base, written, source, new Faults()).completion().byId();
    }

    /** A text whose elements are matched with those it was written from. */
    private record Identified(DraftCompletion completion, IdentityMatching identity) {}

    private static Identified identified(Model base, List<Element> written, Source source, Faults faults) {
        ElementId owner = written.isEmpty() ? null : written.getFirst().owner();
        Draft top = parse(base, owner, source, faults);
        IdentityMatching identity = IdentityMatching.of(base, written, top.children);
        DraftCompletion completion = new DraftCompletion(
                new DraftCompletion.Ids() {
                    @Override
                    public ElementId idOf(Draft draft, Rank rank) {
                        return ElementId.fresh();
                    }

                    @Override
                    public Optional<Element> elementOf(Draft draft) {
                        return identity.of(draft);
                    }
                },
                likely(source));
        completion.top(source, top.children, owner, base.rankAtEnd(owner), nextBehind(base, owner, written));
        return new Identified(completion, identity);
    }

    /** The place of the sibling behind the last of some elements. */
    private static @Nullable Rank nextBehind(Model base, @Nullable ElementId owner, List<Element> elements) {
        return elements.isEmpty()
                ? null
                : (owner == null ? base.roots() : base.children(owner))
                        .stream()
                                .map(Element::rank)
                                .filter(rank ->
                                        rank.compareTo(elements.getLast().rank()) > 0)
                                .findFirst()
                                .orElse(null);
    }

    static ReadResult read(Model base, @Nullable ElementId owner, List<Source> sources, DraftCompletion.Ids ids) {
        Faults faults = new Faults();
        List<Draft> tops = drafts(base, owner, sources, faults);
        DraftCompletion completion = new DraftCompletion(
                ids, sources.stream().mapToInt(NotationReader::likely).sum());
        Rank last = base.rankAtEnd(owner);
        for (int i = 0; i < sources.size(); i++) {
            List<Draft> members = tops.get(i).children;
            completion.top(sources.get(i), members, owner, last, null);
            last = members.isEmpty() ? last : members.getLast().element().rank();
        }
        return finish(base, completion, Set.of(), Set.of(), faults);
    }

    /**
     * Texts are parsed on their own, and so on all processors; what stands where is settled in their order. The library
     * is read on one, because that happens while classes are being initialised, for which several threads could wait in
     * a circle.
     */
    private static List<Draft> drafts(Model base, @Nullable ElementId owner, List<Source> sources, Faults faults) {
        boolean shared = sources.size() > 1 && base != Model.EMPTY;
        return (shared ? sources.parallelStream() : sources.stream())
                .map(source -> parse(base, owner, source, faults))
                .toList();
    }

    /**
     * About how many elements a text has, of some fifty characters each; only what is laid out for them depends on it.
     */
    private static int likely(Source source) {
        return source.text().length() / 50;
    }

    private static Draft parse(Model base, @Nullable ElementId owner, Source source, Faults faults) {
        Draft top = new Draft(topKind(base, owner), null);
        MemberParser parser =
                new MemberParser(Tokens.of(source.text()), (span, message) -> faults.add(source, span, () -> message));
        parser.file(top);
        parser.hints().forEach(hint -> faults.hint(source, hint.span(), hint.message()));
        return top;
    }

    private static ElementKind topKind(Model base, @Nullable ElementId owner) {
        return owner == null ? ElementKind.PACKAGE : base.get(owner).kind();
    }

    private static ReadResult finish(
            Model base, DraftCompletion completion, Set<ElementId> replaced, Set<ElementId> removed, Faults faults) {
        boolean syntaxHolds = faults.isEmpty();
        Set<ElementId> faulty = ConcurrentHashMap.newKeySet();
        List<Element> elements = new Resolver(base, completion, replaced).resolveAll((draft, span, message) -> {
            faulty.add(draft);
            faults.add(Objects.requireNonNull(completion.byId().get(draft)).source(), span, message);
        });
        Edit edit = replaced.isEmpty()
                ? new Edit(elements, removed)
                : Redefinitions.nearest(base, new Edit(changed(base, elements, removed), removed));
        Model model = base;
        List<Problem> wrong = List.of();
        if (!faults.isEmpty()) {
            wrong = Model.faultsAmong(base, elements, faulty);
        } else {
            switch (base.apply(removed.isEmpty() ? base.putting(edit.put()) : base.difference(edit))) {
                case EditResult.Applied(Model next, var _) -> model = next;
                case EditResult.Refused(List<Problem> refused) -> wrong = refused;
            }
        }
        wrong.forEach(problem -> {
            Draft place = completion.byId().get(problem.element());
            if (place != null && place.span().end() == 0 && !syntaxHolds) {
                // It broke off before it was whole; what it lacks follows from that.
                return;
            }
            faults.add(
                    place == null ? null : place.source(),
                    place == null ? Span.NONE : ReadResult.span(problem, place),
                    problem::message);
        });
        if (faults.isEmpty()) {
            misfits(model, elements, completion, faults);
        }
        return new ReadResult(
                model,
                faults.isEmpty() ? edit : new Edit(List.of(), Set.of()),
                syntaxHolds ? elements : List.of(),
                completion.byId(),
                faults.reported(),
                faults.hints());
    }

    /**
     * Connections of ports that do not fit are told and not refused: a text from elsewhere is read as it is, and its
     * ports may be mended next.
     */
    private static void misfits(Model model, List<Element> elements, DraftCompletion completion, Faults faults) {
        elements.stream()
                .filter(element -> element.kind() == ElementKind.CONNECTION || element.kind() == ElementKind.INTERFACE)
                .forEach(connector -> {
                    Draft place = Objects.requireNonNull(completion.byId().get(connector.id()));
                    Fit.of(model, model.get(connector.id()))
                            .forEach(misfit -> faults.hint(place.source(), place.span(), misfit.sentence()));
                });
    }

    /** What differs from the model; and what stays as it is but was owned by something that goes. */
    private static List<Element> changed(Model base, List<Element> elements, Set<ElementId> removed) {
        return elements.stream()
                .filter(element -> {
                    Element before = base.find(element.id()).orElse(null);
                    return before == null
                            || !element.equals(before)
                            || base.owners(before).stream().anyMatch(owner -> removed.contains(owner.id()));
                })
                .toList();
    }
}
