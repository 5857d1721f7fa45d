package pyrite.core.trace;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashSet;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import pyrite.core.Models;
import pyrite.core.Validates;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementId;
import pyrite.core.model.Model;
import pyrite.core.specification.Attributes;
import pyrite.core.specification.Specification;

/**
 * What questions about many links answer is what asking each element one by one would, in projects linked at random.
 */
@Validates(what = "coverage, impact and chains of links in random projects", against = "exhaustive search")
class QuestionsLawTest {
    private static final int EACH = 7;

    /** Three levels with links that the rules of the library allow, and parts that satisfy some. */
    private static Model linkedAtRandom(long seed) {
        Random random = new Random(seed);
        StringBuilder text = new StringBuilder("""
                package Needs { private import Specifications::*; @Specification { prefix = "N"; level = "need"; }
                """);
        each(i -> text.append("concern <'N-%d'> n%d { doc /* n */ }\n".formatted(i, i)));
        text.append("}\npackage System { private import Specifications::*; private import Needs::*; "
                + "@Specification { prefix = \"S\"; level = \"system\"; }\n");
        each(i -> text.append("requirement <'S-%d'> s%d { doc /* s */ %s }\n"
                .formatted(i, i, random.nextInt(3) > 0 ? "frame n" + random.nextInt(EACH) + ";" : "")));
        text.append("""
                }
                package Sub { private import Specifications::*; private import Tracing::*; private import System::*; \
                @Specification { prefix = "D"; level = "subsystem"; }
                """);
        each(i -> text.append("requirement <'D-%d'> d%d { doc /* d */ %s }\n"
                .formatted(
                        i,
                        i,
                        random.nextInt(4) > 0
                                ? "#derive dependency d%d to s%d, s%d;".formatted(i, random.nextInt(EACH), EACH - 1)
                                : "")));
        text.append("}\npackage Design { private import Sub::*;\n");
        each(i -> text.append("part p%d { %s }\n".formatted(i, random.nextBoolean() ? "satisfy d" + i + ";" : "")));
        return Models.read(text.append("}\n").toString());
    }

    private static void each(java.util.function.IntConsumer line) {
        IntStream.range(0, EACH).forEach(line);
    }

    private static List<Element> requirements(Model model) {
        return model.ownElements().stream().filter(Specification::isRequirement).toList();
    }

    @Property(tries = 60)
    void theGraphHasTheLinksThatItsElementsHave(@ForAll long seed) {
        Model model = linkedAtRandom(seed);
        Links one = Links.in(model);
        TraceGraph all = TraceGraph.of(model);
        requirements(model)
                .forEach(each -> assertThat(all.of(each.id())).containsExactlyInAnyOrderElementsOf(one.of(each)));
        assertThat(all.links())
                .isEqualTo(model.ownElements().stream()
                        .flatMap(each -> one.carriedBy(each).stream())
                        .collect(Collectors.toSet()))
                .hasSize(all.size());
        assertThat(all.links()).allMatch(LinkRules.in(model)::allows);
    }

    @Property(tries = 60)
    void coverageCountsWhatCanBeCounted(@ForAll long seed) {
        Model model = linkedAtRandom(seed);
        Links links = Links.in(model);
        Coverage coverage = Coverage.of(TraceGraph.of(model), new Coverage.VerdictLookup() {
            @Override
            public boolean isJudged(ElementId requirement) {
                return false;
            }

            @Override
            public boolean passes(ElementId requirement) {
                return model.get(requirement).shortName().endsWith("3");
            }
        });
        Coverage.Row system = coverage.rows().get(1);
        List<Element> all = system.specification().requirements(model);
        assertThat(system.all()).isEqualTo(EACH);
        assertThat(system.asked()).isEqualTo((int)
                all.stream().filter(each -> !links.up(each.id()).isEmpty()).count());
        assertThat(system.passing()).isEqualTo(1);
        assertThat(coverage.rows().get(2).satisfied()).isEqualTo((int)
                coverage.rows().get(2).specification().requirements(model).stream()
                        .filter(each -> links.down(each.id()).stream()
                                .anyMatch(link -> link.kind().equals(LinkKind.SATISFY)))
                        .count());
        assertThat(Set.copyOf(coverage.unasked()))
                .isEqualTo(requirements(model).stream()
                        .filter(each -> !each.shortName().startsWith("N")
                                && links.up(each.id()).isEmpty())
                        .collect(Collectors.toSet()));
        coverage.broken()
                .forEach(broken -> assertThat(links.up(broken.at().id())).isEmpty());
    }

    @Property(tries = 60)
    void aTableKeepsTheRowsWhoseCellsSaySo(@ForAll long seed) {
        Model model = linkedAtRandom(seed);
        TraceGraph graph = TraceGraph.of(model);
        List<Element> start = requirements(model);
        for (String keep : List.of("with", "without", "fewer2", "")) {
            TraceTable table = new TraceTable(
                    List.of(TraceTable.Column.parse("derive<||" + keep), TraceTable.Column.parse("frame>;frame<")));
            Set<Element> kept = new HashSet<>(table.kept(graph, start));
            for (Element each : start) {
                int found = table.row(graph, each).cells().getFirst().size();
                boolean requested = switch (keep) {
                    case "with" -> found > 0;
                    case "without" -> found == 0;
                    case "fewer2" -> found < 2;
                    default -> true;
                };
                assertThat(kept.contains(each)).isEqualTo(requested);
            }
        }
    }

    /** Against every chain of links, found one after the other. */
    @Property(tries = 60)
    void eachWayIsARowOfItsOwn(@ForAll long seed) {
        Model model = linkedAtRandom(seed);
        Links links = Links.in(model);
        TraceGraph graph = TraceGraph.of(model);
        TraceTable table =
                new TraceTable(List.of("frame<", "frame<;derive<", "derive<*", "frame<;derive<;satisfy<").stream()
                        .map(TraceTable.Column::parse)
                        .toList());
        for (Element need : requirements(model)) {
            List<List<TraceRows.Cell>> rows =
                    TraceRows.of(table, graph, need.id(), Integer.MAX_VALUE, Integer.MAX_VALUE);
            Set<List<Element>> found = TraceRows.filled(rows, 4).stream()
                    .map(row -> java.util.Arrays.asList(row.get(0), row.get(1), row.get(3)))
                    .filter(row -> row.get(0) != null)
                    .collect(Collectors.toSet());
            Set<List<Element>> expected = new HashSet<>();
            below(links, model, need, "frame").forEach(system -> {
                List<Element> derived = below(links, model, system, "derive");
                derived.forEach(sub -> {
                    List<Element> parts = below(links, model, sub, "satisfy");
                    parts.forEach(part -> expected.add(java.util.Arrays.asList(system, sub, part)));
                    if (parts.isEmpty()) {
                        expected.add(java.util.Arrays.asList(system, sub, null));
                    }
                });
                if (derived.isEmpty()) {
                    expected.add(java.util.Arrays.asList(system, null, null));
                }
            });
            assertThat(found).isEqualTo(expected);
            TraceTable.Row whole = table.row(graph, need);
            for (int column = 0; column < 4; column++) {
                int at = column;
                assertThat(rows.stream()
                                .flatMap(List::stream)
                                .filter(cell -> cell.column() == at && cell.found() != null)
                                .map(cell -> cell.found().id())
                                .collect(Collectors.toSet()))
                        .isEqualTo(Set.copyOf(whole.cells().get(at)));
            }
            int cellsInAll = rows.stream()
                    .flatMap(List::stream)
                    .mapToInt(TraceRows.Cell::span)
                    .sum();
            assertThat(cellsInAll).isEqualTo(4 * rows.size());
        }
    }

    private static List<Element> below(Links links, Model model, Element from, String kind) {
        return links.down(from.id()).stream()
                .filter(link -> link.kind().key().equals(kind))
                .map(link -> model.get(link.below()))
                .toList();
    }

    @Property(tries = 60)
    void whatIsReachedDownReachesUpAgain(@ForAll long seed) {
        Model model = linkedAtRandom(seed);
        TraceGraph graph = TraceGraph.of(model);
        Element need = Harbour.id(model, "N-0");
        Impact.of(graph, List.of(need), false, true, TraceTable.FARTHEST, Set.of())
                .reached()
                .forEach((id, far) -> assertThat(
                                Impact.of(graph, List.of(model.get(id)), true, false, TraceTable.FARTHEST, Set.of())
                                        .reached())
                        .containsEntry(need.id(), -far));
    }

    @Property(tries = 30)
    void whatFollowsFromASnapshotIsMadeOnceAndAnewAfterAnEdit(@ForAll long seed) {
        Model model = linkedAtRandom(seed);
        assertThat(TraceGraph.of(model)).isSameAs(TraceGraph.of(model));
        assertThat(Attributes.in(model)).isSameAs(Attributes.in(model));
        Model after = ((EditResult.Applied)
                        model.apply(Edit.put(Harbour.id(model, "N-0").withName("other"))))
                .model();
        assertThat(TraceGraph.of(after)).isNotSameAs(TraceGraph.of(model));
        assertThat(TraceGraph.of(after).links()).isEqualTo(TraceGraph.of(model).links());
    }
}
