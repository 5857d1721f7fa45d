package pyrite.core.story;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.trace.LinkKind;
import pyrite.core.trace.Links;

class StepRequirementsTest {
    private Model model = Models.of("""
            package System {
                @Specifications::Specification { prefix = "S"; level = "system"; }
                requirement <'S-1'> { doc /* The leaf shall rise within 4 min. */ }
                requirement <'S-2'> { doc /* The siren shall sound. */ }
                requirement <'S-3'> { doc /* The battery shall last a night. */ }
            }
            use case def Close {
                first start;
                then action raise { doc /* The leaf rises. */ }
                then action sound { doc /* The siren sounds. */ }
                then done;
            }
            action def Else { action apart; }""");

    private Element at(String name) {
        return Models.element(model, "Test::" + name);
    }

    private void apply(Edit edit) {
        switch (model.apply(edit)) {
            case EditResult.Applied(Model next, var _) -> model = next;
            case EditResult.Refused(var problems) -> throw new AssertionError(problems.toString());
        }
    }

    @Test
    void aRequirementIsMadeAtTheEndOfItsSpecificationAndRefinesItsSteps() {
        apply(new StepRequirements(model)
                .make(
                        at("System"),
                        List.of(
                                new StepRequirements.Wish("S-4", "A", List.of(at("Close::raise"), at("Close::sound"))),
                                new StepRequirements.Wish("S-5", "B", List.of(at("Close::raise"))))));
        assertThat(model.children(at("System").id()))
                .extracting(Element::shortName)
                .endsWith("S-4", "S-5");
        StepRequirements after = new StepRequirements(model);
        assertThat(after.of(at("Close::raise"))).extracting(Element::shortName).containsExactlyInAnyOrder("S-4", "S-5");
        assertThat(after.of(at("Close::sound"))).extracting(Element::shortName).containsExactly("S-4");
        assertThat(Links.in(model).of(at("Close::sound")))
                .extracting(link -> link.kind().key())
                .containsExactly("refinement");
        apply(after.unlink(at("System::'S-4'").id(), at("Close::raise")));
        assertThat(new StepRequirements(model).of(at("Close::raise")))
                .extracting(Element::shortName)
                .containsExactly("S-5");
        assertThat(new StepRequirements(model).of(at("Close::sound"))).hasSize(1);
    }

    @Test
    void rulesThatAllowNoLinkToAStepRefuseIt() {
        Model strict = Models.of("""
                private import Tracing::*;
                @r : LinkRule { kind = "refinement"; 'from' = "requirement"; 'to' = "requirement"; }
                @t : LinkRule { kind = "trace"; 'from' = "requirement"; 'to' = "requirement"; }
                requirement wish;
                use case def U { action a; }""");
        assertThatThrownBy(() -> new StepRequirements(strict)
                        .link(Models.element(strict, "Test::wish"), List.of(Models.element(strict, "Test::U::a"))))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("allow one with 'step' as its end");
    }

    @Test
    void anActionOutsideOfUseCasesIsNoStep() {
        Element requirement = at("System::'S-1'");
        StepRequirements requirements = new StepRequirements(model);
        assertThat(requirements.kind(requirement, at("Close::raise")).map(LinkKind::key))
                .hasValue("refinement");
        assertThat(requirements.kind(requirement, at("Else::apart")).map(LinkKind::key))
                .hasValue("trace");
    }

    @Test
    void similarTextsAreFoundByTheirRareWords() {
        SimilarTexts texts = SimilarTexts.in(model);
        assertThat(texts.to("The leaf rises.", 3))
                .extracting(match -> match.element().shortName())
                .containsExactly("S-1");
        assertThat(texts.to("The siren is sounding.", 3).getFirst().similarity())
                .isGreaterThan(0.5);
        assertThat(texts.to("The siren shall sound.", 3).getFirst().similarity())
                .isCloseTo(1, within(1e-9));
        assertThat(texts.to("Nobody cares.", 3)).isEmpty();
        assertThat(texts.to("", 3)).isEmpty();
    }

    @Test
    void whatIsToldToHappenShallHappen() {
        assertThat(ProposedRequirement.of("The leaf rises, fast at first."))
                .isEqualTo("The leaf shall rise, fast at first.");
        assertThat(ProposedRequirement.of("The gate is closed")).isEqualTo("The gate shall be closed.");
        assertThat(ProposedRequirement.of("The tide service carries a warning."))
                .isEqualTo("The tide service shall carry a warning.");
        assertThat(ProposedRequirement.of("The crew watches the sea.")).isEqualTo("The crew shall watch the sea.");
        assertThat(ProposedRequirement.of("The gate shall close.")).isEqualTo("The gate shall close.");
        assertThat(ProposedRequirement.of("Press it on its stop.")).isEqualTo("Press it on its stop.");
        assertThat(ProposedRequirement.of(" ")).isEmpty();
    }
}
