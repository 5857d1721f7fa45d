package pyrite.core.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Objects;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import pyrite.core.Models;
import pyrite.core.expression.Keywords;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;

class NotationTest {
    private static String tank() throws IOException {
        try (InputStream in = NotationTest.class.getResourceAsStream("/tank.sysml")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
    }

    private static String written(Model model) {
        return NotationWriter.write(model, model.ownRoots());
    }

    @Test
    void canonicalTextIsWrittenAsItWasRead() throws IOException {
        assertThat(written(Models.read(tank()))).isEqualTo(tank());
    }

    @Test
    void theDemoIsKeptInCanonicalText() throws IOException {
        try (Stream<Path> files = Files.list(Path.of("../examples/merrow"))) {
            List<Source> sources = files.sorted()
                    .map(file -> new Source(file.toString(), text(file)))
                    .toList();
            ReadResult reading = NotationReader.read(Library.model(), sources);
            assertThat(reading.problems()).isEmpty();
            for (Source source : sources) {
                List<Element> roots = reading.model().ownRoots().stream()
                        .filter(root -> reading.places().get(root.id()).source().equals(source))
                        .toList();
                assertThat(NotationWriter.write(reading.model(), roots)).isEqualTo(source.text());
            }
        }
    }

    private static String text(Path file) {
        try {
            return Files.readString(file);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    @Test
    void aTextThatWasWrittenElsewhereFindsTheStandardsPackages() {
        Model model = Models.read("""
                package Vehicle {
                    private import ISQ::*;
                    private import SI::*;
                    private import Parts::Part;
                    private import ModelingMetadata::*;
                    private import VerificationCases::*;
                    part def Engine :> Part {
                        attribute mass :> ISQ::mass default 120 [kg];
                        attribute power :> ISQ::power;
                        @StatusInfo { status = StatusKind::open; }
                    }
                    part engine : Engine { attribute :>> mass = 130 [kg]; }
                    verification def Weighing {
                        @VerificationMethod { kind = VerificationMethodKind::test; }
                        return verdict = PassIf(engine.mass <= 1 [t]);
                    }
                }
                """);
        assertThat(model.environment().typeOf(Models.id(model, "Vehicle::Engine::mass")))
                .hasToString("a quantity in kg");
        assertThat(model.environment().typeOf(Models.id(model, "Vehicle::Weighing::verdict")))
                .hasToString("a value of 'VerdictKind'");
    }

    @Test
    void keywordFormsMeanTheSameAsSigns() {
        Model model = Models.read("""
                package P {
                    part def A { attribute x; }
                    part def B specializes A;
                    part b defined by B { attribute redefines x = 1; }
                    part c subsets b;
                }
                """);
        assertThat(written(model)).contains("part def B :> A;", "part b : B {", "attribute :>> x = 1;", "part c :> b;");
    }

    @Test
    void shortAndQuotedNamesAreKept() {
        Model model = Models.read(
                "package 'Surge gate' { part def <'G-1'> 'gate leaf'; part 'part' : 'gate leaf'; part p : 'G-1'; }");
        assertThat(written(model)).isEqualTo("""
                package 'Surge gate' {
                    part def <'G-1'> 'gate leaf';
                    part 'part' : 'gate leaf';
                    part p : 'G-1';
                }
                """);
    }

    @Test
    void notesStayWhereTheyWere() {
        String text = """
                // about the file
                package P {  // about the package
                    // before a
                    part a;  // behind a
                    // before b
                    // and more
                    part b {
                        // inside b
                        part c;
                    }
                }
                """;
        String once = written(Models.read(text));
        assertThat(once)
                .contains(
                        "// about the file",
                        "// about the package",
                        "// before a",
                        "part a;  // behind a",
                        "// before b\n    // and more\n    part b",
                        "// inside b");
        assertThat(written(Models.read(once))).isEqualTo(once);
    }

    @Test
    void aNoteThatStandsBeforeNoMemberGoesAboveWhatItStandsIn() {
        String once = written(Models.read("""
                package P {
                    part def Other;  // behind it
                    constraint def Shallow {
                        in depth : ScalarValues::Real;
                        // before the result
                        depth < 1  // behind the result
                    }
                }
                """));
        assertThat(once).contains("    // before the result\n    // behind the result\n    constraint def Shallow {");
        assertThat(written(Models.read(once))).isEqualTo(once);
    }

    @Test
    void longDocumentationKeepsItsLines() {
        Model model = Models.read("package P {\n    doc /* one\n         * two\n         *\n         * three */\n}");
        assertThat(Models.element(model, "P"))
                .satisfies(p -> assertThat(model.inheritance().documentation(p)).isEqualTo("one\ntwo\n\nthree"));
        assertThat(written(Models.read(written(model)))).isEqualTo(written(model));
    }

    @Test
    void namesAreWrittenAsShortAsTheyMeanTheSame() {
        Model model = Models.read("""
                package A { part def X; package B { part def X; part inner : A::X; part own : X; } }
                package C { private import A::*; part x : X; part y : B::X; }
                """);
        assertThat(written(model)).contains("part inner : A::X;", "part own : X;", "part x : X;", "part y : B::X;");
    }

    @Test
    void privateImportsAreNotPassedOn() {
        assertThat(Models.tryRead("""
                package A { part def X; }
                package B { private import A::*; part b : X; }
                package C { private import B::*; part c : X; }
                """).problems())
                .singleElement()
                .satisfies(problem -> assertThat(problem.line()).isEqualTo(3));
        assertThat(Models.tryRead("""
                package A { part def X; }
                package B { public import A::*; }
                package C { private import B::*; part c : X; }
                """).problems()).isEmpty();
    }

    @Test
    void aSingleImportAndARecursiveOneBringWhatTheySay() {
        assertThat(Models.tryRead("""
                package A { part def X; part def Y; package Inner { part def Z; } }
                package B { private import A::X; part b : X; }
                package C { private import A::**; part c : Z; part d : Y; }
                """).problems()).isEmpty();
        assertThat(Models.tryRead(
                                "package A { part def X; part def Y; }\npackage B { private import A::X; part b : Y; }")
                        .problems())
                .hasSize(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "package P { part a }|1:20|expected ';' or '{', found '}'",
                "package P { part a;|1:20|expected '}', found the end of the text",
                "package P { attribute x = ; }|1:27|expected an expression, found ';'",
                "package P { attribute x = (1 + 2; }|1:33|expected ')', found ';'",
                "package P { part def; part ? }|1:28|found '?'",
                "package P { part def A; part a : A[x]; }|1:36|there is no 'x' here",
                "package P { part flow; }|1:18|'flow' is a word of the notation; as a name it is written in quotes",
                "package P { part a : B; }|1:22|there is no 'B' here",
                "package P { part a[3..2]; }|1:19|whole numbers, lower first",
                "package P { import Q::*; }|1:20|there is no 'Q' to import",
                "package P { public import P::Q::*; }|1:27|there is no 'P::Q' to import",
                "package P { public import Q::A::*; } package Q { public import P::B::*; }|1:64|there is no 'P::B' to import",
                "package P { foo bar; }|1:17|expected ';' or '{', found 'bar'"
            })
    void errorsSayWhereAndWhatWouldBeRight(String text, String place, String message) {
        ReadResult reading = Models.tryRead(text);
        assertThat(reading.problems()).anySatisfy(problem -> {
            assertThat(problem.line() + ":" + problem.column()).isEqualTo(place);
            assertThat(problem.message()).contains(message);
        });
        assertThat(reading.model().ownElements()).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "part a; part b; connect a b;|expected 'to', found 'b'",
                "part a; part b; connect (a, b;|expected ')', found ';'",
                "interface i connect;|expected a name, found ';'",
                "part a; bind a;|expected '=', found ';'",
                "part a; flow of Real from a;|expected 'to', found ';'",
                "part a; alias b a;|expected 'for', found 'a'",
                "part a; dependency a;|expected 'to', found ';'",
                "rep x;|expected 'language', found ';'",
                "rep language text /* x */;|expected the language as a text in quotes",
                "comment about;|expected a name, found ';'",
                "filter;|expected an expression, found ';'",
                "@;|expected a name, found ';'",
                "#;|expected a name, found ';'",
                "def X;|expected a keyword such as 'part' before 'def'",
                "subject def S;|there is no definition of kind 'subject'",
                "action a { accept; }|expected what is accepted",
                "action a { send to; }|expected an expression, found ';'",
                "action a { assign x; }|expected ':=', found ';'",
                "action a { if true; }|expected '{', found ';'",
                "action a { loop; }|expected '{', found ';'",
                "action a { while true { } until; }|expected an expression, found ';'",
                "action a { for in 1..2 { } }|expected a name, found 'in'",
                "action a { then attribute x; }|'then' is followed by something that begins and ends in time "
                        + "such as an action, or by its name, not by an attribute",
                "action a { first; }|expected a name, found ';'",
                "state s { state a; transition first a; }|expected 'then', found ';'",
                "state s { do; do ; exit 3; }|expected an action, found '3'",
                "state s { accept when then a; }|expected an expression, found 'then'",
                "enum def E { part p; }|an enumeration definition cannot own a part",
                "part p { require constraint { true } }|a part cannot own a required constraint",
                "part p { expose q; }|there is no 'q' to import",
                "part p { accept x; }|a part cannot own an accept action",
                "calc c { 1 + 2 3 }|expected '}' behind the expression, found '3'",
                "constraint c { true } constraint d { true; }|expected '}' behind the expression",
                "attribute x = (1, 2;|expected ')', found ';'",
                "attribute x = f(a = );|expected an expression, found ')'",
                "attribute x = a->;|expected a name, found ';'",
                "attribute x = a.{ in y };|expected ';', found '}'",
                "attribute x = if true ? 1;|expected 'else', found ';'",
                "attribute x = a istype;|expected a name, found ';'",
                "attribute x = new;|expected a name, found ';'",
                "attribute x : ;|expected a name, found ';'",
                "attribute x[;|expected an expression, found ';'",
                "port p : ~;|expected a name, found ';'"
            })
    void faultsInAnyConstructSayWhatWasExpected(String members, String message) {
        assertThat(Models.problemsOf(members))
                .anySatisfy(problem -> assertThat(problem).contains(message));
    }

    @Test
    void severalErrorsAreAllReportedInTheOrderOfTheText() {
        ReadResult reading = Models.tryRead("""
                package P {
                    part a : Nothing;
                    attribute x = missing;
                    part b : Void;
                }
                """);
        assertThat(reading.problems()).extracting(TextProblem::line).containsExactly(2, 3, 4);
    }

    @Test
    void hostileTextEndsInAProblemAndNotInACrash() {
        assertThat(Models.tryRead(
                                "package P { attribute x = " + "(".repeat(100_000) + "1" + ")".repeat(100_000) + "; }")
                        .problems())
                .singleElement()
                .satisfies(problem -> assertThat(problem.message()).contains("200 levels deep"));
        assertThat(Models.tryRead("{".repeat(50_000)).problems()).isNotEmpty();
        assertThat(Models.tryRead("package P { attribute x = " + "-".repeat(200_000) + "1; }")
                        .problems())
                .isNotEmpty();
        assertThat(Models.tryRead("\u0000\u0001\uFFFF package \"").problems()).isNotEmpty();
    }

    @Test
    void oneLineAddsMembersWithTheNamesOfTheirOwner() {
        Model model = Models.of("part def Pump; part station;");
        Element station = Models.element(model, "Test::station");
        ReadResult reading =
                NotationReader.readMembers(model, station.id(), new Source("", "part left : Pump; part right : Pump;"));
        assertThat(reading.problems()).isEmpty();
        assertThat(reading.model().children(station.id()))
                .extracting(Element::name)
                .containsExactly("left", "right");
    }

    @Test
    void storedExpressionsNeedNoModelToBeRead() throws IOException {
        Model model = Models.read(tank());
        model.ownElements()
                .forEach(element -> element.get(Property.RESULT)
                        .ifPresent(result -> assertThat(StoredExpression.read(StoredExpression.write(result)))
                                .isEqualTo(result)));
    }

    @Test
    void everyWordThatBeginsADeclarationIsKept() {
        for (ElementKind kind : ElementKind.values()) {
            assertThat(Keywords.RESERVED)
                    .containsAll(List.of(kind.keyword().split(" ")).stream()
                            .filter(word -> !word.isEmpty())
                            .toList());
        }
    }

    @Test
    void aFaultHidesNoOtherFault() {
        ReadResult reading = Models.tryRead("""
                package P {
                    part a : Nothing;
                    part b = ;
                    attribute c : Missing = 1 +;
                    part def D {
                        attribute x = (3;
                        attribute y = unknown;
                    }
                    foo bar baz;
                    part e : D { attribute :>> z; }
                    part f
                    part g : Void;
                }
                subject top;
                """);
        assertThat(reading.problems())
                .extracting(TextProblem::line)
                .containsExactly(2, 3, 4, 4, 6, 7, 9, 10, 11, 12, 14);
    }

    @Test
    void whatIsWrongInAnElementIsReportedBesideANameThatLeadsNowhere() {
        ReadResult reading = Models.tryRead("""
                package P {
                    private import SI::*;
                    attribute a : Missing = 3 [m] + 2 [s];
                    attribute b : Missing = 3 [m];
                    attribute c : Missing = unknown + 3 [m] + 2 [s];
                }
                """);
        assertThat(reading.problems())
                .extracting(problem -> problem.line() + ":" + problem.column())
                .containsExactly("3:19", "3:29", "4:19", "5:19", "5:29");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "package P { part a; /* never ended ; }|the comment that begins here is not ended by '*/'",
                "package P { attribute a = \"never ended; }|the text that begins here is not ended by '\"'",
                "package P { part 'never ended; }|the name in quotes that begins here is not ended on its line"
            })
    void whatIsBegunAndNotEndedIsNamed(String text, String message) {
        assertThat(Models.tryRead(text).problems())
                .extracting(TextProblem::message)
                .contains(message);
    }

    /**
     * Each beginning is looked for to the end of the text only once: a hostile text costs its length and not its
     * square.
     */
    @ParameterizedTest
    @ValueSource(strings = {"/* ", "//* ", "\\\" \"", "'\\' ", "} ]] '' /* "})
    @Timeout(20)
    void aLongTextOfBeginningsIsReadInTheTimeOfItsLength(String beginning) {
        assertThat(Models.tryRead(beginning.repeat(200_000)).problems()).isNotEmpty();
    }

    @Test
    void whatIsWrittenInQuotesIsNoWordOfTheNotation() {
        Model model = Models.read("package P { part 'part'; part 'flow' : 'def'; part def 'def'; }");
        assertThat(written(model)).contains("part 'part';", "part 'flow' : 'def';", "part def 'def';");
    }

    @Test
    void placesAreRightBehindCharactersOutsideTheBasicPlane() {
        ReadResult reading = Models.tryRead("package P { /* \uD83C\uDF0A */ part a : Nothing; }");
        assertThat(reading.problems())
                .singleElement()
                .satisfies(problem -> assertThat("package P { /* \uD83C\uDF0A */ part a : Nothing; }"
                                .substring(
                                        problem.span().start(), problem.span().end()))
                        .isEqualTo("Nothing"));
    }

    @Test
    void parametersAreBoundToWhatStandsAroundTheirConstraint() {
        Model model = Models.of("""
                constraint def Law { in a : LengthValue; a == 2 [m] }
                part p { attribute a : LengthValue; assert constraint c : Law { in a = p::a; } }
                """);
        Element bound = Models.element(model, "Test::p::c::a");
        assertThat(bound.outgoing()).containsExactly(Models.id(model, "Test::p::a"));
        assertThat(written(model)).contains("in a = p::a;");
    }

    /**
     * Texts that somebody could send to keep a server busy; in each row what is repeated how often, and what is said of
     * it.
     */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "package P { attribute x = |1 + |100000|1; }|more than 1000 operations in one expression",
                "package P { attribute x = 1|->sum() |5000|; }|more than 1000 operations in one expression",
                "package P { attribute x = 1|#(1)|5000|; }|more than 1000 operations in one expression",
                "package P { attribute x = |- |5000|1; }|nested more than 200 levels deep",
                "package P { attribute x = |(|100000|1; }|nested more than 200 levels deep",
                "package P { |part a { |5000|}|nested more than 200 levels deep",
                "package P { |part a : Nope; |20000|}|there is no 'Nope' here",
                "|} |20000||expected a declaration such as 'package' or 'part'"
            })
    void aTextThatIsTooMuchIsRefusedWithAWord(
            String before, String repeated, int times, @Nullable String after, String message) {
        ReadResult reading = Models.tryRead(Objects.requireNonNullElse(before, "")
                + repeated.repeat(times)
                + Objects.requireNonNullElse(after, ""));
        assertThat(reading.problems())
                .hasSizeBetween(1, 500)
                .first()
                .satisfies(problem -> assertThat(problem.message()).contains(message));
        assertThat(reading.model().ownElements()).isEmpty();
    }

    @Test
    void aThousandOperationsAreRead() {
        assertThat(Models.of("attribute x = " + "1 + ".repeat(1000) + "1;").ownElements())
                .isNotEmpty();
        assertThat(Models.of("attribute x = " + "(1 + 1) * 2 + ".repeat(330) + "1;")
                        .ownElements())
                .isNotEmpty();
    }

    @Test
    void aSignBeforeAPowerGetsAHint() {
        ReadResult reading = NotationReader.read(
                Library.model(),
                List.of(new Source(
                        "a.sysml",
                        "package P {\n attribute x = 3;\n attribute y = 2 * -x ^ 2;\n attribute z = (-x) ^ 2 - x ^ 2 + -(x ^ "
                                + "2);\n}")));
        assertThat(reading.problems()).isEmpty();
        assertThat(reading.hints())
                .extracting(TextProblem::asNote)
                .singleElement()
                .asString()
                .startsWith("a.sysml:3:20: note: '-x ^ n' is read as '(-x) ^ n'");
    }

    @Test
    void pathsAliasesAndBodiesStayAsTheyAreWritten() {
        String text = """
                package P {
                    private import ISQ::*;
                    private import SI::mm;
                    private import A::Other;

                    attribute mass :> ISQ::mass;
                    attribute length : LengthValue = 3 [mm];
                    attribute ratio : EfficiencyValue = 0.5;
                    attribute 'Größe' : LengthValue = 4 [SI::mm];

                    private package Impl {
                        part def X;
                    }

                    public import Impl::*;

                    part x : X;
                    part o : Other;
                    part t : Q::X;

                    part p {
                        rep inOCL language "ocl" /*
                         *     if self.x then
                         *         y
                         *     endif */
                    }
                }

                package A {
                    part def Thing;
                    alias Other for Thing;
                }

                package Q {
                    public import P::*;
                }
                """;
        Model model = Models.read(text);
        assertThat(written(model)).isEqualTo(text);
        assertThat(model.ownElements(ElementKind.REPRESENTATION)
                        .findFirst()
                        .orElseThrow()
                        .get(Property.TEXT))
                .contains("    if self.x then\n        y\n    endif");
    }

    @Test
    void linesWithoutStarsKeepWhatTheyAreIndentedMoreThanOthers() {
        assertThat(BlockText.read("/*\n   if x\n     y\n   end */")).isEqualTo("if x\n  y\nend");
        assertThat(BlockText.read("/* a\n * b\n *   c */")).isEqualTo("a\nb\n  c");
    }

    @Test
    void aNameThatMeansItsOwnElementIsRefusedWithThePathToTheOther() {
        assertThat(Models.problemsOf("attribute mass :> ISQ::mass; part p { attribute mass :> mass; }"))
                .singleElement()
                .asString()
                .contains("'mass' means this element itself here; write 'Test::mass'");
        assertThat(Models.problemsOf(
                        "constraint def C { in w; w > 0 } part p { attribute w = 2; constraint c : C { in w = w; } }"))
                .singleElement()
                .asString()
                .contains("'w' means this element itself here; write 'p::w'");
    }

    @Test
    void aNameWithOtherLettersIsWrittenInQuotes() {
        assertThat(Models.problemsOf("part Größe;")).first().asString().contains("is written in quotes: 'Größe'");
        assertThat(Models.problemsOf("attribute x = 3 [°C];"))
                .first()
                .asString()
                .contains("is written in quotes: '°C'");
        assertThat(Models.problemsOf("attribute x = 3 [%];")).first().asString().contains("['%']");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '~',
            value = {
                "package P { attribute x : Real; }|'private import ScalarValues::*;' brings it",
                "package P { part y : MassValue; }|'private import ISQ::*;' brings it",
                "package P { attribute x = sqrt(4); }|'private import RealFunctions::*;' brings it",
                "package P { part def A; part def B extends A; }|stands behind ':>' or 'specializes'",
                "package P { part def A; part def B : A; }|a definition specialises another one with ':>'",
                "package P { part p { attribute x; assert constraint { x = 3 } } }|'==' compares two values",
                "package P { requirement r; part a; satisfy r to a; }|what satisfies it stands behind 'by'",
                "package P { part c; part b; flow a -> b; }|write 'flow from a to b'",
                "package P { part c; part b; flow a.o -> b.i; }|write 'flow from a to b'",
                "package P { enum def E { red; green; } attribute x : E = E::blue; }|the values of 'E' are red, green",
                "package P { requirement <REQ-1> r; }|is written in quotes: <'REQ-1'>"
            })
    void whatOtherLanguagesWriteIsAnsweredWithWhatThisOneHas(String text, String hint) {
        assertThat(Models.tryRead(text).problems())
                .extracting(TextProblem::message)
                .first()
                .asString()
                .contains(hint);
    }

    @Test
    void whatIsNotInheritedForLackOfATypeIsToldOnce() {
        assertThat(Models.tryRead("""
                package Test {
                    part def Pump { attribute power; }
                    part a : Pomp { attribute :>> power = 1; attribute :>> speed = 2; }
                    part b : Pump { attribute :>> power = 1; attribute :>> speed = 2; }
                }
                """).problems()).extracting(TextProblem::line).containsExactly(3, 4);
    }
}
