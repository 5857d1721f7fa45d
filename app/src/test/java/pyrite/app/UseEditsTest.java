package pyrite.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.http.HttpResponse;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.notation.NotationWriter;

/** Edits of one use of a part deep inside a whole, as drawings and pages send them, and what is refused. */
@NewProject
class UseEditsTest extends InRequirements {
    private String unit = "";
    private String heater = "";

    @BeforeEach
    void addAHeater() {
        merrow.add(
                "MerrowHydraulics",
                "part def Heater { attribute warmth : PowerValue = 2 [kW]; part fuse : Fuse[0..1]; } part def Fuse;");
        merrow.add("HydraulicPowerUnit", "part heater : Heater[0..1];");
        unit = key(part("SurgeGate", "powerUnit"));
        heater = key(part("SurgeGate", "powerUnit"), part("HydraulicPowerUnit", "heater"));
    }

    private Element part(String owner, String name) {
        return merrow.head().model().children(merrow.named(owner).id()).stream()
                .filter(part -> name.equals(part.name()) && part.kind() == ElementKind.PART)
                .findFirst()
                .orElseThrow();
    }

    private String key(Element... inside) {
        return Stream.concat(Stream.of(merrow.named("SurgeGate")), Stream.of(inside))
                .map(element -> element.id().toString())
                .collect(Collectors.joining("."));
    }

    private String notation(String name) {
        return NotationWriter.write(merrow.head().model(), List.of(merrow.named(name)));
    }

    private HttpResponse<String> value(String text, int base) throws Exception {
        return post(
                "/use/value/" + merrow.named("warmth").id(),
                "{'in':'" + heater + "','text':'" + text + "','base':" + base + "}");
    }

    private HttpResponse<String> remove(String extent, String... keys) throws Exception {
        String things = Stream.of(keys)
                .map(key -> "{'id':'" + key.substring(key.lastIndexOf('.') + 1) + "','way':'" + key + "'}")
                .collect(Collectors.joining(","));
        return post("/drawing/remove", "{'things':[" + things + "],'extent':'" + extent + "','base':" + head() + "}");
    }

    @Test
    void aValueOfAUseIsCheckedAsOneOfADefinition() throws Exception {
        int before = head();
        HttpResponse<String> wrong = value("3 [m]", before);
        assertThat(wrong.statusCode()).isEqualTo(422);
        assertThat(wrong.body()).contains("m");
        assertThat(head()).isEqualTo(before);
        HttpResponse<String> saved = value("3 [kW]", before);
        assertThat(saved.body()).contains("in SurgeGate.powerUnit.heater alone");
        assertThat(notation("SurgeGate")).contains("attribute :>> warmth = 3 [kW];");
        assertThat(notation("Heater")).contains("warmth : PowerValue default 2 [kW];");
    }

    @Test
    void whoLookedAtAnEarlierRevisionChangesTheSameUse() throws Exception {
        int before = head();
        assertThat(value("3 [kW]", before).statusCode()).isEqualTo(200);
        assertThat(post("/use/name", "{'in':'" + unit + "','text':'power','base':" + before + "}")
                        .statusCode())
                .isEqualTo(200);
        // The box was drawn before both edits; its key leads to the same use.
        assertThat(post("/use/members", "{'in':'" + heater + "','text':'attribute tag : String','base':" + before + "}")
                        .body())
                .contains("in SurgeGate.power.heater alone");
        assertThat(notation("SurgeGate"))
                .contains("part power : HydraulicPowerUnit {")
                .containsOnlyOnce(":>> heater")
                .contains("attribute tag : String;");
    }

    @Test
    void aUseLeavesOutWhatItsDefinitionLeavesOpen() throws Exception {
        assertThat(remove("USE", heater).body()).contains("heater left out of SurgeGate.powerUnit alone");
        assertThat(notation("SurgeGate")).contains("part[0] :>> heater;");
        assertThat(notation("HydraulicPowerUnit")).contains("part heater[0..1] : Heater;");
    }

    @Test
    void whatEveryUseHasIsRemovedInItsDefinitionOnly() throws Exception {
        String tank = key(part("SurgeGate", "powerUnit"), part("HydraulicPowerUnit", "tank"));
        int before = head();
        assertThat(remove("USE", tank).body()).contains("every HydraulicPowerUnit has 'tank'");
        assertThat(remove("USE", heater, unit).body())
                .contains("some of it stands here alone and some comes from a definition");
        assertThat(head()).isEqualTo(before);
        assertThat(remove("DEFINITION", heater).statusCode()).isEqualTo(200);
        assertThat(notation("HydraulicPowerUnit")).doesNotContain("heater");
    }

    @Test
    void copiesAndNewUsagesComeIntoThisUseOrIntoItsDefinition() throws Exception {
        String heaters = merrow.named("Heater").id().toString();
        String into = "{'definition':'" + heaters + "','into':'" + unit + "','extent':'%s','base':" + head() + "}";
        assertThat(post("/drawing/use", into.formatted("USE")).statusCode()).isEqualTo(200);
        assertThat(notation("SurgeGate")).contains("part heater2 : Heater;");
        assertThat(notation("HydraulicPowerUnit")).doesNotContain("heater2");
        String copy = "{'ids':['%s'],'into':'" + heater + "','extent':'%s','base':" + head() + "}";
        String tank = part("HydraulicPowerUnit", "tank").id().toString();
        assertThat(post("/drawing/copy", copy.formatted(tank, "USE")).body()).contains("1 copy added to heater");
        assertThat(notation("SurgeGate")).contains("part :>> heater {\n            part tank");
        assertThat(notation("Heater")).doesNotContain("tank");
        // The name is taken in this use now.
        assertThat(post("/drawing/copy", copy.formatted(tank, "DEFINITION")).body())
                .contains("'tank' is inherited from 'Heater' already");
        String relief = part("HydraulicPowerUnit", "relief").id().toString();
        assertThat(post("/drawing/copy", copy.formatted(relief, "DEFINITION")).body())
                .contains("1 copy added to Heater");
        assertThat(notation("Heater")).contains("part relief").doesNotContain("tank");
    }

    @Test
    void aKeyThatLeadsNowhereIsSaidToBeOne() throws Exception {
        assertThat(ines.get(BRANCH + "/use/" + unit + ".0").statusCode()).isEqualTo(404);
        assertThat(ines.get(BRANCH + "/use/" + key(merrow.named("Heater"))).statusCode())
                .isEqualTo(404);
        assertThat(ines.get(BRANCH + "/use/" + heater).body()).contains("SurgeGate.powerUnit.heater", "2 [kW]");
    }
}
