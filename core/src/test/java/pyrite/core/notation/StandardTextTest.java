package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;
import static pyrite.core.Models.element;
import static pyrite.core.Models.id;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import pyrite.core.Models;
import pyrite.core.dynamics.Flattening;
import pyrite.core.expression.FaultException;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/** What texts that were written elsewhere take for granted: implied generals, names of the standard's library, habits of its authors. */
class StandardTextTest {
    /** The value of an attribute {@code Test::p::y} in SI units. */
    private static double value(String members) {
        Model model = Models.of(members);
        Flattening flattening = new Flattening(model);
        return flattening.constant(element(model, "Test::p::y").get(Property.VALUE).orElseThrow().expression(),
                flattening.root(element(model, "Test::p"))).orElseThrow();
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '~', value = {
        "enum def Bolt :> LengthValue { = 24 [mm]; = 36 [mm]; } part p { attribute b : Bolt = 36 [mm]; attribute y = b / 2; }|0.018",
        "enum def Level :> Real { low = 0.25; high = 0.75; } part p { attribute l : Level = Level::high; attribute y = 2 * l; }|1.5",
        "part def Gate { attribute mass : MassValue = 3 [t]; } part gate : Gate; part p { ref g = gate; attribute y = g.mass; }|3000",
        "part gate { attribute mass : MassValue = 3 [t]; snapshot old { attribute :>> mass = 4 [t]; } } part p :> gate { attribute y = mass; }|3000",
        "calc def Twice { in x : Real; return : Real = 2 * x; } calc def Thrice :> Twice { in x : Real; return : Real = 3 * x; } part p { attribute y = Thrice(2) + Twice(2); }|10",
        "package Test2 { attribute a = 5; } part p { attribute Test2 = 7; attribute y = $::Test::Test2::a + Test2; }|12",
        "attribute a : Real = 2; part p { attribute a :> a = 3; attribute y = a; }|3"})
    void whatIsWrittenAsTheStandardHasItIsComputed(String members, double expected) {
        assertThat(value(members)).isCloseTo(expected, within(1e-12));
    }

    @ParameterizedTest
    @ValueSource(strings = {
        "verification def V { subject s; return : VerificationCases::VerdictKind = verdict; }",
        "action a { first start; then action b; then done; }",
        "state s { first start then t; state t; }",
        "metadata def M { :> annotatedElement : SysML::PartUsage; } part x { metadata M; }",
        "metadata def M :> Metaobjects::SemanticMetadata { :>> baseType = x meta SysML::Usage; } part x;",
        "view v { expose Test::*[@SysML::PartUsage]; filter @SysML::Systems::PortUsage; render Views::asInterconnectionDiagram; }",
        "use case u { first start; then use case v; then include w; then done; } use case w;",
        "part a { event occurrence e; then event occurrence f; then snapshot s; }",
        "requirement def R { attribute within : TimeValue; } requirement r : R; verification v { objective { verify r { :>> within = 3 [s]; } } }",
        "action def A { in x : Real; } action a : A; part p { perform a { in x = 1; } }",
        "connection def C { end a; end b; } part x; part y; connection : C { end a ::> x; end b ::> y; }",
        "part x; #RequirementDerivation::derivation connection { end #RequirementDerivation::original ::> r; end #RequirementDerivation::derive ::> s; } requirement r; requirement s;",
        "individual def I :> G; part def G; individual part i : I { timeslice t { snapshot u :>> start; } }",
        "attribute x :> ISQMechanics::density; attribute y :> ISQBase::temperature; attribute z : ISQSpaceTime::WidthValue;",
        "part gate { variation part drive { variant part wet; variant part dry; } assert constraint { drive == drive::wet xor drive == drive::dry } }",
        "part x { attribute d : RiskMetadata::RiskLevel = RiskMetadata::RiskLevelEnum::low; }",
        "part def Pump; part pump : Pump { ref part spare : Pump :> pump; } part a { part pump :> pump; }"})
    void whatOthersTakeForGrantedIsThere(String members) {
        assertThat(Models.problemsOf(members)).isEmpty();
    }

    @Test
    void aValueOfAnEnumerationHasTheFeaturesOfItsType() {
        Model model = Models.of("attribute def Coat { attribute depth : LengthValue; } enum def Coats :> Coat { thin { :>> depth = 0.2 [mm]; } }");
        Element depth = model.children(id(model, "Test::Coats::thin")).getFirst();
        assertThat(model.names().effectiveName(depth)).isEqualTo("depth");
        assertThat(depth.outgoing()).contains(id(model, "Test::Coat::depth"));
    }

    @Test
    void metadataBehindItsKeywordIsNamedByItsType() {
        Model model = Models.of("metadata def Critical; part gate; metadata Critical about gate;");
        Element metadata = model.children(id(model, "Test")).getLast();
        assertThat(metadata.name()).isNull();
        assertThat(metadata.references(Property.TYPES).getFirst().target()).isEqualTo(id(model, "Test::Critical"));
    }

    @Test
    void whatIsHiddenIsNamedFromTheTop() {
        String text = """
                package A {
                    part x;

                    package B {
                        part A;
                        part x :> $::A::x;
                    }
                }
                """;
        Model model = Models.read(text);
        assertThat(NotationWriter.write(model, model.ownRoots())).isEqualTo(text.replace("$::A::x", "x"));
        Model renamed = Models.read(text.replace("part x :>", "part z :>").replace("part A;", "part A; part x;"));
        assertThat(NotationWriter.write(renamed, renamed.ownRoots())).contains("part z :> $::A::x;");
    }

    @Test
    void importAllBringsInWhatIsPrivate() {
        String text = "package A { private part x; } package B { private import %s A::*; ref y :> x; }";
        assertThat(Models.tryRead(text.formatted("")).problems()).isNotEmpty();
        Model model = Models.read(text.formatted("all"));
        assertThat(NotationWriter.write(model, model.ownRoots())).contains("private import all A::*;");
    }

    @Test
    void jumpsOfWhatVariesAreRefused() {
        Model model = Models.of("part p { attribute x : Real; attribute y = floor(x); }");
        Flattening flattening = new Flattening(model);
        var root = flattening.root(element(model, "Test::p"));
        assertThatThrownBy(() -> flattening.constant(element(model, "Test::p::y").get(Property.VALUE).orElseThrow().expression(), root))
                .isInstanceOf(FaultException.class).hasMessageContaining("jumps, which a run cannot follow");
    }
}
