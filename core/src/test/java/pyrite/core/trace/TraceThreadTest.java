package pyrite.core.trace;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.Model;

class TraceThreadTest {
    private static final Model MODEL = Models.of("""
            part def Master;
            concern dry { stakeholder master : Master; }
            concern quiet;
            part def Drive { attribute power : PowerValue = 3 [kW]; }
            part def Gate { part drive : Drive; }
            part gate : Gate;
            requirement saves { frame dry; subject g : Gate; require constraint { g.drive.power <= 5 [kW] } }
            satisfy saves by gate;
            verification check : SimulatedCheck { subject :>> system = gate; attribute :>> stopTime = 1 [s]; objective { verify saves; } }
            """);

    private static List<String> words(List<TraceThread.Entry> entries) {
        return entries.stream()
                .map(e -> e.relation() + " "
                        + MODEL.names().qualifiedName(e.element()).replace("Test::", ""))
                .toList();
    }

    private static TraceThread of(String name) {
        return TraceThread.of(MODEL, Models.element(MODEL, "Test::" + name));
    }

    @Test
    void aRequirementIsRealisedByPartsAndProvedByVerifications() {
        assertThat(words(of("saves").below())).containsExactlyInAnyOrder("satisfied by gate", "verified by check");
    }

    @Test
    void aPartComesFromTheRequirementItSatisfies() {
        assertThat(words(of("gate").above())).contains("satisfies saves", "defined by Gate");
        assertThat(words(of("gate").below())).contains("run by check");
    }

    @Test
    void aPartDeepInsideServesWhatIsSatisfiedAboveIt() {
        assertThat(words(of("Gate::drive").above())).contains("part of Gate", "defined by Drive", "looked at by saves");
    }

    @Test
    void aVerificationStandsBetweenRequirementAndSystem() {
        assertThat(words(of("check").above())).contains("verifies saves");
        assertThat(words(of("check").below())).containsExactly("runs gate");
    }

    @Test
    void aNeedStandsBetweenWhoWantsItAndWhatAnswersIt() {
        assertThat(words(of("dry").above())).contains("wanted by Master");
        assertThat(words(of("dry").below())).containsExactly("answered by saves");
        assertThat(words(of("saves").above())).contains("answers dry");
        assertThat(of("quiet").below()).isEmpty();
    }

    @Test
    void aRequirementThatLooksAtAPartIsNotNamedAgainAsServed() {
        assertThat(of("Gate::drive").above())
                .extracting(TraceThread.Entry::element)
                .doesNotHaveDuplicates();
    }

    @Test
    void anAttributeIsLookedAtByTheRequirementsThatNameIt() {
        assertThat(words(of("Drive::power").above())).contains("looked at by saves", "part of Drive");
    }
}
