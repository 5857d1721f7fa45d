package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import pyrite.core.model.Edit;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Editing the text of an element over HTTP: merging, disputes, and texts that nobody means well with. */
class NotationEditTest extends InSession {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    private String path;

    @BeforeEach
    void start() throws Exception {
        path = "/p/merrow/main/element/" + merrow.named("MerrowComponents").id() + "/notation";
    }

    private JsonNode text() throws Exception {
        return JSON.readTree(ines.get(path + ".json").body());
    }

    private HttpResponse<String> send(String what, Map<String, Object> body) throws Exception {
        return ines.post(
                path + what,
                "application/json",
                JSON.writeValueAsString(body),
                ines.token("/p/merrow/main/requirements"));
    }

    @Test
    void aTextIsMergedWithWhatOthersChangedElsewhereInIt() throws Exception {
        String written = text().get("text").asString();
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        1,
                        Edit.put(merrow.named("Battery").withName("Accumulator")),
                        merrow.person("odo"),
                        "renamed");
        String mine = written.replace("part def Sea {", "part def OuterSea {");
        assertThat(send("", Map.of("text", mine, "base", 1, "over", false)).body())
                .contains("\"saved\":true");
        assertThat(text().get("text").asString())
                .contains("part def OuterSea {", "part def Accumulator :> Component {");
        assertThat(merrow.named("sea").outgoing())
                .containsExactly(merrow.named("OuterSea").id());
    }

    @NewProject
    @Test
    void whatBothChangedIsShownAsBothHaveIt() throws Exception {
        String mine = text().get("text").asString().replace("part def Sea {", "part def OuterSea {");
        merrow.workspace()
                .commit(
                        merrow.branch(),
                        1,
                        Edit.put(merrow.named("Sea").withName("OpenSea")),
                        merrow.person("odo"),
                        "renamed");
        HttpResponse<String> refused = send("", Map.of("text", mine, "base", 1, "over", false));
        assertThat(refused.statusCode()).isEqualTo(409);
        assertThat(JSON.readTree(refused.body())
                        .get("disputed")
                        .get(0)
                        .get("theirs")
                        .asString())
                .isEqualTo("part def OpenSea");
        assertThat(JSON.readTree(refused.body())
                        .get("disputed")
                        .get(0)
                        .get("yours")
                        .asString())
                .isEqualTo("part def OuterSea");
        assertThat(send("", Map.of("text", mine, "base", 1, "over", true)).statusCode())
                .isEqualTo(200);
        assertThat(text().get("text").asString()).contains("part def OuterSea {");
    }

    @Test
    void aTextWithFiveThousandFaultsIsAnsweredWithTheFirstOfThem() throws Exception {
        String text = "library package MerrowComponents {\n" + "part x = ;\n".repeat(5000) + "}";
        JsonNode checked =
                JSON.readTree(send("/check", Map.of("text", text, "base", 1)).body());
        assertThat(checked.get("faults").size()).isEqualTo(200);
        assertThat(checked.get("faults").get(0).get("line").asInt()).isEqualTo(2);
        assertThat(checked.get("more").asInt()).isPositive();
    }

    @NewProject
    @Test
    void tenMegabytesOfAnythingAreRefusedAndChangeNothing() throws Exception {
        String garbage = "} \u0001 ]] '' /* ".repeat(700_000);
        assertThat(send("", Map.of("text", garbage, "base", 1, "over", false)).statusCode())
                .isIn(400, 413, 422);
        assertThat(merrow.head().number()).isEqualTo(1);
    }

    @Test
    void aRevisionThatIsNotThereIsNamed() throws Exception {
        assertThat(send("/check", Map.of("text", "package P;", "base", 77)).body())
                .contains("there is no revision r77");
    }

    @Test
    void aViewerReadsTheTextAndCannotSaveIt() throws Exception {
        ines = new Session(merrow.address()).signIn("tam", "merrow");
        assertThat(text().get("text").asString()).startsWith("library package MerrowComponents");
        assertThat(send("/check", Map.of("text", "library package MerrowComponents;", "base", 1))
                        .statusCode())
                .isEqualTo(200);
        assertThat(send("", Map.of("text", "library package MerrowComponents;", "base", 1, "over", false))
                        .statusCode())
                .isEqualTo(403);
    }
}
