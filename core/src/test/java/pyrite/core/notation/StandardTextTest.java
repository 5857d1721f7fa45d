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
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

/**
 * What texts that were written elsewhere take for granted: implied generals, names of the standard's library, habits of
 * its authors.
 */
class StandardTextTest {
    /** The value of an attribute {@code Test::p::y} in SI units. */
    private static double value(String members) {
        Model model = Models.of(members);
        Flattening flattening = new Flattening(model);
        return flattening
                .constant(
                        element(model, "Test::p::y")
                                .get(Property.VALUE)
                                .orElseThrow()
                                .expression(),
                        flattening.root(element(model, "Test::p")))
                .orElseThrow();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "enum def Bolt :> LengthValue { = 24 [mm]; = 36 [mm]; } part p { attribute b : Bolt = 36 [mm]; "
                        + "attribute y = b / 2; }|0.018",
                "enum def Level :> Real { low = 0.25; high = 0.75; } "
                        + "part p { attribute l : Level = Level::high; attribute y = 2 * l; }|1.5",
                "part def Gate { attribute mass : MassValue default 3 [t]; } part gate : Gate; "
                        + "part p { ref g = gate; attribute y = g.mass; }|3000",
                "part gate { attribute mass : MassValue default 3 [t]; snapshot old { attribute :>> mass = 4 [t]; } "
                        + "} part p :> gate { attribute y = mass; }|3000",
                "calc def Twice { in x : Real; return : Real = 2 * x; } "
                        + "calc def Thrice :> Twice { in x : Real; return : Real = 3 * x; } "
                        + "part p { attribute y = Thrice(2) + Twice(2); }|10",
                "package Test2 { attribute a = 5; } part p { attribute Test2 = 7; attribute y = $::Test::Test2::a + Test2; }|12",
                "attribute a : Real = 2; part p { attribute a :> Test::a = 3; attribute y = a; }|3",
                "part p { attribute s = (1, 2, 3); attribute y = sum(union(s, (4, 5))); }|15",
                "part p { attribute s = (1, 2, 3); attribute y = sum(including(s, 4)) + sum(excluding(s, 2)); }|14",
                "part p { attribute s = (1, 2, 3); attribute y = sum(intersection(s, (2, 3, 7))); }|5",
                "part p { attribute s = (1, 2, 3); attribute y = sum(subsequence(s, 2)) + 10 * sum(subsequence(s, 1, 2)) "
                        + "+ 100 * sum(tail(s)); }|535",
                "part p { attribute s = (1, 2, 3); attribute y = s->maximize { in x; x * x } + s->minimize { in x; -x }; }|6",
                "part p { attribute s = (1, 2, 3); attribute y = s->selectOne { in x; x > 1 } + s->reduce '+'; }|8",
                "part p { attribute y = if \"abc\" < \"abd\" and \"b\" > \"a\" and not (\"a\" <= \"A\") ? 1 else 0; }|1",
                "calc def Twice { in x : Real; return : Real = x * 2; } part p { calc c : Twice { in x = 3; } attribute y = c.result; }|6",
                "calc def Twice { in x : Real; x * 2 } part p { calc c : Twice { in x = 3; } attribute y = c.result; }|6",
                "attribute <fth> fathom : LengthUnit { :>> unitConversion : MeasurementReferences::ConversionByConvention "
                        + "{ :>> referenceUnit = m; :>> conversionFactor = 1.8288; } } part p { attribute y : LengthValue = 2 "
                        + "[fth]; }|3.6576",
                "attribute <hmm> hm : LengthUnit { :>> unitConversion : MeasurementReferences::ConversionByPrefix { :>> "
                        + "prefix = SIPrefixes::hecto; :>> referenceUnit = m; } } part p { attribute y : LengthValue = 3 [hmm]; "
                        + "}|300",
                "part p { attribute m : MassValue = 1 [kg]; attribute y : LengthValue = 3 [SI::mm] + 2 [km]; }|2000.003",
                "calc def F { in x : Real; return : Real = x * 2; } part p { attribute y = F(2) + 0 * 1 [SI::F/SI::F]; }|4"
            })
    void whatIsWrittenAsTheStandardHasItIsComputed(String members, double expected) {
        assertThat(value(members)).isCloseTo(expected, within(1e-12));
    }

    @ParameterizedTest
    @ValueSource(
            strings = {
                "verification def V { subject s; return : VerificationCases::VerdictKind = verdict; }",
                "action a { first start; then action b; then done; }",
                "state s { first start then t; state t; }",
                "metadata def M { :> annotatedElement : SysML::PartUsage; } part x { metadata M; }",
                "metadata def M :> Metaobjects::SemanticMetadata { :>> baseType = x meta SysML::Usage; } part x;",
                "view v { expose Test::*[@SysML::PartUsage]; filter @SysML::Systems::PortUsage; render Views::asInterconnectionDiagram; }",
                "use case u { first start; then use case v; then include w; then done; } use case w;",
                "part a { event occurrence e; then event occurrence f; then snapshot s; }",
                "requirement def R { attribute within : TimeValue; } requirement r : R; "
                        + "verification v { objective { verify r { :>> within = 3 [s]; } } }",
                "action def A { in x : Real; } action a : A; part p { perform a { in x = 1; } }",
                "connection def C { end a; end b; } part x; part y; connection : C { end a ::> x; end b ::> y; }",
                "part x; #RequirementDerivation::derivation connection { end #RequirementDerivation::original "
                        + "::> r; end #RequirementDerivation::derive ::> s; } requirement r; requirement s;",
                "individual def I :> G; part def G; individual part i : I { timeslice t { snapshot u :>> start; } }",
                "attribute x :> ISQMechanics::density; attribute y :> ISQBase::temperature; attribute z : ISQSpaceTime::WidthValue;",
                "part gate { variation part drive { variant part wet; variant part dry; } "
                        + "assert constraint { drive == drive::wet xor drive == drive::dry } }",
                "part x { attribute d : RiskMetadata::RiskLevel = RiskMetadata::RiskLevelEnum::low; }",
                "part def Pump; part pump : Pump { ref part spare : Pump :> pump; } part a { part pump :> Test::pump; }"
            })
    void whatOthersTakeForGrantedIsThere(String members) {
        assertThat(Models.problemsOf(members)).isEmpty();
    }

    @Test
    void aValueOfAnEnumerationHasTheFeaturesOfItsType() {
        Model model = Models.of(
                "attribute def Coat { attribute depth : LengthValue; } enum def Coats :> Coat { thin { :>> depth = 0.2 [mm]; } }");
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
        assertThat(NotationWriter.write(model, model.ownRoots())).isEqualTo(text);
        Element x = model.children(id(model, "A::B")).getLast();
        EditResult.Applied plain = (EditResult.Applied) model.apply(Edit.put(x.with(Property.SPELLINGS, null)));
        assertThat(NotationWriter.write(plain.model(), plain.model().ownRoots()))
                .isEqualTo(text);
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
        assertThatThrownBy(() -> flattening.constant(
                        element(model, "Test::p::y")
                                .get(Property.VALUE)
                                .orElseThrow()
                                .expression(),
                        root))
                .isInstanceOf(FaultException.class)
                .hasMessageContaining("jumps, which a run cannot follow");
    }

    /**
     * Forms of steps and states that mean what another form says; in each row how it is written and how it is written
     * back.
     */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "action a { first start; then if 1 > 0 { action b; } then done; }|then if 1 > 0 {",
                "action a { if 1 > 0 action yes { action b; } else action no { action c; } }|} else action no {",
                "action a { action again while 1 > 0 { action b; } }|action again while 1 > 0 {",
                "action a { action each for i in 1..3 { action b; } }|action each for i in 1..3 {",
                "action a { action either if 1 > 0 { action b; } }|action either if 1 > 0 {",
                "action a { attribute x : Real; action set assign x := 2; }|action set assign x := 2;",
                "action a { action gone terminate; }|action gone terminate;",
                "action a { send to b; ref b; }|send to b;",
                "calc def C { in x : Real; if x > 1 ? 2 else 3 }|if x > 1 ? 2 else 3",
                "state s { entry a; do b :> c; exit action d; action a; action b; action c; }|entry a;",
                "state s { attribute x : Real; entry assign x := 1; do accept Sig; exit send new Sig() to s; } "
                        + "item def Sig;|entry assign x := 1;",
                "state s { state a; state b; transition first a accept Sig do action { action c; } then b; } item def Sig;|do action {",
                "state s { state a; state b; attribute x : Real; transition first a do assign x := 1 then b; }|do assign x := 1 then b;",
                "state s { state a; accept when 1 > 0 do send new Sig() to s then a; } item def Sig;|"
                        + "accept when 1 > 0 do send new Sig() to s then a;",
                "part p { perform act; exhibit st; event oc; } action act; state st; occurrence oc;|event oc;",
                "flow def F; part p { out x; in y; flow of F2 from x to y; } item def F2;|flow of F2 from x to y;",
                "requirement r { assume a; require b; constraint a { true } constraint b { true } }|require b;",
                "individual occurrence first1; snapshot part s; timeslice t;|individual first1;",
                "part def A { part x; } connection def C { end part one : A => two.x; end part two : A; }|end part one : A => two.x;",
                "requirement r; part p { assert satisfy r; }|satisfy r;",
                "requirement r; part p { assert not satisfy r; }|not satisfy r;",
                "requirement r; not satisfy r by p; part p;|not satisfy r by p;",
                "calc def C { in x : Real; attribute y : Real; if x > 1 { assign y := 2; } return r : Real = y; }|if x > 1 {",
                "constraint c { in x : Real; if x > 1 ? x < 5 else true }|if x > 1 ? x < 5 else true",
                "analysis a { subject s; if 1 > 2 ? 3 else 4 }|if 1 > 2 ? 3 else 4",
                "action a { action b; terminate b; }|terminate b;",
                "action a { accept s : Sig via p; port p; } item def Sig;|accept s : Sig via p;",
                "action a { accept s : Sig[2] = new Sig(); } item def Sig;|accept s[2] : Sig = new Sig();",
                "action a { accept after 3 ['s']; }|accept after 3 [s];",
                "action a { accept at 3 ['s']; }|accept at 3 [s];",
                "action a { send new Sig() via p to q; port p; part q; } item def Sig;|send new Sig() via p to q;",
                "state s { state a; state b; transition first a do { action c; } then b; }|do action {",
                "part a { attribute list[*] ordered nonunique : Real; }|[*] ordered nonunique",
                "part a { end [2] item b[0..1]; }|end [2] item b",
                "abstract part def A; part def B specializes A { ref part c subsets d; part d; }|part def B :> A {",
                "part a { part b defined by C; } part def C;|part b : C;",
                "part def A { attribute c; } part a : A { attribute b redefines c; }|attribute b :>> c;",
                "allocation x allocate a to b; part a; part b;|allocation x allocate a to b;",
                "interface def I { end port a : P; end port b : ~P; } port def P { out x; }|end port b : ~P;",
                "message m of Sig from a to b; item def Sig; part a; part b;|message m of Sig from a to b;",
                "metadata def M { attribute why; } part p { @M { why = \"so\"; } }|why = \"so\";",
                "#M part p; metadata def M;|#M part p;",
                "view def V { render asTree; } rendering asTree;|render asTree;",
                "viewpoint def VP { frame c; } concern c;|frame c;",
                "use case u { include v; } use case v;|include v;",
                "variation part def V { variant part a; variant part b; }|variant part a;",
                "comment /* said */ part x;|/* said */"
            })
    void aFormIsReadAndWrittenInOneWay(String members, String written) {
        Model model = Models.of(members);
        String text = NotationWriter.write(model, model.ownRoots());
        assertThat(text).contains(written);
        Model again = Models.read(text);
        assertThat(NotationWriter.write(again, again.ownRoots())).isEqualTo(text);
        assertThat(again.ownElements()).hasSameSizeAs(model.ownElements());
    }

    /** Faults in these forms say what is missing. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "action a { accept; }|what is accepted",
                "action a { assign x = 3; attribute x; }|':='",
                "action a { for in 1..3 { } }|name",
                "state s { transition first a; state a; }|'then'",
                "state s { do 3; }|an action",
                "rep language x /* y */|the language as a text in quotes",
                "comment locale de /* x */|the locale as a text in quotes",
                "dependency from a; part a;|'to'",
                "part a; part b; binding x a = b;|'bind'",
                "attribute x = 3 ['kg⋅nonsense'];|there is no unit 'nonsense'",
                "attribute x = (1, 2)->select { in each : Nowhere; true };|there is no 'Nowhere' here",
                "attribute x = new Nowhere();|there is no 'Nowhere' here"
            })
    void whatIsMissingInAFormIsSaid(String members, String message) {
        assertThat(Models.problemsOf(members))
                .anySatisfy(problem -> assertThat(problem).contains(message));
    }

    /** Features behind more than a name are looked up in what the expression gives. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "cars#(1).wheel.mass",
                "(cars as Car).wheel.mass",
                "cars.?{ in c : Car; c.ready }.wheel.mass",
                "cars.{ in c : Car; c.wheel }.mass",
                "cars->select { in c : Car; c.ready }.wheel.mass",
                "first1().wheel.mass",
                "(car, spare).wheel.mass",
                "new Car().wheel.mass"
            })
    void featuresBehindAnExpressionAreFound(String expression) {
        String members = """
                part def Wheel { attribute mass : MassValue; }
                part def Car { part wheel : Wheel; attribute ready : Boolean; }
                part cars : Car[3]; part car : Car; part spare : Car;
                calc def first1 :> Giver { return c : Car; }
                calc def Giver;
                attribute x = %s;
                """;
        Model model = Models.of(members.formatted(expression));
        assertThat(element(model, "Test::x").outgoing()).contains(id(model, "Test::Wheel::mass"));
        assertThat(Models.problemsOf(members.formatted(expression.replace(".mass", ".colour"))))
                .anySatisfy(problem -> assertThat(problem).contains("has no 'colour'"));
    }
}
