package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Objects;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;

/** Budgets over trees of parts; the answers are added up by hand. */
class TotalTest {
    private static final String PARTS = """
            private import Budgets::*;
            part def Bolt :> Component { attribute :>> mass = 2 [kg]; }
            part def Frame :> Component { part bolts : Bolt[4]; part plate : Component { attribute :>> mass default 30 [kg]; } }
            part def Motor :> Component, Consumer { attribute :>> mass = 12 [kg]; attribute :>> ratedPower = 3 [kW]; }
            part def Pump :> Component, Consumer { attribute :>> mass = motor.mass + 8 [kg]; part motor : Motor; }
            part def Unit :> Component, Consumer { part hull : Frame; part pumps : Pump[2]; ref part site : Frame; }
            part unit : Unit;
            part light : Unit { part :>> hull { part :>> plate { attribute :>> mass = 10 [kg]; } } }
            """;

    private static Judgement judge(String more, String limit, String by) {
        Model model = Models.of(PARTS + more + """
                requirement limited { subject u : Unit; require constraint { %s } }
                satisfy limited by %s;
                """.formatted(limit, by));
        return StaticJudgement.of(model, Models.element(model, "Test::limited"))
                .judgements()
                .getFirst();
    }

    private static double margin(String limit, String by) {
        return Objects.requireNonNull(judge("", limit, by).margin()).si();
    }

    @Test
    void partsAddUpAsOftenAsThereAre() {
        // 4 bolts of 2 kg and a plate of 30 kg, two pumps of 20 kg; what is only referred to stands elsewhere.
        assertThat(margin("total(u.mass) <= 100 [kg]", "unit")).isEqualTo(100 - (8 + 30 + 40));
        assertThat(margin("total(u.mass) <= 100 [kg]", "light")).isEqualTo(100 - (8 + 10 + 40));
        assertThat(margin("total(u.pumps.mass) <= 100 [kg]", "unit")).isEqualTo(60);
        assertThat(margin("total(u.ratedPower) <= 5 [kW]", "unit")).isEqualTo(-1000);
    }

    @Test
    void aBreachedLimitFails() {
        assertThat(judge("", "total(u.mass) <= 70 [kg]", "unit").verdict()).isEqualTo(VerdictKind.FAIL);
        assertThat(judge("", "total(u.mass) <= 70 [kg]", "light").verdict()).isEqualTo(VerdictKind.PASS);
    }

    @Test
    void whatHasNoValueLeavesTheSumOpen() {
        Model model = Models.of(PARTS + """
                part open : Unit { part crane : Component; }
                requirement limited { subject u : Unit; require constraint { total(u.mass) <= 100 [kg] } }
                satisfy limited by open;
                """);
        assertThat(StaticJudgement.of(model, Models.element(model, "Test::limited"))
                        .judgements())
                .noneMatch(judgement -> judgement.verdict() == VerdictKind.PASS);
    }

    @Test
    void theWrongArgumentsAreRefusedAtTheirPlace() {
        assertThat(Models.problemsOf(PARTS
                        + "requirement r { subject u : Unit; require constraint { total(u.hull, u.mass) <= 3 [kg] } }"))
                .singleElement()
                .asString()
                .endsWith("total takes an attribute of a part, whose parts have it too: total(gate.mass)");
        assertThat(Models.problemsOf(
                        PARTS + "requirement r { subject u : Unit; require constraint { total(u.mass) <= 3 [kW] } }"))
                .singleElement()
                .asString()
                .contains("kg");
    }
}
