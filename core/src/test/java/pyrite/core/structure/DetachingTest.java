package pyrite.core.structure;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.model.EditResult;
import pyrite.core.model.Model;
import pyrite.core.trace.Removal;

class DetachingTest {
    private static final Model MACHINES = Models.of("""
            item def Go; item def Stop;
            state def General {
                entry; then idle;
                state idle; state run { entry; then low; state low; } state rest;
                transition go first idle accept Go then run;
                transition halt first run accept Stop then idle;
                transition pause first run accept after 3 [SI::s] then rest;
                transition wake first rest accept Go then run;
            }
            state def Remote :> General { transition :>> halt then rest; transition :>> pause then idle; }
            part def Pump { port water; } part def Rig { part one : Pump; part two : Pump; connect one.water to two.water; }
            """);

    @Test
    void transitionsGoWithAStateTheyLeadToOrLeaveAlsoThoseOfSpecialMachines() {
        Detaching detached = remove("Test::General::rest");
        assertThat(detached.along()).hasSize(4);
        assertThat(detached.summary(MACHINES)).isEqualTo("rest removed with 4 transitions, also of Remote");
    }

    @Test
    void aTransitionWithinARemovedStateIsNotCountedBesideIt() {
        assertThat(remove("Test::General::run").summary(MACHINES))
                .isEqualTo("run removed with 6 transitions, also of Remote");
        assertThat(remove("Test::General::idle", "Test::General::go").summary(MACHINES))
                .isEqualTo("2 elements removed with 4 transitions, also of Remote");
    }

    @Test
    void aConnectionGoesWithAPart() {
        assertThat(remove("Test::Rig::one").summary(MACHINES)).isEqualTo("one removed with 1 connection");
    }

    /** What is left refers to nothing that is gone: the model takes the edit. */
    private static Detaching remove(String... names) {
        Detaching detached = Detaching.of(
                MACHINES,
                Stream.of(names).map(name -> Models.element(MACHINES, name)).toList());
        assertThat(MACHINES.apply(
                        Removal.of(MACHINES, List.copyOf(detached.tops())).edit()))
                .isInstanceOf(EditResult.Applied.class);
        return detached;
    }
}
