package pyrite.core.trace;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.specification.Specification;

/** What tables, matrices, coverage and impact answer; the answers are counted by hand in {@link Harbour}. */
class QuestionsTest {
    private final Model model = Harbour.model();
    private final TraceGraph graph = TraceGraph.of(model);

    @Test
    void coverageCountsBySpecification() {
        List<Coverage.Row> rows =
                Coverage.of(graph, Coverage.VerdictLookup.NOTHING_JUDGED).rows();
        assertThat(rows).extracting(row -> row.specification().prefix()).containsExactly("N", "S", "D");
        // Two needs of which one is answered; nothing above is expected of them; one of its two answers is not carried
        // by the design.
        assertThat(rows.get(0))
                .extracting(Coverage.Row::all, Coverage.Row::asked, Coverage.Row::derived, Coverage.Row::satisfied)
                .containsExactly(2, -1, 1, 0);
        // S-1 and S-2 are asked; S-1 and S-3 are derived; S-1 is carried through D-1 by the drive, and verified.
        assertThat(rows.get(1))
                .extracting(
                        Coverage.Row::all,
                        Coverage.Row::asked,
                        Coverage.Row::derived,
                        Coverage.Row::satisfied,
                        Coverage.Row::verified)
                .containsExactly(3, 2, 2, 1, 1);
        assertThat(rows.get(2))
                .extracting(Coverage.Row::all, Coverage.Row::asked, Coverage.Row::derived, Coverage.Row::satisfied)
                .containsExactly(2, 2, -1, 1);
    }

    @Test
    void coverageNamesGapsTheUnaskedAndWhereChainsBreak() {
        Coverage coverage = Coverage.of(graph, Coverage.VerdictLookup.NOTHING_JUDGED);
        assertThat(coverage.gaps())
                .extracting(gap -> new LinkRules.Labelled(model).of(gap.element()) + " " + gap.words())
                .containsExactly("N-2 answered by", "S-2 derived into", "S-3 answers");
        assertThat(Harbour.ids(model, coverage.unasked())).containsExactly("S-3");
        assertThat(coverage.broken()).singleElement().satisfies(broken -> {
            assertThat(broken.element().shortName()).isEqualTo("D-2");
            assertThat(broken.at().shortName()).isEqualTo("S-3");
        });
    }

    private List<String> rows(String set, String... columns) {
        TraceTable table = new TraceTable(
                List.of(columns).stream().map(TraceTable.Column::parse).toList());
        List<Element> start = Specification.all(model).stream()
                .filter(each -> each.prefix().equals(set))
                .findFirst()
                .orElseThrow()
                .requirements(model);
        return table.kept(graph, start).stream()
                .map(each -> table.row(graph, each))
                .map(row -> row.start().shortName()
                        + row.cells().stream()
                                .map(cell -> " | "
                                        + String.join(
                                                " ",
                                                cell.stream()
                                                        .map(id -> new LinkRules.Labelled(model).of(model.get(id)))
                                                        .sorted()
                                                        .toList()))
                                .reduce("", String::concat))
                .toList();
    }

    @Test
    void pathColumnsWalkLinksOverSeveralLevels() {
        assertThat(rows("N", "frame<", "frame<;derive<", "frame<;derive<;satisfy<"))
                .containsExactly("N-1 | S-1 S-2 | D-1 | drive", "N-2 |  |  | ");
        assertThat(rows("D", "derive>;frame>")).containsExactly("D-1 | N-1", "D-2 | ");
    }

    @Test
    void rowsAreKeptByWhatAColumnFinds() {
        assertThat(rows("N", "frame<||with")).containsExactly("N-1 | S-1 S-2");
        assertThat(rows("N", "frame<||without")).containsExactly("N-2 | ");
        assertThat(rows("N", "frame<||fewer2")).containsExactly("N-2 | ");
        assertThat(rows("N", "frame<||fewer3")).hasSize(2);
    }

    @Test
    void aStepMayBeRepeatedAndIsWrittenAsItIsRead() {
        Model chain = pyrite.core.Models.of("""
                private import Tracing::*;
                requirement <'A'> a; requirement <'B'> b { #derive dependency b to a; } requirement <'C'> \
                c { #derive dependency c to b; }""");
        TraceTable.Column all = TraceTable.Column.parse("derive<*");
        assertThat(all.from(TraceGraph.of(chain), Harbour.id(chain, "A").id())).hasSize(2);
        assertThat(TraceTable.Column.parse("derive<")
                        .from(TraceGraph.of(chain), Harbour.id(chain, "A").id()))
                .hasSize(1);
        assertThat(all.steps()).extracting(TraceTable.Step::toString).containsExactly("derive<*");
        assertThatThrownBy(() -> TraceTable.Column.parse("derive"))
                .hasMessageContaining("a kind of link and its direction");
        assertThatThrownBy(() -> TraceTable.Column.parse("derive<x")).hasMessageContaining("'x' is no depth");
    }

    @Test
    void aMatrixTellsDirectFromImplied() {
        List<Element> needs = List.of(Harbour.id(model, "N-1"), Harbour.id(model, "N-2"));
        Matrix direct =
                Matrix.of(graph, List.of(Harbour.id(model, "S-1"), Harbour.id(model, "D-1")), needs, "frame", true);
        assertThat(direct.cells().get(0)).isEqualTo(new Matrix.Cells(List.of(0), List.of(), List.of()));
        assertThat(direct.cells().get(1)).isEqualTo(new Matrix.Cells(List.of(), List.of(), List.of(0)));
        assertThat(Matrix.of(graph, needs, List.of(Harbour.id(model, "S-2")), "frame", false)
                        .cells()
                        .get(0)
                        .in())
                .containsExactly(0);
    }

    @Test
    void impactReachesUpAndDownInLayers() {
        Impact impact = Impact.of(graph, List.of(Harbour.id(model, "S-1")), true, true, 2, Set.of());
        assertThat(impact.reached())
                .containsEntry(Harbour.id(model, "N-1").id(), -1)
                .containsEntry(Harbour.id(model, "D-1").id(), 1)
                .containsEntry(Harbour.named(model, "check").id(), 1)
                .containsEntry(Harbour.named(model, "drive").id(), 2)
                .doesNotContainKey(Harbour.id(model, "S-2").id());
        assertThat(Impact.of(graph, List.of(Harbour.id(model, "S-1")), false, true, 1, Set.of("derive"))
                        .reached())
                .hasSize(2);
        assertThat(impact.recheck())
                .extracting(link -> link.kind().key())
                .containsExactlyInAnyOrder("frame", "derive", "verify");
    }

    @Test
    void aColumnWithSeveralStepsTellsThroughWhatItLeads() {
        Model model = Harbour.model();
        TraceGraph graph = TraceGraph.of(model);
        TraceTable table = new TraceTable(List.of(TraceTable.Column.parse("frame<;derive<")));
        List<List<TraceRows.Cell>> rows =
                TraceRows.of(table, graph, Harbour.id(model, "N-1").id(), 12, 400);
        assertThat(rows).singleElement().satisfies(row -> {
            assertThat(row.getFirst().found()).isEqualTo(Harbour.id(model, "D-1"));
            assertThat(row.getFirst().through()).containsExactly(List.of(Harbour.id(model, "S-1")));
        });
    }

    /** Ten on each of eight levels, each derived from all above: a hundred million ways. */
    @Test
    void moreWaysThanAnybodyReadsAreLeftOutAndCounted() {
        StringBuilder text = new StringBuilder("package P { private import Tracing::*; ");
        for (int level = 0; level < 8; level++) {
            for (int i = 0; i < 10; i++) {
                text.append("requirement r%d%d;".formatted(level, i));
                for (int above = 0; above < 10 && level > 0; above++) {
                    text.append("#derive dependency r%d%d to r%d%d;".formatted(level, i, level - 1, above));
                }
            }
        }
        Model model = pyrite.core.Models.read(text.append('}').toString());
        List<TraceTable.Column> columns = new java.util.ArrayList<>();
        for (int steps = 1; steps < 8; steps++) {
            columns.add(TraceTable.Column.parse(String.join(";", java.util.Collections.nCopies(steps, "derive<"))));
        }
        List<List<TraceRows.Cell>> rows = TraceRows.of(
                new TraceTable(columns),
                TraceGraph.of(model),
                pyrite.core.Models.id(model, "P::r00"),
                Integer.MAX_VALUE,
                400);
        assertThat(rows.stream()
                        .flatMap(List::stream)
                        .filter(cell -> cell.found() != null)
                        .count())
                .isEqualTo(400);
        assertThat(TraceRows.leftOut(rows)).isPositive();
    }
}
