package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.trace.Impact;
import pyrite.core.trace.TraceGraph;

class ImpactViewTest {
    private static final String LONG =
            "The gate shall close before the water stands higher than the quay of the harbour.";
    private final Model model = Models.of("""
            private import Tracing::*;
            requirement <'S-1'> closes { doc /* %s */ }
            requirement <'D-1'> fast { doc /* Fast. */ #derive dependency fast to closes; }
            part def Drive;
            part drive : Drive;
            satisfy fast by drive;
            """.formatted(LONG));

    private Diagram of(String name, boolean up, boolean down) {
        Element from = Models.element(model, "Test::" + name);
        return ImpactView.of(model, Impact.of(TraceGraph.of(model), List.of(from), up, down, 5, Set.of()));
    }

    @Test
    void whatIsReachedStandsInBoxesWithTheWordsOfTheLinksBetween() {
        Diagram diagram = of("fast", true, true);
        assertThat(diagram.nodes()).extracting(Diagram.Node::title).containsExactly("D-1", "S-1", "drive");
        assertThat(diagram.nodes())
                .extracting(Diagram.Node::keyword)
                .containsExactly("requirement", "requirement", "part");
        assertThat(diagram.edges())
                .extracting(Diagram.Edge::label)
                .containsExactlyInAnyOrder("derives from", "satisfies");
        assertThat(diagram.edges())
                .allSatisfy(edge -> assertThat(edge.relation()).isEqualTo(Diagram.Relation.TRACE));
        assertThat(diagram.left()).isZero();
    }

    @Test
    void aLongTextIsCutAndAShortOneIsNot() {
        Diagram diagram = of("closes", false, true);
        assertThat(diagram.nodes())
                .extracting(node -> node.compartments().isEmpty()
                        ? ""
                        : node.compartments().getFirst().lines().getFirst().text())
                .satisfies(texts -> {
                    assertThat(texts.get(0)).endsWith("…").hasSizeLessThanOrEqualTo(44);
                    assertThat(LONG)
                            .startsWith(texts.get(0).substring(0, texts.get(0).length() - 1));
                    assertThat(texts.get(1)).isEqualTo("Fast.");
                    assertThat(texts.get(2)).isEmpty();
                });
    }

    /** A drawing of hundreds of boxes cannot be read; the nearest are shown and the others counted. */
    @Test
    void ofVeryManyTheNearestAreShown() {
        StringBuilder text = new StringBuilder("private import Tracing::*; requirement top;\n");
        for (int i = 0; i < 100; i++) {
            text.append("requirement r%d { #derive dependency r%d to top; }%n".formatted(i, i));
        }
        Model many = Models.of(text.toString());
        Diagram diagram = ImpactView.of(
                many,
                Impact.of(TraceGraph.of(many), List.of(Models.element(many, "Test::top")), false, true, 1, Set.of()));
        assertThat(diagram.nodes()).hasSize(60);
        assertThat(diagram.left()).isEqualTo(41);
    }
}
