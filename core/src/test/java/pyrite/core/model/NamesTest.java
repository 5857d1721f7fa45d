package pyrite.core.model;

import static org.assertj.core.api.Assertions.assertThat;
import static pyrite.core.Models.element;
import static pyrite.core.Models.id;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.expression.Name;

/** Looking up names after KerML 8.2.3.5: own members, then inherited, then imported, then around. */
class NamesTest {
    private static final Model MODEL = Models.read("""
            package Parts {
                part def Pump { attribute mass; attribute speed; }
                part def BigPump :> Pump { attribute :>> mass; }
                package Inner { part def Valve; }
            }
            package Plant {
                public import Parts::*;
                part def Valve;
                part pump : BigPump { part inner; }
                part <p2> 'second pump' : Pump;
            }
            package Other {
                private import Plant::*;
                part mine : Pump;
            }
            """);

    private static ElementId resolved(String scope, String... name) {
        return MODEL.names().resolve(Name.of(name), id(MODEL, scope)).orElse(null);
    }

    @Test
    void ownMembersComeBeforeImportedOnes() {
        assertThat(resolved("Plant", "Valve")).isEqualTo(id(MODEL, "Plant::Valve"));
    }

    @Test
    void inheritedMembersAreFoundThroughTheTypeAndAsRedefined() {
        assertThat(resolved("Plant::pump", "speed")).isEqualTo(id(MODEL, "Parts::Pump::speed"));
        assertThat(resolved("Plant::pump", "mass")).isEqualTo(id(MODEL, "Parts::BigPump::mass"));
    }

    @Test
    void whatAPackageImportsForEverybodyIsFoundThroughIt() {
        assertThat(resolved("Other", "Pump")).isEqualTo(id(MODEL, "Parts::Pump"));
        assertThat(resolved("Other", "Plant", "Pump")).isEqualTo(id(MODEL, "Parts::Pump"));
    }

    @Test
    void shortNamesAndQuotedNamesMeanTheSameElement() {
        assertThat(resolved("Plant", "p2"))
                .isEqualTo(resolved("Plant", "second pump"))
                .isNotNull();
    }

    @Test
    void namesAroundAreSeenFromInside() {
        assertThat(resolved("Plant::pump::inner", "p2")).isNotNull();
        assertThat(resolved("Plant::pump::inner", "Parts")).isEqualTo(id(MODEL, "Parts"));
        assertThat(resolved("Plant", "nothing")).isNull();
    }

    @Test
    void namesOfMembersDeepInOtherPackagesNeedTheirPath() {
        assertThat(resolved("Other", "Inner", "Valve")).isEqualTo(id(MODEL, "Parts::Inner::Valve"));
        assertThat(resolved("Other", "Valve")).isEqualTo(id(MODEL, "Plant::Valve"));
    }

    @Test
    void theShortestNameIsTheOneThatStillMeansTheElement() {
        Element inner = element(MODEL, "Parts::Inner::Valve");
        assertThat(MODEL.names().shortest(inner, id(MODEL, "Parts::Inner")).orElseThrow())
                .hasToString("Valve");
        assertThat(MODEL.names().shortest(inner, id(MODEL, "Other")).orElseThrow())
                .hasToString("Inner::Valve");
        assertThat(MODEL.names().shortest(inner, null).orElseThrow()).hasToString("Parts::Inner::Valve");
    }

    @Test
    void completionOffersOwnInheritedImportedAndTopNames() {
        assertThat(MODEL.names().inScope(id(MODEL, "Plant::pump")))
                .contains("inner", "mass", "speed", "Pump", "second pump", "p2", "Other", "SI");
        assertThat(MODEL.names().membersOf(id(MODEL, "Plant::pump")))
                .contains("inner", "mass")
                .doesNotContain("Other");
    }

    @Test
    void anOwnPackageMayBeCalledLikeOneOfTheLibrary() {
        assertThat(resolved("Other", "Parts", "Pump")).isEqualTo(id(MODEL, "Parts::Pump"));
        assertThat(Models.read("package Mine { private import Parts::*; part def Pump :> Part; }")
                        .ownElements())
                .hasSize(3);
    }

    /**
     * Each row: the import of a package, a name in it, and what that means; most of it comes through public imports
     * among the library's packages.
     */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "Dynamics::*           | sin            | TrigFunctions::sin",
                "Dynamics::*           | sum            | NumericalFunctions::sum",
                "Dynamics::*           | product        | NumericalFunctions::product",
                "Dynamics::*           | select         | ControlFunctions::select",
                "ISQ::*                | ScalarQuantityValue | Quantities::ScalarQuantityValue",
                "SI::*                 | metre          | SI::metre",
                "SI::*                 | m              | SI::metre",
                "ISQMechanics::*       | MassValue      | ISQ::MassValue",
                "SI::metre             | m              | SI::metre"
            })
    void namesOfTheLibraryAreFoundThroughWhatItPassesOn(String imported, String name, String meant) {
        Model model = Models.read("package P { private import " + imported + "; }");
        ElementId p = id(model, "P");
        assertThat(model.names()
                        .resolve(Name.of(name), p)
                        .or(() -> model.names().resolveFunction(Name.of(name), p))
                        .map(model::get)
                        .map(model.names()::qualifiedName))
                .contains(meant);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "private import Dynamics::*; | MassValue",
                "private import Dynamics::*; | Real",
                "private import ISQ::*; | metre",
                "private import SI::kilogram; | m"
            })
    void whatTheLibraryImportsForItselfIsNotPassedOn(String imports, String name) {
        Model model = Models.read("package P { " + imports + " }");
        assertThat(model.names().resolve(Name.of(name), id(model, "P"))).isEmpty();
    }

    @Test
    void anOwnMemberComesBeforeOneOfTheLibraryAndAnEarlierImportBeforeALaterOne() {
        Model model = Models.read("""
                package Mine { attribute def MassValue; attribute def Weight; }
                package P { private import ISQ::*; private import Mine::*; attribute one : MassValue; }
                package Q { private import Mine::*; private import ISQ::*; attribute one : MassValue; }
                package R { private import ISQ::*; attribute def MassValue; attribute one : MassValue; }
                """);
        assertThat(element(model, "P::one").references(Property.TYPES))
                .containsExactly(Reference.to(LibraryNames.id("ISQ::MassValue")));
        assertThat(element(model, "Q::one").references(Property.TYPES))
                .containsExactly(Reference.to(id(model, "Mine::MassValue")));
        assertThat(element(model, "R::one").references(Property.TYPES))
                .containsExactly(Reference.to(id(model, "R::MassValue")));
    }

    @Test
    void aNamelessElementIsCalledByItsKind() {
        Model model = Models.read("package P { doc /* text */ }");
        Element doc = model.children(id(model, "P")).getFirst();
        assertThat(model.names().qualifiedName(doc)).isEqualTo("P::unnamed documentation");
    }

    @Test
    void whatIsImportedWithAllItHoldsIsFoundHoweverDeepTheNearestFirst() {
        Model model = Models.read("""
                package Store { part def Top; package A { part def Deep; part def Both; package B { part def Deeper; \
                part def Both; private part def Kept; } } }
                package Shop { private import Store::**; part one : Deeper; part two : Deep; part three : Both; part four : Top; }
                """);
        assertThat(model.names().resolve(Name.of("Deeper"), id(model, "Shop")))
                .contains(id(model, "Store::A::B::Deeper"));
        assertThat(model.names().resolve(Name.of("Both"), id(model, "Shop"))).contains(id(model, "Store::A::Both"));
        assertThat(model.names().resolve(Name.of("Kept"), id(model, "Shop"))).isEmpty();
        Model renamed = ((EditResult.Applied) model.apply(
                        Edit.put(element(model, "Store::A::B::Deeper").withName("Lower"))))
                .model();
        assertThat(renamed.names().resolve(Name.of("Deeper"), id(renamed, "Shop")))
                .isEmpty();
        assertThat(renamed.names().resolve(Name.of("Lower"), id(renamed, "Shop")))
                .contains(id(model, "Store::A::B::Deeper"));
    }

    /** In each row: what a usage in package Q is typed by, and what that means; packages stand in the text above it. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "private import P::*; | A | P::A",
                "private import P::A; | A | P::A",
                "private import P::Inner::*; private import P::*; | Both | P::Inner::Both",
                "private import P::*; private import P::Inner::*; | Both | P::Both",
                "private import P::*; part def A; | A | Q::A",
                "private import P::*; alias B for A; | B | P::A",
                "alias C for P::Inner; | C::Both | P::Inner::Both",
                "private import P::*; alias B for A; alias C for B; | C | P::A",
                "private import P::*; | Inner::Both | P::Inner::Both",
                "private import P::*; | R::C | R::C",
                "private import Through::*; | C | R::C",
                "private import P::Inner; | Inner::Both | P::Inner::Both",
                "private import P::*::**; | Both | P::Both"
            })
    void whatANameMeansHangsOnTheImportsAndTheirOrder(String imports, String name, String meant) {
        Model model = Models.read(
                "package P { part def A; part def Both; package Inner { part def Both; } } package R { part def C; }"
                        + " package Through { public import R::*; } package Q { " + imports + " part one : " + name
                        + "; part two : " + name + "; }");
        assertThat(element(model, "Q::one").references(Property.TYPES)).containsExactly(Reference.to(id(model, meant)));
        assertThat(element(model, "Q::two").references(Property.TYPES))
                .isEqualTo(element(model, "Q::one").references(Property.TYPES));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "package P { private part def A; } package Q { private import P::*; part a : A; } | there is no 'A' here",
                "package P { private part def A; } package Q { part a : P::A; } | 'A' is private in 'P'",
                "package R { part def C; } package P { private import R::*; } package Q { private import P::*; "
                        + "part c : C; } | there is no 'C' here",
                "package P { part def A; } package Q { part a : A; } | there is no 'A' here",
                "package P { public import Q::*; } package Q { public import P::*; part a : A; } | there is no 'A' here"
            })
    void whatIsNotSeenFromSomewhereIsNotFoundThere(String text, String message) {
        assertThat(Models.tryRead(text).problems()).singleElement().asString().contains(message);
    }

    /** An import may stand behind what needs it, and lead through what a definition inherits. */
    @Test
    void theOrderOfTheTextDoesNotMatter() {
        Model model = Models.read("""
                package Use { part one : Late; part two : Deep; private import Kept::*; private import Defs::Special::*; }
                package Kept { part def Late; }
                package Defs { part def Special :> General; part def General { part def Deep; } }
                """);
        assertThat(element(model, "Use::one").references(Property.TYPES))
                .containsExactly(Reference.to(id(model, "Kept::Late")));
        assertThat(element(model, "Use::two").outgoing()).containsExactly(id(model, "Defs::General::Deep"));
    }

    @Test
    void anAliasStandsForACalculationToo() {
        Model model = Models.of(
                "calc def twice { in x : Real; return : Real = x * 2; } alias again for twice; attribute a : Real = again(3);");
        assertThat(element(model, "Test::a").outgoing()).contains(id(model, "Test::twice"));
    }

    @Test
    void aliasesThatStandForEachOtherStandForNothing() {
        assertThat(Models.problemsOf("alias A for B; alias B for A; part a : A;"))
                .hasSize(3)
                .allSatisfy(problem -> assertThat(problem).contains("there is no '"));
    }

    /** A part that is redefined and gets a special type has what that redefines, not what the general one has. */
    @Test
    void whatASpecialTypeRedefinesHidesWhatTheRedefinedPartHas() {
        Model model = Models.of("""
                part def Clock { part hand { part tip; } }
                part def Alarm :> Clock { part :>> hand { part pin; } }
                part def Shelf { part clock : Clock; }
                part shelf : Shelf { part : Alarm :>> clock; }
                part other : Shelf { part clock2 : Clock, Alarm; }
                ref part pin = shelf.clock.hand.pin;
                ref part tip = shelf.clock.hand.tip;
                ref part otherPin = other.clock2.hand.pin;
                """);
        assertThat(model.names().member(Models.id(model, "Test::shelf::clock"), "hand"))
                .contains(Models.id(model, "Test::Alarm::hand"));
    }
}
