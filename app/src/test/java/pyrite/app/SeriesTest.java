package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.URLEncoder;
import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import pyrite.app.store.RunStore;
import pyrite.core.dynamics.RunControl;
import pyrite.core.verification.CaseRun;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What a run recorded, as plots and tables ask for it. */
class SeriesTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final String ANGLE = "barrier.gate.leaf.angle";
    private static Merrow merrow;
    private static Session tam;
    private static long first;
    private static long second;
    private static CaseRun result;

    @BeforeAll
    static void start() throws Exception {
        merrow = new Merrow();
        tam = new Session(merrow.address()).signIn("tam", "merrow");
        first = run();
        merrow.change("drive", "fastSpeed", "0.3 [deg/s]");
        second = run();
    }

    private static long run() {
        RunStore runs = merrow.bean(RunStore.class);
        var head = merrow.head();
        long id = runs.queue(
                head.branch(), merrow.named("closingCheck"), "closingCheck", head.number(), merrow.person("ines"));
        runs.started(id);
        result = CaseRun.of(head.model(), merrow.named("closingCheck"), RunControl.NONE);
        runs.end(runs.get(id), result);
        return id;
    }

    @AfterAll
    static void stop() {
        merrow.close();
    }

    private static JsonNode json(String path) throws Exception {
        return JSON.readTree(tam.get("/p/merrow/main/runs/" + path).body());
    }

    @Test
    void thePlotIsOfferedEverySeriesAndTheLinesOfTheRequirements() throws Exception {
        JsonNode offer = json(second + "/series-names.json");
        assertThat(offer.get("series").size()).isEqualTo(result.series().size());
        assertThat(offer.get("series").toString())
                .contains(
                        "\"path\":\"" + ANGLE + "\",\"unit\":\"deg\"",
                        "\"path\":\"barrier.gate.drive.electricalPower\",\"unit\":\"kW\"");
        assertThat(offer.get("lines").toString()).contains("DEADLINE", "UPPER_ONCE", "\"value\":75.0");
    }

    @Test
    void onlyWhatIsAskedForComesAsManyInstantsAsThePlotCanShow() throws Exception {
        JsonNode few = json(second + "/series.json?path=" + ANGLE + "&slices=20");
        assertThat(few.get("series").size()).isEqualTo(1);
        assertThat(few.get("times").size()).isBetween(20, 42);
        double highest = 0;
        for (JsonNode value : few.get("series").get(0).get("values")) {
            highest = Math.max(highest, value.asDouble());
        }
        double[] all = result.series().stream()
                .filter(series -> series.path().equals(ANGLE))
                .findFirst()
                .orElseThrow()
                .values();
        assertThat(highest).isEqualTo(java.util.Arrays.stream(all).max().orElseThrow());
    }

    @Test
    void lookingCloserFetchesTheStretchInFull() throws Exception {
        JsonNode close = json(second + "/series.json?path=" + ANGLE + "&from=300&to=320");
        assertThat(close.get("times").get(0).asDouble()).isLessThanOrEqualTo(300);
        assertThat(close.get("times").get(close.get("times").size() - 1).asDouble())
                .isGreaterThanOrEqualTo(320)
                .isLessThan(340);
    }

    @Test
    void theTableHasAllOfIt() throws Exception {
        String csv = tam.get("/p/merrow/main/runs/" + second + "/series.csv").body();
        assertThat(csv.lines().findFirst().orElse("")).startsWith("time [s],").contains(ANGLE + " [deg]");
        assertThat(csv.lines()).hasSize(result.times().length + 1);
    }

    @Test
    void runsAreComparedInInputsVerdictsAndSeries() throws Exception {
        String page = tam.get("/p/merrow/main/runs/compare?run=" + first + "&run=" + second)
                .body();
        assertThat(page)
                .contains(
                        "2 runs compared",
                        "attribute fastSpeed : AngularVelocityValue default 0.4 [deg/s];",
                        "attribute :&gt;&gt; fastSpeed default 0.3 [deg/s];",
                        "closesInTime",
                        ANGLE.replace("angle", "speed"));
        assertThat(tam.get("/p/merrow/main/runs/compare?run=" + first).body())
                .contains("two to 6 runs can be compared");
        assertThat(tam.get("/p/merrow/main/runs/compare?run=" + first + "&run=99")
                        .body())
                .contains("there is no run 99");
    }

    @Test
    void aPathThatIsNotThereGivesNoSeriesAndNoFault() throws Exception {
        JsonNode none =
                json(second + "/series.json?path=" + URLEncoder.encode("nowhere' or '1'='1", StandardCharsets.UTF_8));
        assertThat(none.get("series").size()).isZero();
        assertThat(none.get("times").size()).isPositive();
        assertThat(tam.get("/p/merrow/main/runs/99/series.json").statusCode()).isEqualTo(404);
    }
}
