package pyrite.core.trace;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.specification.Attributes;

class ProjectCheckTest {
    private final Model model = Models.read("""
            package Own { private import Specifications::*; metadata def Extra :> Managed { attribute reviewer[1] : Person; } }
            package Gate {
                private import Specifications::*;
                private import Own::*;
                @Specification { prefix = "G"; level = "system"; }
                requirement <'G-1'> a;
                requirement <'G-2'> b { @Extra { status = Status::proposed; reviewer = "odo"; } }
            }""");

    private Edit set(String id, String attribute, String value) {
        Attributes attributes = Attributes.in(model);
        Element requirement = Harbour.id(model, id);
        return attributes.set(
                requirement, attributes.named(requirement, attribute).orElseThrow(), value);
    }

    @Test
    void whatIsRequiredIsAskedForWhereARequirementLeavesTheDraft() {
        assertThat(Harbour.objections(model, set("G-1", "priority", "must"))).isEmpty();
        assertThat(Harbour.objections(model, set("G-1", "status", "proposed")))
                .containsExactly("a requirement that is proposed must have a value for reviewer");
        assertThat(Harbour.objections(model, set("G-2", "reviewer", "")))
                .containsExactly("a requirement that is proposed must have a value for reviewer");
    }

    @Test
    void theStatusGoesOnlyWhereItsCourseLeads() {
        assertThat(Harbour.objections(model, set("G-2", "status", "approved"))).isEmpty();
        assertThat(Harbour.objections(model, set("G-2", "status", "draft"))).isEmpty();
        assertThat(Harbour.objections(model, set("G-1", "status", "rejected")))
                .first()
                .asString()
                .contains("the status goes from draft to proposed or postponed, not to rejected");
    }

    @Test
    void whatIsWrittenElsewhereMayBeginApproved() {
        Model written = Models.read(
                "package P { private import Specifications::*; requirement <'P-1'> p { @Managed { status = Status::approved; } } }");
        assertThat(Attributes.in(written).value(Harbour.id(written, "P-1"), "status"))
                .isEqualTo("approved");
        assertThat(ProjectCheck.check(
                        pyrite.core.notation.Library.model(),
                        written,
                        new pyrite.core.model.Difference(written.ownElements().stream()
                                .map(each -> new pyrite.core.model.ElementChange(null, each))
                                .toList())))
                .isEmpty();
    }

    /** A rule that names what there is not would be obeyed by nothing, without a word. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "derive  | sistem | system      | text        | "
                        + "'sistem' is no level of a specification here and no kind of element; did you mean 'system'?",
                "derive  | system | subsystem   | text        | 'subsystem' is no level of a specification here",
                "satisfy | part   | requirement | tekst       | "
                        + "there is no property or attribute 'tekst' to be watched; did you mean 'text'?",
                "satisfy | design | need        | reviewer, x | there is no property or attribute 'x' to be watched"
            })
    void aRuleNamesKindsLevelsAndPropertiesThatThereAre(
            String kind, String from, String to, String watched, String objection) {
        Edit rule = new RuleEditing(model)
                .put(null, new RuleEditing.Request(kind, from, to, 0, 0, watched))
                .edit();
        assertThat(Harbour.objections(model, rule)).singleElement().asString().contains(objection);
        Edit right = new RuleEditing(model)
                .put(null, new RuleEditing.Request(kind, "part, system", "use case", 0, 0, "text, reviewer, method"))
                .edit();
        assertThat(Harbour.objections(model, right)).isEmpty();
    }
}
