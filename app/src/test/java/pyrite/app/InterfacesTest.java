package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** Who talks to whom, of a part and of the project, on the page and as a table. */
class InterfacesTest extends InSession {
    private String words(String path) throws Exception {
        return ines.get("/p/merrow/main/" + path)
                .body()
                .replaceAll("<[^>]+>", " ")
                .replaceAll("\\s+", " ");
    }

    @Test
    void aPartShowsItsConnectionsAndWhoSendsWhatToWhom() throws Exception {
        String unit = "interfaces?of=" + merrow.named("HydraulicPowerUnit").id();
        assertThat(words(unit))
                .contains("5 connections between 7 parties", "pumps outlet metering supply oil ↔ OilLine fits")
                .contains("Who sends what to whom")
                .doesNotContain("not fit");
        assertThat(words("interfaces")).contains("31 connections", "SurgeGate").doesNotContain("Who sends what");
        assertThat(words("interfaces?of=" + merrow.named("Cylinder").id())).contains("Nothing is connected here");
    }

    @Test
    void whatDoesNotFitIsMarkedAndExported() throws Exception {
        ines.edit(
                "/element/" + merrow.named("SurgeGate").id() + "/members",
                "connect levelSensors.signal to vesselDetector.signal;");
        String gate = "?of=" + merrow.named("SurgeGate").id();
        assertThat(words("interfaces" + gate))
                .contains("1 does not fit")
                .contains(
                        "&#39;levelSensors.signal&#39; and &#39;vesselDetector.signal&#39; both send &#39;reading&#39;");
        assertThat(ines.get("/p/merrow/main/interfaces/export.csv" + gate).body())
                .contains("in,from,its port,to,its port,typed by,carries,fit")
                .contains("SurgeGate,levelSensors,signal,vesselDetector,signal,,reading,")
                .contains("written with '~'");
        assertThat(ines.get("/p/merrow/main/interfaces/export.csv" + gate + "&chart=true")
                        .body())
                .contains("from \\ to,")
                .contains("vesselDetector,");
    }
}
