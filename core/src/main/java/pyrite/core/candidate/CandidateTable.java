package pyrite.core.candidate;

import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Instance;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.expression.Expression;
import pyrite.core.expression.FaultException;
import pyrite.core.expression.Span;
import pyrite.core.expression.Type;
import pyrite.core.model.DisplayUnit;
import pyrite.core.model.DisplayUnits;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.model.RequirementIds;
import pyrite.core.verification.Judgement;
import pyrite.core.verification.RequirementJudge;
import pyrite.core.verification.StaticJudgement;
import pyrite.core.verification.VerdictKind;

/**
 * The candidates for a part side by side: their values, how they weigh, and what the requirements say that read the
 * part, each judged in the model as it would be with the candidate.
 *
 * @param rows the role as it is without a candidate first
 * @param quantities numeric attributes by name, with the units their values are shown in
 * @param requirements on the part itself, and those around it that come out otherwise with another candidate; no run is
 *     needed
 * @param byRun requirements on the part itself that only a run can judge
 */
public record CandidateTable(
        List<Row> rows,
        Map<String, DisplayUnit> quantities,
        List<Criterion> criteria,
        List<Element> requirements,
        List<Element> byRun,
        Weighing weighing) {
    private static final int MOST_REQUIREMENTS = 300;

    public CandidateTable {
        rows = List.copyOf(rows);
        criteria = List.copyOf(criteria);
        requirements = List.copyOf(requirements);
        byRun = List.copyOf(byRun);
    }

    /**
     * One candidate, or the role without one.
     *
     * @param product null for the role
     * @param values by the names of the quantities, in their units; left out where there is none
     * @param verdicts the worst judgement by requirement
     * @param fault why it cannot take the role; empty if it can
     */
    public record Row(
            @Nullable Element product,
            String supplier,
            boolean isChosen,
            Map<String, Double> values,
            Map<ElementId, Judgement> verdicts,
            String fault) {
        /** How many of the requirements do not hold. */
        public long breached() {
            return verdicts.values().stream()
                    .filter(judgement -> judgement.verdict() != VerdictKind.PASS)
                    .count();
        }
    }

    /** The candidates alone, in the order in which they were weighed. */
    public List<Row> products() {
        return rows.stream().filter(row -> row.product() != null).toList();
    }

    /** @param part a part usage with a role */
    public static CandidateTable of(Model model, Element part) {
        return new Builder(model, part).build();
    }

    private static final class Builder {
        private final Model model;
        private final Element part;
        private final Element role;
        private final Map<String, DisplayUnit> quantities = new LinkedHashMap<>();
        private final Set<Element> requirements = new LinkedHashSet<>();

        Builder(Model model, Element part) {
            this.model = model;
            this.part = part;
            this.role = Candidates.role(model, part).orElseThrow();
        }

        CandidateTable build() {
            List<Element> candidates = Candidates.of(model, part);
            Element chosen = Candidates.chosen(model, part).orElse(null);
            collectQuantities(role);
            candidates.forEach(this::collectQuantities);
            List<Element> judged = judged();
            List<Row> rows = new ArrayList<>(List.of(row(null, chosen == null, judged)));
            candidates.forEach(candidate -> rows.add(row(candidate, candidate.equals(chosen), judged)));
            List<Criterion> criteria = Criterion.of(model, part).stream()
                    .filter(criterion -> quantities.containsKey(criterion.quantity()))
                    .toList();
            List<Element> own = RequirementJudge.satisfiedBy(model, Set.of(part.id()));
            List<Element> shown = judged.stream()
                    .filter(requirement -> own.contains(requirement)
                            ? rows.stream().anyMatch(row -> row.verdicts().containsKey(requirement.id()))
                            : isReached(rows, requirement))
                    .toList();
            return new CandidateTable(
                    rows,
                    quantities,
                    criteria,
                    shown,
                    own.stream()
                            .filter(requirement -> !shown.contains(requirement))
                            .toList(),
                    weighing(rows, criteria));
        }

        /** Whether a requirement on something around comes out otherwise with another candidate. */
        private static boolean isReached(List<Row> rows, Element requirement) {
            return rows.stream()
                            .map(row -> said(row.verdicts().get(requirement.id())))
                            .distinct()
                            .count()
                    > 1;
        }

        private static String said(@Nullable Judgement judgement) {
            return judgement == null ? "" : judgement.verdict() + " " + judgement.margin();
        }

        private static Weighing weighing(List<Row> rows, List<Criterion> criteria) {
            List<Row> products =
                    rows.stream().filter(row -> row.product() != null).toList();
            return Weighing.of(
                    criteria.stream()
                            .map(criterion -> new Weighing.Column(
                                    valuesOf(products, criterion), criterion.weight(), criterion.isMoreBetter()))
                            .toList(),
                    products.size());
        }

        private static List<@Nullable Double> valuesOf(List<Row> products, Criterion criterion) {
            List<@Nullable Double> values = new ArrayList<>();
            products.forEach(row -> values.add(row.values().get(criterion.quantity())));
            return values;
        }

        private void collectQuantities(Element definition) {
            DisplayUnits units = new DisplayUnits(model);
            attributes(definition)
                    .forEach((name, attribute) -> quantities.computeIfAbsent(name, _ -> units.of(attribute)));
        }

        private Map<String, Element> attributes(Element definition) {
            Map<String, Element> found = new LinkedHashMap<>();
            for (Element feature : model.inheritance().features(definition)) {
                String name =
                        feature.kind() == ElementKind.ATTRIBUTE ? model.names().effectiveName(feature) : null;
                if (name != null
                        && model.inheritance().value(feature).isPresent()
                        && model.environment().typeOf(feature.id()) instanceof Type.Number) {
                    found.putIfAbsent(name, feature);
                }
            }
            return found;
        }

        private Row row(@Nullable Element candidate, boolean isChosen, List<Element> judged) {
            Element product = Objects.requireNonNullElse(candidate, role);
            Map<String, Double> values = new LinkedHashMap<>();
            Flattening flattening = Flattening.asNeeded(model);
            try {
                Instance one = flattening.root(product);
                attributes(product)
                        .forEach((name, attribute) -> value(flattening, one, attribute)
                                .ifPresent(si -> values.put(
                                        name,
                                        Objects.requireNonNull(quantities.get(name))
                                                .unit()
                                                .fromSi(si))));
            } catch (ModelFault _) {
                // What cannot be built has no values; the trial says why.
            }
            String supplier = candidate == null ? "" : Candidates.supplier(model, candidate);
            EditResult trial = model.apply(
                    candidate == null
                            ? Candidates.takeBack(model, part)
                            : Candidates.choose(model, part, candidate, "a trial"));
            return switch (trial) {
                case EditResult.Refused(var problems) ->
                    new Row(
                            candidate,
                            supplier,
                            isChosen,
                            values,
                            Map.of(),
                            problems.getFirst().message());
                case EditResult.Applied(Model next, var _) ->
                    new Row(candidate, supplier, isChosen, values, verdicts(next, judged), "");
            };
        }

        private static Optional<Double> value(Flattening flattening, Instance one, Element attribute) {
            try {
                return flattening.constant(new Expression.FeatureReference(List.of(attribute.id()), Span.NONE), one);
            } catch (FaultException | ModelFault _) {
                return Optional.empty();
            }
        }

        private static Map<ElementId, Judgement> verdicts(Model next, List<Element> judged) {
            Map<ElementId, Judgement> verdicts = new LinkedHashMap<>();
            judged.forEach(requirement -> StaticJudgement.of(next, next.get(requirement.id())).judgements().stream()
                    .filter(judgement -> judgement.verdict() != VerdictKind.INCONCLUSIVE)
                    .min(Comparator.comparing(judgement -> judgement.verdict() == VerdictKind.PASS))
                    .ifPresent(worst -> verdicts.put(requirement.id(), worst)));
            return verdicts;
        }

        /** The requirements on the part and on what contains it whose verdict reads the part. */
        private List<Element> judged() {
            RequirementJudge.satisfiedBy(model, around()).stream()
                    .limit(MOST_REQUIREMENTS)
                    .filter(requirement -> StaticJudgement.of(model, requirement).read().stream()
                            .anyMatch(read -> read.hashes().containsKey(part.id())
                                    || read.hashes().containsKey(role.id())))
                    .forEach(requirements::add);
            return requirements.stream()
                    .sorted(Comparator.comparing(requirement -> RequirementIds.of(model, requirement)))
                    .toList();
        }

        /** The part, what contains it, and the uses of that, up to the top. */
        private Set<ElementId> around() {
            Set<ElementId> around = new LinkedHashSet<>();
            Deque<Element> open = new ArrayDeque<>(List.of(part));
            while (!open.isEmpty()) {
                Element at = open.poll();
                if (around.add(at.id())) {
                    Stream.ofNullable(at.owner())
                            .map(model::get)
                            .filter(owner -> !owner.kind().isPackage())
                            .forEach(open::add);
                    model.referrers(at.id()).stream()
                            .map(model::get)
                            .filter(user -> user.kind() == ElementKind.PART
                                    && Stream.of(Property.TYPES, Property.REDEFINES)
                                            .flatMap(property -> user.references(property).stream())
                                            .anyMatch(reference ->
                                                    reference.target().equals(at.id())))
                            .forEach(open::add);
                }
            }
            return around;
        }
    }
}
