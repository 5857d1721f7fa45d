package pyrite.core.trace;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Predicate;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.specification.Specification;

/**
 * How far requirements are covered, per specification, and the gaps: links that rules expect, requirements that nothing
 * above asks for, and trace chains that break.
 *
 * @param standings of every requirement and need, also of those that stand in no specification
 */
public record Coverage(
        Map<ElementId, Standing> standings,
        List<Row> rows,
        List<Gap> gaps,
        List<Element> unasked,
        List<Broken> broken) {
    /**
     * What counts of one requirement, wherever it is counted.
     *
     * @param asked traces to something above
     * @param unasked traces to nothing above, although rules let such as it come from something
     * @param derived is derived, refined or answered further down
     * @param satisfied is satisfied by the design, directly or through everything derived from it
     * @param verified is verified, by a case or by the model itself
     * @param passing has verdicts that all pass and are fresh
     */
    public record Standing(
            boolean asked, boolean unasked, boolean derived, boolean satisfied, boolean verified, boolean passing) {}

    /**
     * One specification in numbers of requirements.
     *
     * @param asked trace to something above; -1 where nothing above is expected
     * @param derived are derived, refined or answered further down; -1 where nothing below is expected
     * @param satisfied are satisfied by the design, directly or through everything derived from them
     * @param verified are verified, by a case or by the model itself
     * @param passing have verdicts that all pass and are fresh
     */
    public record Row(
            Specification specification, int all, int asked, int derived, int satisfied, int verified, int passing) {}

    /** A requirement with fewer links of a kind than its rule expects. */
    public record Gap(Element element, LinkKind kind, boolean outgoing, int there, int expected) {
        public String words() {
            return outgoing ? kind.forward() : kind.backward();
        }
    }

    /** A requirement that traces upward, but whose chain ends at {@code at} before a level where chains may end. */
    public record Broken(Element element, Element at) {}

    /** The verdict status of a requirement; both methods return false where there is no verdict. */
    public interface VerdictLookup {
        /** Where nothing was verified yet. */
        VerdictLookup NOTHING_JUDGED = new VerdictLookup() {
            @Override
            public boolean isJudged(ElementId requirement) {
                return false;
            }

            @Override
            public boolean passes(ElementId requirement) {
                return false;
            }
        };

        boolean isJudged(ElementId requirement);

        boolean passes(ElementId requirement);
    }

    public static Coverage of(TraceGraph graph, VerdictLookup verdicts) {
        return new Builder(graph, verdicts).build();
    }

    private static final class Builder {
        private final TraceGraph graph;
        private final Model model;
        private final LinkRules rules;
        private final VerdictLookup verdicts;
        private final List<Gap> gaps = new ArrayList<>();
        private final List<Element> unasked = new ArrayList<>();
        private final List<Broken> broken = new ArrayList<>();
        private final Map<ElementId, Boolean> carried = new HashMap<>();
        private final Map<ElementId, Boolean> arriving = new HashMap<>();
        // The words are the same object for all that are known by them.
        private final Map<Set<String>, Boolean> lower = new IdentityHashMap<>();
        private final Map<String, LinkKind> kinds = new LinkedHashMap<>();
        private final Map<Set<String>, List<Expected>> expected = new IdentityHashMap<>();

        /** The least number of links of a kind, out of or into a requirement. */
        private record Expected(LinkKind kind, boolean outgoing, int least) {}

        Builder(TraceGraph graph, VerdictLookup verdicts) {
            this.graph = graph;
            this.model = graph.model();
            this.rules = LinkRules.in(model);
            this.verdicts = verdicts;
            LinkKind.all(model).forEach(kind -> kinds.put(kind.key(), kind));
        }

        Coverage build() {
            Map<ElementId, Standing> standings = new HashMap<>();
            boolean anythingAsks =
                    model.ownElements(ElementKind.CONCERN).findAny().isPresent()
                            || graph.links().stream().anyMatch(Builder::isDerivation);
            model.ownElements(ElementKind.REQUIREMENTS)
                    .forEach(each -> standings.put(each.id(), standing(each, anythingAsks)));
            List<Row> rows = Specification.all(model).stream()
                    .map(specification -> row(specification, standings))
                    .toList();
            return new Coverage(
                    Map.copyOf(standings), rows, List.copyOf(gaps), List.copyOf(unasked), List.copyOf(broken));
        }

        private Standing standing(Element requirement, boolean anythingAsks) {
            ElementId id = requirement.id();
            List<Link> links = graph.of(id);
            boolean asked = has(links, id, true, Builder::isDerivation);
            return new Standing(
                    asked,
                    anythingAsks && !asked && isLower(requirement, rules.words(requirement)),
                    has(links, id, false, Builder::isDerivation),
                    isCarried(id),
                    has(links, id, false, link -> link.kind().is(LinkKind.VERIFY)) || verdicts.isJudged(id),
                    verdicts.passes(id));
        }

        private Row row(Specification specification, Map<ElementId, Standing> standings) {
            List<Element> requirements = specification.requirements(model);
            List<Standing> all = new ArrayList<>();
            for (Element requirement : requirements) {
                Standing standing = Objects.requireNonNull(standings.get(requirement.id()));
                all.add(standing);
                gaps(requirement, standing);
            }
            Set<String> words =
                    requirements.stream().findFirst().map(rules::words).orElse(Set.of());
            int asked = count(all, Standing::asked);
            int derived = count(all, Standing::derived);
            return new Row(
                    specification,
                    all.size(),
                    asked > 0 || isEnd(words, true) ? asked : -1,
                    derived > 0 || isEnd(words, false) ? derived : -1,
                    count(all, Standing::satisfied),
                    count(all, Standing::verified),
                    count(all, Standing::passing));
        }

        private static int count(List<Standing> all, Predicate<Standing> which) {
            return (int) all.stream().filter(which).count();
        }

        private void gaps(Element requirement, Standing standing) {
            ElementId id = requirement.id();
            Set<String> known = rules.words(requirement);
            for (Expected each : expected.computeIfAbsent(known, this::expectedOf)) {
                gap(requirement, graph.of(id), each);
            }
            if (standing.unasked()) {
                unasked.add(requirement);
            } else if (standing.asked() && isLower(requirement, known) && !arrives(id)) {
                broken.add(new Broken(requirement, endOfTheWayUp(id)));
            }
        }

        private static boolean has(List<Link> links, ElementId id, boolean up, Predicate<Link> which) {
            for (Link link : links) {
                if ((up ? link.below() : link.above()).equals(id) && which.test(link)) {
                    return true;
                }
            }
            return false;
        }

        /** Derivations, refinements and answers lead from requirement to requirement. */
        private static boolean isDerivation(Link link) {
            return link.kind().is(LinkKind.FRAME)
                    || link.kind().key().equals(LinkKind.DERIVE)
                    || link.kind().key().equals("refinement");
        }

        /** Whether the design satisfies it, or all that is derived from it. */
        private boolean isCarried(ElementId id) {
            Boolean known = carried.get(id);
            if (known != null) {
                return known;
            }
            carried.put(id, false);
            List<Link> links = graph.of(id);
            boolean satisfied = has(
                            links,
                            id,
                            false,
                            link -> link.kind().is(LinkKind.SATISFY)
                                    || link.kind().is(LinkKind.ALLOCATE))
                    || has(links, id, false, Builder::isDerivation)
                            && !has(links, id, false, link -> isDerivation(link) && !isCarried(link.below()));
            carried.put(id, satisfied);
            return satisfied;
        }

        /** Whether rules expect it to come from something. */
        private boolean isLower(Element requirement, Set<String> words) {
            return !requirement.kind().isNeed() && lower.computeIfAbsent(words, each -> isEnd(each, true));
        }

        /**
         * Whether rules let requirements known by these words answer or derive from something, or something from them.
         */
        private boolean isEnd(Set<String> words, boolean lower) {
            return rules.all().stream()
                    .filter(rule -> rule.kind().equals("frame") || rule.kind().equals(LinkKind.DERIVE))
                    .anyMatch(rule -> (lower ? rule.from() : rule.to()).stream().anyMatch(words::contains));
        }

        /** What rules expect of all requirements that are known by the same words. */
        private List<Expected> expectedOf(Set<String> words) {
            List<Expected> found = new ArrayList<>();
            for (LinkRule rule : rules.all()) {
                LinkKind kind = kinds.get(rule.kind());
                if (kind != null && rule.leastFrom() > 0 && rule.from().stream().anyMatch(words::contains)) {
                    found.add(new Expected(kind, true, rule.leastFrom()));
                }
                if (kind != null && rule.leastTo() > 0 && rule.to().stream().anyMatch(words::contains)) {
                    found.add(new Expected(kind, false, rule.leastTo()));
                }
            }
            return found;
        }

        private void gap(Element requirement, List<Link> links, Expected expected) {
            int there = 0;
            for (Link link : links) {
                there += link.kind().is(expected.kind())
                                && (expected.outgoing() ? link.source() : link.target()).equals(requirement.id())
                        ? 1
                        : 0;
            }
            boolean judged = expected.kind().equals(LinkKind.VERIFY) && verdicts.isJudged(requirement.id());
            boolean carriedBelow = expected.kind().equals(LinkKind.SATISFY) && isCarried(requirement.id());
            if (there < expected.least() && !judged && !carriedBelow) {
                gaps.add(new Gap(requirement, expected.kind(), expected.outgoing(), there, expected.least()));
            }
        }

        /** Where the longest way up ends. */
        private Element endOfTheWayUp(ElementId id) {
            Map<ElementId, Integer> above = graph.reach(List.of(id), true, Integer.MAX_VALUE, Builder::isDerivation);
            return model.get(above.keySet().stream().reduce(id, (_, b) -> b));
        }

        /** Whether some way up ends where ways may end. */
        private boolean arrives(ElementId id) {
            Boolean known = arriving.get(id);
            if (known != null) {
                return known;
            }
            arriving.put(id, false);
            Element requirement = model.get(id);
            boolean arrives = !isLower(requirement, rules.words(requirement))
                    || has(graph.of(id), id, true, link -> isDerivation(link) && arrives(link.above()));
            arriving.put(id, arrives);
            return arrives;
        }
    }
}
