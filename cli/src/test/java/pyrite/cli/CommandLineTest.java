package pyrite.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.PrintWriter;
import java.io.StringWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.ResourceLock;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

class CommandLineTest {
    private static final String TANK = """
            package Tank {
                private import ISQ::*;
                private import SI::*;
                private import Dynamics::*;
                part def StorageTank {
                    attribute level : LengthValue := 1 [m];
                    assert constraint drain { der(level) == -0.01 [m/s] }
                }
                part tank : StorageTank;
                requirement <'T-1'> keeps { subject t : StorageTank; require constraint { always(t.level >= 0.5 [m]) } }
                satisfy keeps by tank;
                verification check : SimulatedCheck { subject :>> system = tank; attribute :>> stopTime = 40 [s]; \
            objective { verify keeps; } }
                analysis look : TimeRun { subject :>> system = tank; attribute :>> stopTime = 10 [s]; attribute :>> interval = 5 [s]; }
            }
            """;

    @TempDir
    private Path folder;

    private Path file;
    private final StringWriter out = new StringWriter();
    private final StringWriter err = new StringWriter();

    @BeforeEach
    void write() throws IOException {
        file = folder.resolve("tank.sysml");
        Files.writeString(file, TANK);
    }

    private int pyrite(String... arguments) {
        return Main.execute(new PrintWriter(out, true), new PrintWriter(err, true), arguments);
    }

    private void replace(String old, String by) throws IOException {
        Files.writeString(file, TANK.replace(old, by));
    }

    @Test
    void checkCountsElementsOrReportsErrorsWithTheirPlace() throws IOException {
        assertThat(pyrite("check", file.toString())).isZero();
        assertThat(out.toString()).contains("no errors");
        replace("1 [m];", "1 [kg];");
        assertThat(pyrite("check", file.toString())).isEqualTo(1);
        assertThat(out.toString())
                .contains(
                        file + ":6:42: error: 'level' is a quantity in m, but its value is a quantity in kg",
                        "1 error");
    }

    @Test
    void formatReplacesTheFilesOfAFolderWhenToldTo() throws IOException {
        Path notes = folder.resolve("notes.sysml");
        Files.writeString(notes, "// nothing here yet\n");
        Files.writeString(file, "package A{attribute mass:>ISQ::mass;part def <x> Y;part z:x;}");
        assertThat(pyrite("format", folder.toString())).isEqualTo(64);
        assertThat(err.toString()).contains("is a folder; name one file, or add --write");
        assertThat(pyrite("format", folder.toString(), "--write")).isZero();
        assertThat(out.toString().strip()).isEqualTo(file.toString());
        assertThat(Files.readString(notes)).isEqualTo("// nothing here yet\n");
        assertThat(Files.readString(file)).isEqualTo("""
                package A {
                    attribute mass :> ISQ::mass;
                    part def <x> Y;
                    part z : x;
                }
                """);
        try (var left = Files.list(folder)) {
            assertThat(left).hasSize(2);
        }
    }

    @Test
    void formatWritesTheSameModelInCanonicalText() throws IOException {
        assertThat(pyrite("format", file.toString())).isZero();
        String once = out.toString();
        assertThat(once).contains("    requirement <'T-1'> keeps {\n        subject t : StorageTank;");
        Files.writeString(file, once);
        out.getBuffer().setLength(0);
        pyrite("format", file.toString());
        assertThat(out.toString()).isEqualTo(once);
    }

    @Test
    void runWritesSeriesAsCsv() throws IOException {
        assertThat(pyrite("run", file.toString(), "--case", "Tank::look")).isZero();
        assertThat(out.toString().lines().toList()).first().isEqualTo("time [s],tank.level [m]");
        assertThat(out.toString().lines().toList()).hasSize(4);
        Path csv = folder.resolve("out.csv");
        pyrite("run", file.toString(), "--case", "Tank::look", "--csv", csv.toString());
        assertThat(Files.readAllLines(csv).getLast()).matches("10\\.0,0\\.(9|8999).*");
    }

    @Test
    void verifySaysPassAndFailByItsExitCode() throws IOException {
        assertThat(pyrite("verify", file.toString())).isZero();
        assertThat(out.toString()).contains("T-1", "Tank::keeps", "tank", "pass", "0.1", "holds throughout");
        replace("40 [s]", "60 [s]");
        assertThat(pyrite("verify", file.toString())).isEqualTo(2);
        assertThat(out.toString()).contains("fail", "first violated at t = 50 s");
    }

    @Test
    void whatARunLeavesOutIsTold() throws IOException {
        replace(
                "assert constraint drain",
                "state operating { state idle; } action fill; attribute x : LengthValue = 1 [m]; assert constraint drain");
        String note =
                "note: state 'operating' of 'tank' is written there but not exhibited; write 'exhibit state' to run it";
        pyrite("check", file.toString());
        assertThat(out.toString()).contains(note, "note: action 'fill' of 'tank' is written there but not performed");
        pyrite("run", file.toString(), "--case", "Tank::look");
        assertThat(err.toString()).contains(note);
        assertThat(pyrite("verify", file.toString())).isZero();
    }

    @Test
    void verifyNamesASubjectWithoutAVerdict() throws IOException {
        replace("satisfy keeps by tank;", "part spare : StorageTank; satisfy keeps by tank; satisfy keeps by spare;");
        assertThat(pyrite("verify", file.toString())).isEqualTo(2);
        assertThat(out.toString())
                .containsPattern("tank +pass")
                .containsPattern("spare +inconclusive .*no verdict for 'spare'");
    }

    @Test
    void verifySaysWhyNothingIsJudged() throws IOException {
        Files.writeString(file, "package P { part gate; requirement r { require constraint { 1 < 2 } } }");
        assertThat(pyrite("verify", file.toString())).isZero();
        assertThat(err.toString())
                .contains(
                        "nothing is judged: no requirement says what satisfies it; write, for instance, 'satisfy closesInTime by gate;'");
        Files.writeString(file, "package P { part gate; }");
        pyrite("verify", file.toString(), "--json");
        assertThat(err.toString()).contains("nothing is judged: there is no requirement");
        assertThat(out.toString()).endsWith("[ ]" + System.lineSeparator());
    }

    @Test
    void verifyWritesJson() {
        pyrite("verify", file.toString(), "--json");
        JsonNode row = JsonMapper.builder().build().readTree(out.toString()).get(0);
        assertThat(row.get("id").asString()).isEqualTo("T-1");
        assertThat(row.get("verdict").asString()).isEqualTo("pass");
        assertThat(row.get("margin").asDouble()).isBetween(0.0999, 0.1001);
        assertThat(row.get("unit").asString()).isEqualTo("m");
        assertThat(row.get("firstViolation").isNull()).isTrue();
    }

    @Test
    void aFolderMeansEveryModelFileInIt() throws IOException {
        Path inner = Files.createDirectory(folder.resolve("inner"));
        Files.writeString(
                inner.resolve("more.sysml"), "package More { private import Tank::*; part second : StorageTank; }");
        Files.writeString(folder.resolve("notes.txt"), "no model");
        assertThat(pyrite("check", folder.toString())).isZero();
        assertThat(out.toString()).contains("no errors");
        assertThat(pyrite(
                        "check", Files.createDirectory(folder.resolve("empty")).toString()))
                .isEqualTo(64);
        assertThat(err.toString()).contains("there is no file that ends in .sysml");
    }

    @Test
    @ResourceLock("java.lang.System.in")
    void aDashMeansStandardInput() {
        InputStream before = System.in;
        try {
            System.setIn(new ByteArrayInputStream("package P { part a : Nothing; }".getBytes(StandardCharsets.UTF_8)));
            assertThat(pyrite("check", "-")).isEqualTo(1);
        } finally {
            System.setIn(before);
        }
        assertThat(out.toString()).contains("-:1:22: error: there is no 'Nothing' here");
    }

    @Test
    void checkWritesJson() throws IOException {
        replace("1 [m];", "1 [kg];");
        assertThat(pyrite("check", file.toString(), "--json")).isEqualTo(1);
        JsonNode fault = JsonMapper.builder()
                .build()
                .readTree(out.toString())
                .get("errors")
                .get(0);
        assertThat(fault.get("file").asString()).isEqualTo(file.toString());
        assertThat(fault.get("line").asInt()).isEqualTo(6);
        assertThat(fault.get("column").asInt()).isEqualTo(42);
        assertThat(fault.get("message").asString()).contains("a quantity in kg");
    }

    @Test
    void verifyWritesTestResultsForBuildServers() throws Exception {
        replace("40 [s]", "60 [s]");
        Path results = folder.resolve("verdicts.xml");
        assertThat(pyrite("verify", file.toString(), "--junit", results.toString()))
                .isEqualTo(2);
        Document xml = DocumentBuilderFactory.newInstance().newDocumentBuilder().parse(results.toFile());
        assertThat(xml.getDocumentElement().getAttribute("tests")).isEqualTo("1");
        assertThat(xml.getDocumentElement().getAttribute("failures")).isEqualTo("1");
        Element test = (Element) xml.getElementsByTagName("testcase").item(0);
        assertThat(test.getAttribute("classname")).isEqualTo("Tank::keeps");
        assertThat(test.getAttribute("name")).isEqualTo("T-1 for tank");
        assertThat(((Element) test.getElementsByTagName("failure").item(0)).getAttribute("message"))
                .contains("first violated at t = 50 s");
    }

    @Test
    void everyCommandExplainsItself() {
        for (String command : List.of("check", "format", "run", "verify")) {
            assertThat(pyrite(command, "--help")).isZero();
        }
        assertThat(out.toString()).contains("For instance:  pyrite check models/", "--junit", "standard input");
    }

    @Test
    void aRunThatBlowsUpSaysWhichEquationAndWhen() throws IOException {
        replace("-0.01 [m/s]", "level^2 / 1 [m*s]");
        assertThat(pyrite("run", file.toString(), "--case", "Tank::look")).isEqualTo(1);
        assertThat(err.toString()).contains("tank.level", "tank.drain", "t = ");
    }

    @Test
    void wrongUsageIsExplained() {
        assertThat(pyrite()).isEqualTo(64);
        assertThat(pyrite("check")).isEqualTo(64);
        assertThat(pyrite("check", folder.resolve("nothing").toString())).isEqualTo(64);
        assertThat(pyrite("run", file.toString(), "--case", "Tank::nothing")).isEqualTo(64);
        assertThat(err.toString())
                .contains(
                        "say what to do",
                        "cannot be read",
                        "there is no case 'Tank::nothing'; there are: Tank::check, Tank::look");
    }
}
