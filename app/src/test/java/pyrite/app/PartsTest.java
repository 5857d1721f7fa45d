package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** The tree of the parts of the gate with its attributes, sums and limits. */
class PartsTest extends InSession {
    private String words(String path) throws Exception {
        return ines.get("/p/merrow/main/" + path)
                .body()
                .replaceAll("<[^>]+>", " ")
                .replaceAll("\\s+", " ");
    }

    @Test
    void attributesAddUpOverTheTreeAgainstTheirLimits() throws Exception {
        String gate = "?of=" + merrow.named("SurgeGate").id();
        assertThat(words("parts" + gate + "&show=ratedPower"))
                .contains("19 parts", "ratedPower in kW", "powerUnit HydraulicPowerUnit 1 74");
        assertThat(words("parts?of=" + merrow.named("leaf").id() + "&show=mass"))
                .contains("Limits LF-1", "pass");
        assertThat(ines.get("/p/merrow/main/parts/export.csv" + gate + "&show=ratedPower")
                        .body())
                .contains("part,type,multiplicity,count,ratedPower of one [kW],ratedPower of all [kW]")
                .contains("powerUnit.pumps,Pump,2,2,37.0,74.0")
                .contains("SurgeGate,SurgeGate,,1,,74.305");
    }

    @Test
    void whatHasNoPartsSaysSo() throws Exception {
        assertThat(words("parts?of=" + merrow.named("Cylinder").id())).contains("It has no parts yet");
        assertThat(ines.get("/p/merrow/main/parts?of="
                                + merrow.named("MerrowGate").id())
                        .statusCode())
                .isEqualTo(404);
    }
}
