package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.execution.Bench;
import pyrite.core.execution.EventLog;
import pyrite.core.execution.Standstill;
import pyrite.core.execution.Witness;
import pyrite.core.model.Model;
import pyrite.core.notation.NotationWriter;

/** Any behaviour is played, whether or not a part performs it; the expected events are worked out by hand. */
class PlayableTest {
    private static final Model MODEL = Models.of("""
            private import Execution::*;
            item def Call;
            port def Horn { in item call : Call; }
            action def Close {
                first start;
                then action warn : TimedAction { attribute :>> duration = 2 [s]; }
                then action shut {
                    first start;
                    then action push : TimedAction { attribute :>> duration = 3 [s]; }
                    then done;
                }
                then done;
            }
            state def Lamp { entry; then dark; state dark; accept after 4 [s] then lit; state lit; }
            action close : Close;
            state lamp : Lamp;
            part def Keeper {
                port horn : Horn;
                exhibit state mode : Lamp;
                action rest { first start; then action doze : TimedAction { attribute :>> duration = 1 [s]; } then done; }
                action def Wake :> TimedAction { attribute :>> duration = 6 [s]; }
            }
            part keeper : Keeper { perform rest; }
            part 'a post';
            verification watch : SimulatedCheck { subject :>> system = keeper; attribute :>> stopTime = 1 [s]; objective; }
            requirement soon;
            """);

    private static Playable playable(String name) {
        return Playable.of(MODEL, Models.element(MODEL, "Test::" + name));
    }

    private static List<String> events(Playable playable) {
        Bench bench = Bench.of(playable.model(), playable.part(), 100, 1, _ -> Witness.NOBODY);
        bench.advance(100);
        EventLog log = bench.log();
        return log.slice(0, log.size()).stream()
                .map(event -> event.time() + " " + event.kind() + " "
                        + log.subjects().get(event.subject()).path())
                .toList();
    }

    @ParameterizedTest
    @CsvSource({
        "Close, 5.0 ENDED bench.Close",
        "Close::shut, 5.0 ENDED bench.Close",
        "close, 5.0 ENDED bench.close.shut.push",
        "Lamp, 4.0 ENTERED bench.Lamp.lit",
        "Lamp::dark, 4.0 ENTERED bench.Lamp.lit",
        "lamp, 4.0 ENTERED bench.lamp.lit",
        "Keeper, 4.0 ENTERED keeper1.mode.lit",
        "Keeper::mode, 4.0 ENTERED keeper1.mode.lit",
        "Keeper::rest::doze, 1.0 ENDED keeper1.perform.doze",
        "Keeper::Wake, 6.0 ENDED keeper1.Wake",
    })
    void whatNoPartPerformsIsPlayedAlone(String name, String event) {
        Playable playable = playable(name);
        assertThat(playable.isMade()).isTrue();
        assertThat(MODEL.find(playable.part().id())).isEmpty();
        assertThat(events(playable)).contains(event);
    }

    @ParameterizedTest
    @CsvSource({"keeper", "watch"})
    void aPartIsPlayedAsItIs(String name) {
        Playable playable = playable(name);
        assertThat(playable).isEqualTo(new Playable(MODEL, Models.element(MODEL, "Test::keeper"), false));
        assertThat(events(playable)).contains("1.0 ENDED keeper.perform.doze", "4.0 ENTERED keeper.mode.lit");
    }

    @Test
    void thePartThatIsMadeStandsInThePackageUnderAFreeName() {
        Playable playable = playable("Keeper");
        assertThat(NotationWriter.write(playable.model(), List.of(playable.part())))
                .isEqualTo("part keeper1 : Test::Keeper;\n");
        assertThat(playable("'a post'").isMade()).isFalse();
    }

    /** What a behaviour has of its own begins at zero, too, and is kept by what goes on with it. */
    @ParameterizedTest
    @CsvSource({
        "'action rinse { attribute level : Real; first start; then action soak : TimedAction { attribute :>> duration = 5 [s]; }"
                + " if level > 2 then dry; action dry; }', bench.rinse.level, ENDED bench.rinse.dry",
        "'state rinse { attribute level : Real; entry; then soak; state soak; accept when level > 2 then dry; state dry; }',"
                + " bench.rinse.level, ENTERED bench.rinse.dry"
    })
    void whatABehaviourHasOfItsOwnIsAnInput(String behaviour, String path, String event) {
        Model model = Models.of("private import Execution::*; " + behaviour);
        Playable playable = Playable.of(model, Models.element(model, "Test::rinse"));
        Bench bench = Bench.of(playable.model(), playable.part(), 100, 1, _ -> Witness.NOBODY);
        bench.advance(2);
        List<Bench.Input> inputs = bench.inputs();
        assertThat(inputs)
                .extracting(Bench.Input::path, Bench.Input::value, Bench.Input::isGiven)
                .contains(tuple(path, 0.0, false));
        bench.set(inputs.stream().map(Bench.Input::path).toList().indexOf(path), 3);
        bench.advance(10);
        EventLog log = bench.log();
        assertThat(log.slice(0, log.size()))
                .extracting(each ->
                        each.kind() + " " + log.subjects().get(each.subject()).path())
                .contains(event);
    }

    @Test
    void theBenchTellsWhoWaitsForWhatWhenNothingHappensAnyMore() {
        Model model = Models.of("""
                private import Execution::*;
                action def Fetch {
                    attribute x : Real := 0;
                    first start; then decide d; if x > 1 then right; else left;
                    action left : TimedAction { attribute :>> duration = 1 [s]; } then both;
                    action right : TimedAction { attribute :>> duration = 2 [s]; } then both;
                    join both; then done;
                }
                """);
        Playable playable = Playable.of(model, Models.element(model, "Test::Fetch"));
        Bench bench = Bench.of(playable.model(), playable.part(), 100, 1, _ -> Witness.NOBODY);
        assertThat(bench.standstill().entries()).isEmpty();
        assertThat(bench.stuck()).isEmpty();
        bench.advance(5);
        assertThat(bench.standstill().entries()).singleElement().satisfies(entry -> {
            assertThat(entry.what()).isEqualTo("waits at 'bench.Fetch.both' for 'bench.Fetch.right' to end");
            assertThat(entry.givers())
                    .extracting(Standstill.Giver::why)
                    .containsExactly("'bench.Fetch.right' was never started");
        });
        assertThat(bench.stuck())
                .containsOnlyKeys(Models.element(model, "Test::Fetch::both").id());
    }

    /** A gauge that nothing drives yet: its level begins at zero and is set by hand. */
    @Test
    void whatHasNoValueYetIsAnInput() {
        Model model = Models.of("""
                private import Execution::*;
                part def Gauge {
                    attribute level : LengthValue;
                    exhibit state mode { entry; then low; state low; accept when level > 2 [m] then high; state high; }
                }
                """);
        Playable playable = Playable.of(model, Models.element(model, "Test::Gauge"));
        Bench bench = Bench.of(playable.model(), playable.part(), 100, 1, _ -> Witness.NOBODY);
        assertThat(bench.isOver()).isTrue();
        assertThat(bench.inputs()).singleElement().satisfies(input -> {
            assertThat(input.path()).isEqualTo("gauge.level");
            assertThat(input.isGiven()).isFalse();
            assertThat(input.value()).isZero();
        });
        bench.advance(5);
        bench.set(0, 3);
        EventLog log = bench.log();
        assertThat(log.get(log.size() - 1).kind()).isEqualTo(EventLog.Kind.ENTERED);
        assertThat(log.get(log.size() - 1).time()).isEqualTo(5);
        assertThat(bench.advanceToEvent(100)).isFalse();
        assertThat(bench.now()).isEqualTo(5);
    }

    @Test
    void whatHasNoBehaviourIsRefusedWithWhatWouldBeRight() {
        assertThatThrownBy(() -> playable("soon"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("a part, an action or a state machine is played, and this is a requirement");
    }
}
