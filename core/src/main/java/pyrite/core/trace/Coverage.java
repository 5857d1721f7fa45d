package pyrite.core.trace;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Predicate;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.specification.Specification;

/**
 * How far requirements are covered, per specification, and the gaps: links that rules expect, requirements that nothing
 * above asks for, and trace chains that break.
 */
public record Coverage(List<Row> rows, List<Gap> gaps, List<Element> unasked, List<Broken> broken) {
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
            List<Row> rows = Specification.all(model).stream().map(this::row).toList();
            return new Coverage(rows, List.copyOf(gaps), List.copyOf(unasked), List.copyOf(broken));
        }

        private Row row(Specification specification) {
            int[] counts = new int[6];
            List<Element> requirements = specification.requirements(model);
            for (Element requirement : requirements) {
                ElementId id = requirement.id();
                List<Link> links = graph.of(id);
                Set<String> known = rules.words(requirement);
                boolean asked = has(links, id, true, Builder::isDerivation);
                counts[0]++;
                counts[1] += asked ? 1 : 0;
                counts[2] += has(links, id, false, Builder::isDerivation) ? 1 : 0;
                counts[3] += isCarried(id) ? 1 : 0;
                counts[4] +=
                        has(links, id, false, link -> link.kind().is(LinkKind.VERIFY)) || verdicts.isJudged(id) ? 1 : 0;
                counts[5] += verdicts.passes(id) ? 1 : 0;
                for (Expected each : expected.computeIfAbsent(known, this::expectedOf)) {
                    gap(requirement, links, each);
                }
                if (isLower(requirement, known)) {
                    if (!asked) {
                        unasked.add(requirement);
                    } else if (!arrives(id)) {
                        broken.add(new Broken(requirement, endOfTheWayUp(id)));
                    }
                }
            }
            Set<String> words =
                    requirements.stream().findFirst().map(rules::words).orElse(Set.of());
            return new Row(
                    specification,
                    counts[0],
                    counts[1] > 0 || isEnd(words, true) ? counts[1] : -1,
                    counts[2] > 0 || isEnd(words, false) ? counts[2] : -1,
                    counts[3],
                    counts[4],
                    counts[5]);
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
