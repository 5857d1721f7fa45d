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
        assertThat(words(of("Gate::drive").above())).contains("part of Gate", "defined by Drive", "limited by saves");
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
        assertThat(words(of("Drive::power").above())).contains("limited by saves", "part of Drive");
    }

    private static final Model WINCH = Models.of("""
            part def Motor { attribute power : PowerValue = 3 [kW]; }
            part def Winch { part motor : Motor; attribute twice : PowerValue = 2 * motor.power; }
            part winch : Winch;
            part spare : Winch;
            requirement <'R-10'> strong { subject w : Winch; }
            requirement <'R-2'> quiet { subject w : Winch; }
            requirement <'R-3'> light { subject w : Winch; }
            requirement def Kept;
            requirement kept : Kept;
            satisfy strong by winch;
            satisfy quiet by winch;
            not satisfy light by spare;
            """);

    private static List<String> all(List<TraceThread.Entry> entries) {
        return entries.stream()
                .map(e -> e.relation() + " "
                        + WINCH.names().qualifiedName(e.element()).replace("Test::", ""))
                .toList();
    }

    private static TraceThread winch(String name) {
        return TraceThread.of(WINCH, Models.element(WINCH, "Test::" + name));
    }

    @Test
    void whatAPartIsInServesRequirementsInTheOrderOfTheirIds() {
        assertThat(all(winch("Winch::motor").above()))
                .containsExactly("defined by Motor", "part of Winch", "serves quiet", "serves strong");
        assertThat(all(winch("Winch::motor").below())).containsExactly("used in Winch::twice");
        assertThat(all(winch("Motor").above())).containsExactly("in package Test", "serves quiet", "serves strong");
        assertThat(all(winch("Motor").below())).containsExactly("used as Winch::motor");
        assertThat(all(winch("Winch").below()))
                .containsExactly("used as winch", "used as spare", "has part Winch::motor");
    }

    @Test
    void whatIsSaidNotToSatisfyIsShownAsThat() {
        assertThat(all(winch("light").below())).containsExactly("not satisfied by spare");
        assertThat(all(winch("light").above())).containsExactly("in package Test");
        assertThat(all(winch("spare").above())).containsExactly("defined by Winch", "in package Test");
        assertThat(all(winch("Kept").below())).containsExactly("used as kept");
    }
}
