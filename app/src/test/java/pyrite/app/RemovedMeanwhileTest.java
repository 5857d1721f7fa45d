package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.notation.NotationWriter;

/** A drawing shows what somebody else removes meanwhile. */
class RemovedMeanwhileTest extends InRequirements {
    private HttpResponse<String> arrange(String key, int base) throws Exception {
        return post(
                "/element/" + id("SurgeGate") + "/drawing/arrange",
                "{'form':'INTERCONNECTION','changes':[{'key':'" + key + "','at':[10,20]}],'bends':[],'base':" + base
                        + "}");
    }

    @Test
    void whatIsGoneIsPlacedNoMoreAndTheViewGoesOnWithoutIt() throws Exception {
        String hinge = id("SurgeGate") + "." + id("hinge");
        String cabinet = id("SurgeGate") + "." + id("cabinet");
        assertThat(arrange(hinge, head()).body()).contains("\"saved\":true");
        assertThat(arrange(cabinet, head()).body()).contains("\"saved\":true");
        int seen = head();
        // Somebody else, whose page may show more or less than this one.
        assertThat(post(
                                "/drawing/remove",
                                "{'things':[{'id':'" + id("hinge") + "','way':'" + hinge
                                        + "'}],'extent':'DEFINITION','base':" + seen + "}")
                        .body())
                .contains("\"saved\":true");
        int after = head();
        HttpResponse<String> refused = arrange(hinge, seen);
        assertThat(refused.statusCode()).isIn(409, 422);
        assertThat(head()).isEqualTo(after);
        assertThat(NotationWriter.write(merrow.head().model(), List.of(merrow.named("SurgeGate interconnection view"))))
                .contains("SurgeGate::cabinet")
                .doesNotContain("hinge");
        assertThat(post(
                                "/element/" + id("SurgeGate") + "/drawing.json",
                                "{'form':'INTERCONNECTION','open':null,'seen':{}}")
                        .body())
                .contains("cabinet");
    }
}
