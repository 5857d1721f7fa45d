package pyrite.core.specification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;
import pyrite.core.specification.AttributeEditing.Request;

/** Attributes that a project adds are there for every requirement, whatever metadata it has. */
class AttributeEditingTest {
    private Model model = Models.read("""
            package Gate {
                private import Specifications::*;
                @Specification { prefix = "G"; level = "system"; }
                requirement <'G-1'> bare { doc /* It closes. */ }
                requirement <'G-2'> managed { doc /* It opens. */ @Managed { priority = Priority::must; } }
            }
            """);

    private static Request requested(String name, Attribute.Type type, String... choices) {
        return new Request(name, type, "", List.of(choices), false, "");
    }

    private void add(Request requested) {
        AttributeEditing.Proposal proposal = new AttributeEditing(model).add(requested);
        assertThat(proposal.problem()).isEmpty();
        apply(proposal.edit());
    }

    private void apply(Edit edit) {
        assertThat(model.apply(edit)).isInstanceOf(EditResult.Applied.class);
        model = ((EditResult.Applied) model.apply(edit)).model();
    }

    private String refused(Request requested) {
        return new AttributeEditing(model).add(requested).problem();
    }

    private Element requirement(String name) {
        return Models.element(model, "Gate::" + name);
    }

    private void set(String requirement, String attribute, String value) {
        Attributes attributes = Attributes.in(model);
        apply(attributes.set(
                requirement(requirement),
                attributes.named(requirement(requirement), attribute).orElseThrow(),
                value));
    }

    private String value(String requirement, String attribute) {
        return Attributes.in(model).value(requirement(requirement), attribute);
    }

    @ParameterizedTest
    @CsvSource({
        "TEXT, seen at the quay, seen at the quay",
        "DATE, 2026-04-01, 2026-04-01",
        "PERSON, ines, ines",
        "TRUTH, yes, yes",
        "NUMBER, 12, 12",
        "CHOICE, high, high"
    })
    void eachTypeIsAddedAndGivenToARequirementWithAndWithoutMetadata(Attribute.Type type, String typed, String read) {
        add(requested("kept", type, type == Attribute.Type.CHOICE ? new String[] {"low", "high"} : new String[0]));
        assertThat(Attributes.in(model).all())
                .extracting(Attribute::name)
                .containsExactly("status", "priority", "method", "rationale", "source", "owner", "kept");
        for (String name : List.of("bare", "managed")) {
            assertThat(Attributes.in(model).named(requirement(name), "kept"))
                    .get()
                    .extracting(Attribute::type)
                    .isEqualTo(type);
            set(name, "kept", typed);
            assertThat(value(name, "kept")).isEqualTo(read);
        }
        assertThat(value("managed", "priority")).isEqualTo("must");
        Model again = Models.read(NotationWriter.write(model, model.ownRoots()));
        assertThat(Attributes.in(again).value(Models.element(again, "Gate::managed"), "kept"))
                .isEqualTo(read);
        assertThat(Attributes.in(again).value(Models.element(again, "Gate::managed"), "priority"))
                .isEqualTo("must");
    }

    @Test
    void aNumberHasTheUnitsOfItsQuantity() {
        assertThat(AttributeEditing.quantities(model))
                .contains("Mass", "Length", "Power")
                .isSorted();
        add(new Request("largest mass", Attribute.Type.NUMBER, "Mass", List.of(), false, ""));
        set("bare", "largest mass", "12 [SI::t]");
        assertThat(value("bare", "largest mass")).startsWith("12");
        assertThat(refused(new Request("x", Attribute.Type.NUMBER, "Colour", List.of(), false, "")))
                .contains("'Colour' is no quantity");
    }

    @Test
    void whatHoldsByDefaultHoldsWhereNothingIsGiven() {
        add(new Request("risk", Attribute.Type.CHOICE, "", List.of("low", "very high"), false, "very high"));
        add(new Request("agreed", Attribute.Type.TRUTH, "", List.of(), false, "no"));
        assertThat(value("bare", "risk")).isEqualTo("very high");
        assertThat(value("managed", "agreed")).isEqualTo("no");
        set("managed", "risk", "low");
        assertThat(value("managed", "risk")).isEqualTo("low");
    }

    @Test
    void oneThatMustBeGivenIsAskedForBeforeTheDraftIsLeft() {
        add(new Request("reviewer", Attribute.Type.PERSON, "", List.of(), true, ""));
        assertThat(Attributes.in(model).named(requirement("bare"), "reviewer"))
                .get()
                .extracting(Attribute::required)
                .isEqualTo(true);
    }

    @Test
    void laterOnesJoinTheFirstInTheProjectsDefinition() {
        add(requested("one", Attribute.Type.TEXT));
        add(requested("two", Attribute.Type.DATE));
        assertThat(Metadata.withSpecialisations(model, Metadata.MANAGED)).hasSize(2);
        set("managed", "two", "2026-01-31");
        set("managed", "one", "x");
        assertThat(model.children(requirement("managed").id()).stream()
                        .filter(each -> each.kind().keyword().equals("metadata")))
                .hasSize(1);
    }

    @Test
    void whatCannotBeAddedSaysWhy() {
        assertThat(refused(requested(" ", Attribute.Type.TEXT))).contains("has a name");
        assertThat(refused(requested("priority", Attribute.Type.TEXT)))
                .contains("there is an attribute called priority already");
        assertThat(refused(requested("risk", Attribute.Type.CHOICE, "low"))).contains("two values at least");
        assertThat(refused(requested("risk", Attribute.Type.CHOICE, "low", "low")))
                .contains("offered once");
        assertThat(refused(new Request("x", Attribute.Type.TEXT, "", List.of(), true, "y")))
                .contains("leave out one");
        assertThat(refused(new Request("risk", Attribute.Type.CHOICE, "", List.of("low", "high"), false, "odd")))
                .contains("odd");
        assertThat(refused(new Request("agreed", Attribute.Type.TRUTH, "", List.of(), false, "maybe")))
                .isNotEmpty();
    }
}
