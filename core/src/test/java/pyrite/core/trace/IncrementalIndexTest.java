package pyrite.core.trace;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.function.UnaryOperator;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.expression.Expression.StringLiteral;
import pyrite.core.expression.Span;
import pyrite.core.model.Difference;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.FeatureValue;
import pyrite.core.model.Model;
import pyrite.core.model.Reference;
import pyrite.core.notation.Library;
import pyrite.core.specification.Specification;

/** What is taken from snapshot to snapshot is what would be found in the last one from nothing. */
class IncrementalIndexTest {
    /**
     * Links that hang on more than what carries them: on the words of their kind, and on the case around an objective.
     */
    private static final String MORE = """
            package More {
                private import System::**;
                private import Rules::*;
                #conflicts dependency soft to panel;
                verification one { objective goal { verify panel; } }
                verification another;
                private import RequirementDerivation::*;
                requirement lamp;
                #derivation connection {
                    end #original ::> panel;
                    end #derive ::> lamp;
                }
            }
            """;

    private Model model = Models.read(Harbour.TEXT + MORE);
    private final List<Difference> done = new ArrayList<>();

    @Property(tries = 60)
    void afterAnyEditsTheSameIsFoundAsFromNothing(@ForAll long seed) {
        Random random = new Random(seed);
        model = Models.read(Harbour.TEXT + MORE);
        done.clear();
        for (int i = 0; i < 12; i++) {
            ask();
            step(random);
        }
        assertFollowed();
    }

    private void step(Random random) {
        List<Element> all = model.ownElements().stream()
                .sorted(Comparator.comparing(Element::id))
                .toList();
        Element one = all.get(random.nextInt(all.size()));
        Element other = all.get(random.nextInt(all.size()));
        switch (random.nextInt(6)) {
            case 0 -> apply(Edit.remove(one.id()));
            case 1 -> apply(Edit.put(one.withOwner(other.id(), model.rankAtEnd(other.id()))));
            case 2 -> apply(Edit.put(one.withName("renamed")));
            case 3 -> undo();
            case 4 ->
                one(
                        ElementKind.DOCUMENTATION,
                        random,
                        doc -> doc.with(pyrite.core.model.Property.TEXT, "Another text."));
            default ->
                one(
                        ElementKind.DEPENDENCY,
                        random,
                        dependency -> dependency.with(
                                pyrite.core.model.Property.SUPPLIERS, List.of(Reference.to(other.id()))));
        }
    }

    private void one(ElementKind kind, Random random, UnaryOperator<Element> change) {
        List<Element> all = model.ownElements(kind)
                .sorted(Comparator.comparing(Element::id))
                .toList();
        if (!all.isEmpty()) {
            apply(Edit.put(change.apply(all.get(random.nextInt(all.size())))));
        }
    }

    private void apply(Edit edit) {
        if (model.apply(edit) instanceof EditResult.Applied(Model next, Difference difference)) {
            done.add(difference);
            model = next;
        }
    }

    private void undo() {
        if (!done.isEmpty()) {
            model = model.replay(done.removeLast().inverse());
        }
    }

    /** Only what somebody asked for is taken along. */
    private void ask() {
        TraceGraph.of(model);
        Specification.all(model).forEach(each -> each.items(model));
    }

    private void assertFollowed() {
        Model anew = Library.model().with(model.ownElements());
        for (ElementKind kind : ElementKind.values()) {
            assertThat(model.ownElements(kind))
                    .containsExactlyInAnyOrderElementsOf(anew.ownElements().stream()
                            .filter(each -> each.kind() == kind)
                            .toList());
        }
        assertThat(TraceGraph.of(model).size()).isEqualTo(TraceGraph.of(anew).size());
        model.ownElements()
                .forEach(each -> assertThat(TraceGraph.of(model).of(each.id()))
                        .containsExactlyInAnyOrderElementsOf(TraceGraph.of(anew).of(each.id())));
        Specification.all(anew).forEach(each -> assertThat(each.items(model)).isEqualTo(each.items(anew)));
    }

    @Test
    void aLinkThatIsRemovedAndBroughtBackIsGoneAndThereAgain() {
        ask();
        Element closes = Harbour.id(model, "S-1");
        Element derived = model.ownElements(ElementKind.DEPENDENCY)
                .filter(each -> each.references(pyrite.core.model.Property.SUPPLIERS)
                        .getFirst()
                        .target()
                        .equals(closes.id()))
                .findFirst()
                .orElseThrow();
        int before = TraceGraph.of(model).down(closes.id()).size();
        apply(Edit.remove(derived.id()));
        assertThat(TraceGraph.of(model).down(closes.id())).hasSize(before - 1);
        undo();
        assertThat(TraceGraph.of(model).down(closes.id())).hasSize(before);
        assertFollowed();
    }

    @Test
    void otherWordsForAKindOfLinkAreTheWordsOfItsLinks() {
        ask();
        Element forward = model.ownElements().stream()
                .filter(each -> "conflicts with".equals(words(each)))
                .findFirst()
                .orElseThrow();
        apply(Edit.put(forward.with(
                pyrite.core.model.Property.VALUE,
                new FeatureValue(FeatureValue.Kind.FIXED, new StringLiteral("contradicts", Span.NONE)))));
        assertThat(TraceGraph.of(model).of(Harbour.id(model, "S-3").id()))
                .anySatisfy(
                        link -> assertThat(link.kind().forward() + link.kind().backward())
                                .contains("contradicts"));
        assertFollowed();
    }

    @Test
    void anObjectiveThatMovesTakesItsLinksToTheCaseItMovesTo() {
        ask();
        Element another = Harbour.named(model, "another");
        apply(Edit.put(Harbour.named(model, "goal").withOwner(another.id(), model.rankAtEnd(another.id()))));
        assertThat(TraceGraph.of(model).of(another.id())).hasSize(1);
        assertFollowed();
    }

    private static String words(Element element) {
        return element.get(pyrite.core.model.Property.VALUE)
                .filter(value -> value.expression() instanceof StringLiteral)
                .map(value -> ((StringLiteral) value.expression()).text())
                .orElse("");
    }
}
