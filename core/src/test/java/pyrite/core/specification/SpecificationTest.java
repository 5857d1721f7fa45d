package pyrite.core.specification;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.RequirementIds;
import pyrite.core.notation.NotationWriter;

class SpecificationTest {
    private static final String TEXT = """
            package Own {
                private import Specifications::*;
                private import ScalarValues::*;
                private import ISQ::*;
                private import SI::*;
                metadata def Extra :> Managed {
                    attribute reviewer[1] : Person;
                    attribute due[0..1] : Date;
                    attribute mass[0..1] : MassValue;
                    attribute frozen[0..1] : Boolean;
                }
            }
            package Gate {
                private import Specifications::*;
                private import Own::*;
                @Specification { prefix = "G"; level = "system"; }
                package Closing {
                    requirement <'G-1'> a { doc /* The gate shall close. */ }
                    requirement <'G-2'> b { doc /* It shall close softly. */ requirement <'G-3'> inner { doc /* More. */ } }
                    package Deep { comment /* A note. */ requirement <'G-4'> d; }
                }
                package Opening { requirement <'G-10'> e { @Extra { status = Status::proposed; reviewer = "odo"; \
            priority = Priority::must; } } }
            }
            """;

    private final Model model = Models.read(TEXT);
    private final Specification gate = Specification.all(model).getFirst();
    private final Attributes attributes = Attributes.in(model);
    private final Structuring structuring = new Structuring(model);

    private static Element named(Model model, String name) {
        return model.ownElements().stream()
                .filter(each -> name.equals(each.name()))
                .findFirst()
                .orElseThrow();
    }

    private Element named(String name) {
        return named(model, name);
    }

    private static Model applied(Model model, Edit edit) {
        return ((EditResult.Applied) model.apply(edit)).model();
    }

    private static List<String> lines(Model model) {
        return Specification.all(model).getFirst().items(model).stream()
                .map(item -> "  ".repeat(item.depth())
                        + (item.number().isEmpty() ? "" : item.number() + " ")
                        + (item.type() == Specification.Item.Type.NOTE
                                ? "note"
                                : item.element().shortName() != null
                                        ? item.element().shortName()
                                        : item.element().name()))
                .toList();
    }

    @Test
    void headingsAreNumberedAndRequirementsKeepTheirPlaces() {
        assertThat(gate).extracting(Specification::prefix, Specification::level).containsExactly("G", "system");
        assertThat(lines(model))
                .containsExactly(
                        "1 Closing",
                        "  G-1",
                        "  G-2",
                        "    G-3",
                        "  1.1 Deep",
                        "    note",
                        "    G-4",
                        "2 Opening",
                        "  G-10");
        assertThat(Specification.around(model, named("inner")).orElseThrow().element())
                .isEqualTo(gate.element());
        assertThat(Specification.highest(model, "G")).isEqualTo(10);
    }

    @Test
    void idsAreInTheOrderOfTheirNumbers() {
        assertThat(List.of("G-10", "G-2", "A-9", "x", "G-1").stream().sorted(RequirementIds.ORDER))
                .containsExactly("x", "A-9", "G-1", "G-2", "G-10");
    }

    @Test
    void linesAreAddedIndentedAndMovedAsTheyAreAskedFor() {
        Model more = applied(
                model,
                new Edit(
                        structuring.requirement(structuring.after(named("a")), "G-11", "The gate shall stay."),
                        Set.of()));
        assertThat(lines(more).subList(1, 4)).containsExactly("  G-1", "  G-11", "  G-2");
        Element fresh = more.ownElements().stream()
                .filter(each -> "G-11".equals(each.shortName()))
                .findFirst()
                .orElseThrow();
        Model deeper =
                applied(more, new Structuring(more).indent(List.of(fresh)).orElseThrow());
        assertThat(lines(deeper).subList(1, 4)).containsExactly("  G-1", "    G-11", "  G-2");
        Model back = applied(
                deeper,
                new Structuring(deeper).outdent(List.of(deeper.get(fresh.id()))).orElseThrow());
        assertThat(lines(back)).isEqualTo(lines(more));
        Model down = applied(model, structuring.shift(List.of(named("a")), true).orElseThrow());
        assertThat(lines(down).subList(1, 4)).containsExactly("  G-2", "    G-3", "  G-1");
        assertThat(structuring.shift(List.of(named("a")), false)).isEmpty();
        assertThat(structuring.indent(List.of(named("a")))).isEmpty();
        assertThat(structuring.outdent(List.of(named("Closing")))).isEmpty();
    }

    @Test
    void aHeadingAddedAtANestedRequirementStandsBehindTheOutermost() {
        Model more = applied(model, Edit.put(structuring.heading(structuring.after(named("inner")), "Between")));
        assertThat(lines(more)).containsSubsequence("    G-3", "  1.1 Between", "  1.2 Deep");
    }

    @Test
    void aCopyHasIdsOfItsOwnAndWhatItRefersToWithin() {
        Model formal = Models.read("""
                package P { private import Specifications::*; private import ScalarValues::*; @Specification { prefix = "P"; }
                    requirement <'P-1'> r { attribute most : Real = 3; require constraint { 2 <= most } } }""");
        Iterator<String> ids = List.of("P-2").iterator();
        Model two =
                applied(formal, new Edit(new Structuring(formal).duplicate(named(formal, "r"), ids::next), Set.of()));
        Element copy = named(two, "r2");
        assertThat(copy.shortName()).isEqualTo("P-2");
        Element limit = two.children(copy.id()).stream()
                .filter(each -> "most".equals(each.name()))
                .findFirst()
                .orElseThrow();
        Element constraint = two.children(copy.id()).stream()
                .filter(each -> each.kind() == ElementKind.REQUIRED_CONSTRAINT)
                .findFirst()
                .orElseThrow();
        assertThat(constraint.outgoing())
                .contains(limit.id())
                .doesNotContain(named(formal, "most").id());
    }

    @Test
    void attributesAreWhatTheProjectsDefinitionHas() {
        assertThat(attributes.of(named("a")))
                .extracting(Attribute::name)
                .containsExactlyInAnyOrder(
                        "status",
                        "priority",
                        "method",
                        "rationale",
                        "source",
                        "owner",
                        "reviewer",
                        "due",
                        "mass",
                        "frozen");
        Map<String, Attribute.Type> types = Map.of(
                "status",
                Attribute.Type.CHOICE,
                "reviewer",
                Attribute.Type.PERSON,
                "due",
                Attribute.Type.DATE,
                "mass",
                Attribute.Type.NUMBER,
                "frozen",
                Attribute.Type.TRUTH,
                "source",
                Attribute.Type.TEXT);
        types.forEach((name, type) -> assertThat(
                        attributes.named(named("e"), name).orElseThrow().type())
                .as(name)
                .isEqualTo(type));
        assertThat(attributes.value(named("e"), "status")).isEqualTo("proposed");
        assertThat(attributes.value(named("a"), "status")).isEqualTo("draft");
        assertThat(attributes.named(named("a"), "reviewer").orElseThrow().required())
                .isTrue();
    }

    @Test
    void valuesAreSetTakenAwayAndChecked() {
        Model now = model;
        for (Map.Entry<String, String> each : Map.of(
                        "mass",
                        "2.5 [t]",
                        "due",
                        "2026-03-31",
                        "frozen",
                        "yes",
                        "priority",
                        "should",
                        "source",
                        "a \"quoted\" book")
                .entrySet()) {
            Attributes at = Attributes.in(now);
            Element b = named(now, "b");
            now = applied(now, at.set(b, at.named(b, each.getKey()).orElseThrow(), each.getValue()));
            assertThat(Attributes.in(now).value(named(now, "b"), each.getKey())).isEqualTo(each.getValue());
        }
        assertThat(NotationWriter.write(now, List.of(named(now, "b"))))
                .contains("@Extra {", "priority = Priority::should;", "mass = 2.5 [SI::tonne];", "frozen = true;");
        Attributes at = Attributes.in(now);
        Model without = applied(
                now, at.set(named(now, "b"), at.named(named(now, "b"), "due").orElseThrow(), ""));
        assertThat(Attributes.in(without).value(named(without, "b"), "due")).isEmpty();
        assertThatThrownBy(() -> attributes.set(
                        named("b"), attributes.named(named("b"), "due").orElseThrow(), "31.3.2026"))
                .hasMessageContaining("for instance 2026-03-31");
        assertThatThrownBy(() -> attributes.set(
                        named("b"), attributes.named(named("b"), "priority").orElseThrow(), "high"))
                .hasMessageContaining("one of must, should, could");
        assertThatThrownBy(() -> attributes.set(
                        named("b"), attributes.named(named("b"), "frozen").orElseThrow(), "perhaps"))
                .hasMessageContaining("yes or no");
        assertThat(model.apply(attributes.set(
                        named("b"), attributes.named(named("b"), "mass").orElseThrow(), "3 [m]")))
                .isInstanceOf(EditResult.Refused.class);
    }

    @Test
    void theCourseOfTheStatusIsThatOfTheProjectIfItHasOne() {
        assertThat(StatusCourse.of(model).after("draft")).containsExactly("proposed", "postponed");
        assertThat(StatusCourse.of(model).allows("draft", "approved")).isFalse();
        Model own = Models.read(TEXT + """
                package Course { private import Specifications::*; #lifecycle state def Short { state draft; \
                state approved; transition first draft then approved; } }""");
        assertThat(StatusCourse.of(own).allows("draft", "approved")).isTrue();
        assertThat(StatusCourse.of(own).allows("approved", "draft")).isFalse();
    }

    @Test
    void linesAreFilteredSortedAndGrouped() {
        List<Specification.Item> items = gate.items(model);
        Selection byText = new Selection("softly", List.of(), "", false, "");
        assertThat(byText.of(model, items, attributes, null))
                .extracting(line -> line.item().element().name())
                .containsExactly("Closing", "b");
        Selection sorted = new Selection("", List.of(), "id", true, "");
        assertThat(sorted.of(model, items, attributes, null))
                .extracting(line -> line.item().element().shortName())
                .containsExactly("G-10", "G-4", "G-3", "G-2", "G-1");
        Selection grouped = new Selection("", List.of(), "", false, "status");
        assertThat(grouped.of(model, items, attributes, null))
                .filteredOn(line -> line.item() == null)
                .extracting(Selection.Line::label)
                .containsExactly("draft · 4", "proposed · 1");
        assertThat(new Selection("", List.of(AttributeCondition.parse("status:proposed")), "", false, "")
                        .of(model, items, attributes, null))
                .hasSize(2);
    }

    private List<String> where(Model now, String sort, String... conditions) {
        return new Selection(
                        "", Stream.of(conditions).map(AttributeCondition::parse).toList(), sort, false, "")
                .of(now, Specification.all(now).getFirst().items(now), Attributes.in(now), null).stream()
                        .map(Selection.Line::item)
                        .filter(item -> item.type() == Specification.Item.Type.REQUIREMENT)
                        .map(item -> item.element().shortName())
                        .toList();
    }

    private Model having(Model now, String requirement, String attribute, String value) {
        Attributes at = Attributes.in(now);
        return applied(
                now,
                at.set(
                        named(now, requirement),
                        at.named(named(now, requirement), attribute).orElseThrow(),
                        value));
    }

    @Test
    void conditionsAreAboutNumbersDatesWordsAndWhatIsMissing() {
        Model now = having(
                having(having(having(model, "a", "mass", "900 [kg]"), "b", "mass", "2 [t]"), "b", "due", "2026-03-31"),
                "a",
                "source",
                "Harbour office");
        String a = named(now, "a").shortName();
        String b = named(now, "b").shortName();
        assertThat(where(now, "", "mass>1 [t]")).containsExactly(b);
        assertThat(where(now, "", "mass<950")).containsExactly(a);
        assertThat(where(now, "", "mass>0.9 [t]", "mass<1.5 [t]")).containsExactly(a);
        assertThat(where(now, "", "mass!")).containsExactlyInAnyOrder(a, b);
        assertThat(where(now, "", "mass:"))
                .as("what is above one that fits is shown with it")
                .containsExactly(b, "G-3", "G-4", "G-10");
        assertThat(where(now, "", "due>2026-03-31")).containsExactly(b);
        assertThat(where(now, "", "due<2026-03-30")).isEmpty();
        assertThat(where(now, "", "source~HARBOUR")).containsExactly(a);
        assertThat(where(now, "", "status:proposed", "status:draft")).hasSize(5);
        assertThat(where(now, "mass").subList(0, 2)).containsExactly(a, b);
        assertThatThrownBy(() -> where(now, "", "mass>3 [m]"))
                .hasMessage("'3 [m]' is no number to compare mass with; for instance 12 [kg]");
        assertThatThrownBy(() -> where(now, "", "mass>heavy")).hasMessageContaining("for instance 12 [kg]");
        assertThatThrownBy(() -> AttributeCondition.parse("mass")).hasMessageContaining("for instance status:approved");
    }

    @Test
    void wordsAreReplacedInTextsAndNotesAndCounted() {
        TextReplacement replacement = TextReplacement.of(
                model,
                gate.items(model).stream().map(Specification.Item::element).toList(),
                "close",
                "shut");
        assertThat(replacement.summary()).isEqualTo("'close' replaced by 'shut' in 2 places of 2 lines");
        assertThat(applied(model, replacement.edit()).inheritance().documentation(named("b")))
                .isEqualTo("It shall shut softly.");
    }

    @Test
    void markupInATextIsShownAndNeverRun() {
        assertThat(RichText.html("A *soft* <script>alert(1)</script> **stop**", "/p/x/main"))
                .isEqualTo("<p>A <em>soft</em> &lt;script&gt;alert(1)&lt;/script&gt; <strong>stop</strong></p>\n");
        assertThat(RichText.html("[here](javascript:alert(1)) ![x](https://elsewhere.example/p.png)", ""))
                .isEqualTo("<p>here x</p>\n");
        assertThat(RichText.html("![plan](attachments/0d54cbd1-e3fe-4e5a-80e2-c401d506931c)", "/p/m/main"))
                .contains("src=\"/p/m/main/pictures/0d54cbd1");
        assertThat(RichText.html("- one\n- two\n\n| a | b |\n|---|---|\n| 1 | 2 |", ""))
                .contains("<ul>", "<li>one</li>", "<table>", "<td>1</td>");
        assertThat(RichText.html("# no heading", "")).doesNotContain("<h1");
    }

    @Test
    void aTextAndAConstraintShareOneValue() {
        Model shared = Models.of("""
                private import ISQ::*; private import SI::*;
                requirement <'R'> r { doc /* Closed within {within}, not {else}. */ attribute within : TimeValue = 10 [min]; }""");
        assertThat(RequirementText.of(shared, named(shared, "r"))).isEqualTo("Closed within 10 min, not {else}.");
    }

    @Test
    void onlyPagesAndMailAreReferredTo() {
        assertThat(List.of("https://harbour.example/rules", "HTTP://harbour.example", "mailto:odo@harbour.example"))
                .allMatch(SafeAddress::isAllowed);
        assertThat(List.of(
                        "javascript:alert(1)",
                        "data:text/html,x",
                        "file:///etc/passwd",
                        "//harbour.example",
                        "https:",
                        " java\nscript:x",
                        "ftp://x.example"))
                .noneMatch(SafeAddress::isAllowed);
        assertThatThrownBy(() -> ExternalReference.add(model, named("a"), "javascript:alert(1)", "", true))
                .hasMessageContaining("http://, https:// or mailto:");
        Model referring = applied(
                model, ExternalReference.add(model, named("a"), "https://harbour.example/rules", "Port rules", true));
        assertThat(ExternalReference.of(referring, named(referring, "a")))
                .singleElement()
                .satisfies(reference -> assertThat(reference.isSafe()).isTrue());
    }

    @Test
    void rowsAreOrderedByChoicesAsTheyAreDefinedAndByWordsAsTheyAreWritten() {
        Model now = having(
                having(having(model, "a", "priority", "could"), "b", "priority", "must"), "d", "source", "Board");
        // must (e, b), should, could (a), then those without one.
        assertThat(where(now, "priority")).containsExactly("G-2", "G-10", "G-1", "G-3", "G-4");
        assertThat(where(having(now, "a", "source", "Crew"), "source").reversed())
                .startsWith("G-1", "G-4");
        assertThat(new Selection("", List.of(), "priority", true, "priority")
                        .of(now, Specification.all(now).getFirst().items(now), Attributes.in(now), null))
                .filteredOn(line -> line.item() == null)
                .extracting(Selection.Line::label)
                .containsExactly("must · 2", "could · 1", "no priority · 2");
    }

    @Test
    void aNumberBelowZeroIsLessThanAnyAboveWhateverItsUnit() {
        Model now = having(having(model, "a", "mass", "-3 [kg]"), "b", "mass", "1 [g]");
        assertThat(where(now, "mass").subList(0, 2)).containsExactly("G-1", "G-2");
        assertThat(where(now, "", "mass<0 [t]")).containsExactly("G-1");
    }

    @Test
    void aCopyOfAFormalRequirementIsFormalOnItsOwn() {
        Model formal = Models.read("""
                package P { private import Specifications::*; private import ScalarValues::*; \
                private import NumericalFunctions::*; @Specification { prefix = "P"; }
                    requirement <'P-1'> r {
                        doc /* Of {count} readings the {most} highest count. */
                        subject s;
                        attribute readings : Real[3] = (1, 2, 3);
                        attribute most : Real = readings->select { in each : Real; each > 1 }.{ in each; each * 2 }->sum();
                        attribute kind = if s istype Gate ? most as Real else max((most, 4));
                        require constraint { most <= readings#(1) + 10 }
                    }
                    part def Gate; part gate : Gate;
                    satisfy r by gate;
                }""");
        Iterator<String> ids = List.of("P-2").iterator();
        Element original = named(formal, "r");
        Model two = applied(formal, new Edit(new Structuring(formal).duplicate(original, ids::next), Set.of()));
        List<Element> copied = two.subtree(named(two, "r2").id());
        assertThat(copied).hasSameSizeAs(formal.subtree(original.id()));
        Set<pyrite.core.model.ElementId> before = Set.copyOf(
                formal.subtree(original.id()).stream().map(Element::id).toList());
        assertThat(copied).allSatisfy(each -> assertThat(each.outgoing()).doesNotContainAnyElementsOf(before));
        assertThat(pyrite.core.trace.Links.in(two).of(named(two, "r2")))
                .as("links stay with the original")
                .isEmpty();
        String text = pyrite.core.notation.NotationWriter.write(two, two.ownRoots());
        assertThat(Models.read(text).ownElements()).hasSameSizeAs(two.ownElements());
    }
}
