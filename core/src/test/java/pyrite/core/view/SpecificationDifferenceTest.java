package pyrite.core.view;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.Authoring;

/** What differs between two states of a specification beside its texts. */
class SpecificationDifferenceTest {
    private static final Model THEN = Models.of("""
            part def Gate { attribute mass : MassValue; } part gate : Gate; concern dry;
            package Demands {
                private import Specifications::*;
                @Specification { prefix = "D"; level = "system"; }
                requirement <'D-1'> light { doc /* The gate is light. */ subject g : Gate; attribute most : MassValue = 60 [t];
                    require constraint { g.mass <= most } }
                requirement <'D-2'> quiet { doc /* The gate is quiet. */ }
            }
            """);

    private static String changes(Model now) {
        return SpecificationDifference.of(
                        THEN, now, Models.element(THEN, "Test::Demands").id())
                .lines()
                .stream()
                .map(line -> line.kind() + " " + line.tag() + " "
                        + line.changes().stream()
                                .map(change -> change.property() + ": "
                                        + change.pieces().stream()
                                                .filter(piece -> piece.kind() == TextDifference.Kind.ADDED)
                                                .map(TextDifference.Piece::text)
                                                .collect(Collectors.joining()))
                                .collect(Collectors.joining("; ")))
                .collect(Collectors.joining("\n"));
    }

    private static Model with(String owner, String text) {
        Authoring.Proposal.Accepted accepted =
                (Authoring.Proposal.Accepted) new Authoring(THEN).members(Models.element(THEN, owner), text);
        return ((EditResult.Applied) THEN.apply(accepted.edit())).model();
    }

    @Test
    void whatIsTheSameHasNone() {
        assertThat(changes(THEN)).isEmpty();
    }

    @Test
    void aLinkThatCameIsAChangeOfTheLineItLeadsTo() {
        assertThat(changes(with("Test", "satisfy Demands::light by gate;")))
                .startsWith("CHANGED D-1 links: satisfied by");
        assertThat(changes(with("Test::Demands::quiet", "frame dry;"))).isEqualTo("CHANGED D-2 links: answers dry");
    }

    @Test
    void anotherValueIsAChange() {
        Element most = Models.element(THEN, "Test::Demands::light::most");
        Authoring.Proposal.Accepted accepted = (Authoring.Proposal.Accepted)
                new Authoring(THEN).value(Models.element(THEN, "Test::Demands::light"), most, "50 [t]");
        Model now = ((EditResult.Applied) THEN.apply(accepted.edit())).model();
        assertThat(changes(now)).startsWith("CHANGED D-1 ").contains("constraints and values: 50");
    }

    @Test
    void whatMakesALineAreItsTextsValuesAndLinks() {
        Model now = with("Test", "satisfy Demands::light by gate;");
        Element light = Models.element(now, "Test::Demands::light");
        assertThat(SpecificationDifference.parts(now, light.id()))
                .contains(light.id())
                .containsAll(now.children(light.id()).stream().map(Element::id).toList())
                .containsAll(now.ownElements(ElementKind.SATISFACTION)
                        .map(Element::id)
                        .toList());
        assertThat(SpecificationDifference.parts(Model.EMPTY, light.id())).isEmpty();
    }
}
