package pyrite.core.sequence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.concurrent.atomic.AtomicReference;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.Models;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.ModelFault;
import pyrite.core.dynamics.RunControl;
import pyrite.core.execution.Bench;
import pyrite.core.model.Model;
import pyrite.core.verification.CaseRun;
import pyrite.core.verification.Judgement;
import pyrite.core.verification.VerdictKind;

/** A session on the bench is written as a recording; its replay tells where what happens now differs. */
class RecordingTest {
    private static final String LOCK = """
            private import Execution::*;
            item def Call { attribute length : LengthValue default 20 [m]; attribute urgent : Boolean default false; }
            item def Free { attribute room : LengthValue; }
            port def Horn { in item call : Call; out item free : Free; }
            part def Keeper {
                port horn : Horn;
                attribute patience : TimeValue := 5 [s];
                attribute 'own room' : LengthValue default 90 [m];
                exhibit state mode {
                    entry; then idle;
                    state idle;
                    transition hear first idle accept call : Call via horn
                        do send new Free(room = 'own room' - call.length) via horn then busy;
                    state busy;
                    accept after patience then idle;
                }
                perform action watch {
                    first start;
                    then action look : TimedAction { attribute :>> duration = 12 [s]; }
                    then done;
                }
            }
            part def Boat {
                port horn : ~Horn;
                exhibit state way { entry; then outside; state outside; accept Free via horn then inside; state inside; }
            }
            part def Lock { part keeper : Keeper; part boat : Boat; connect keeper.horn to boat.horn; }
            part lock : Lock;
            requirement letsIn { subject l : Lock; }
            requirement soon { subject l : Lock; require constraint { firstTime(active(l.boat.way.inside)) <= 8 [s] } }
            satisfy letsIn by lock; satisfy soon by lock;
            """;

    private static String session(Model model) {
        AtomicReference<SequenceNotes> notes = new AtomicReference<>();
        Bench bench = Bench.of(model, Models.element(model, "Test::lock"), 1000, 1, subjects -> {
            notes.set(new SequenceNotes(model, subjects));
            return notes.get();
        });
        bench.advance(3);
        bench.set(patience(bench), 7.5);
        bench.give(call(bench), Map.of("length", 30.0));
        bench.advance(4);
        bench.give(call(bench), Map.of());
        bench.advance(20);
        return new SequenceText(model)
                .of(new SequenceText.Session(
                        "played once",
                        Models.element(model, "Test::lock"),
                        bench.now(),
                        0.2,
                        bench.seed(),
                        "A boat is let in, another is not heard.",
                        notes.get().steps(),
                        List.of()));
    }

    private static int call(Bench bench) {
        return bench.offers().stream()
                .map(offer -> Objects.requireNonNull(offer.type()).name())
                .toList()
                .indexOf("Call");
    }

    private static int patience(Bench bench) {
        List<Bench.Input> inputs = bench.inputs();
        for (int i = 0; i < inputs.size(); i++) {
            if (inputs.get(i).path().endsWith("patience")) {
                return i;
            }
        }
        throw new AssertionError("no patience among " + inputs);
    }

    private static final String RECORDING =
            session(Models.of(LOCK)).replace("objective;", "objective { verify letsIn; verify soon; }");

    private static CaseRun replay(String model, String recording) {
        Model whole = Models.of(model + recording);
        return CaseRun.of(whole, Models.element(whole, "Test::'played once'"), RunControl.NONE);
    }

    @Test
    void aSessionIsWrittenInTheNotation() {
        assertThat(RECORDING
                        .lines()
                        .filter(line ->
                                line.startsWith("message") || line.startsWith("event") || line.startsWith("action")))
                .containsExactly(
                        "event Test::lock.keeper.mode.idle : Begins { attribute :>> at = 0 [s]; }",
                        "event Test::lock.boat.way.outside : Begins { attribute :>> at = 0 [s]; }",
                        "event Test::lock.keeper.watch.look : Begins { attribute :>> at = 0 [s]; }",
                        "action : Sets assign Test::lock.keeper.patience := 7.5 [s] { attribute :>> at = 3 [s]; }",
                        "message : Told of content : Test::Call = new Test::Call(length = 30 [m], urgent = false) from outside to "
                                + "Test::lock.keeper.horn { attribute :>> at = 3 [s]; }",
                        "message : Told of content : Test::Free = new Test::Free(room = 60 [m]) from Test::lock.keeper to "
                                + "Test::lock.boat.horn { attribute :>> at = 3 [s]; }",
                        "event Test::lock.boat.way.inside : Begins { attribute :>> at = 3 [s]; }",
                        "event Test::lock.keeper.mode.busy : Begins { attribute :>> at = 3 [s]; }",
                        "message : Told of content : Test::Call = new Test::Call(length = 20 [m], urgent = false) from outside to "
                                + "Test::lock.keeper.horn { attribute :>> at = 4 [s]; attribute :>> accepted = false; }",
                        "event Test::lock.keeper.mode.idle : Begins { attribute :>> at = 10.5 [s]; }",
                        "event Test::lock.keeper.watch.look : Ends { attribute :>> at = 12 [s]; }",
                        "event Test::lock.keeper.watch : Ends { attribute :>> at = 12 [s]; }");
    }

    @Test
    void itsReplayHappensAsRecorded() {
        CaseRun run = replay(LOCK, RECORDING);
        assertThat(run.failure()).isNull();
        assertThat(Objects.requireNonNull(run.comparison()).rows()).hasSize(12);
        assertThat(run.judgements())
                .extracting(Judgement::verdict, Judgement::reason)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple(VerdictKind.PASS, "happens as recorded, all 12 steps"),
                        org.assertj.core.groups.Tuple.tuple(
                                VerdictKind.PASS, "3 s ≤ 8 s; happens as recorded, all 12 steps"));
    }

    /** Each change of the model, and the first difference that a replay tells, on both sides. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "duration = 12 [s] | duration = 12.1 [s] | happens as recorded, all 12 steps",
                "duration = 12 [s] | duration = 13 [s] | differs from the recording at t = 12 s: recorded is "
                        + "keeper.watch.look ends at 12 s, now it is at 13 s, more than 0.2 s away",
                "default 90 [m] | default 95 [m] | differs from the recording at t = 3 s: recorded is Free (room = 60 "
                        + "[m]) from keeper to boat.horn, now Free (room = 65 [m]) from keeper to boat.horn",
                "do send new Free(room = 'own room' - call.length) via horn then busy | then busy | differs from the "
                        + "recording at t = 3 s: recorded is Free (room = 60 [m]) from keeper to boat.horn, which does not happen "
                        + "now",
                "state busy; | state busy; transition again first busy accept Call via horn then busy; | differs from the "
                        + "recording at t = 4 s: recorded is Call (length = 20 [m], urgent = false) from outside to keeper.horn, "
                        + "not accepted, now Call (length = 20 [m], urgent = false) from outside to keeper.horn",
                "accept after patience then idle; | accept after patience then gone; state gone; | differs from the "
                        + "recording at t = 10.5 s: recorded is keeper.mode.idle begins, which does not happen now; instead "
                        + "keeper.mode.gone begins at 10.5 s",
                "accept Free via horn then inside; | accept Free via horn then waits; state waits; accept after 1 [s] "
                        + "then inside; | differs from the recording at t = 3 s: now boat.way.waits begins, which was not recorded",
            })
    void aReplayTellsTheFirstDifference(String before, String after, String told) {
        assertThat(LOCK).contains(before);
        CaseRun run = replay(LOCK.replace(before, after), RECORDING);
        assertThat(run.failure()).isNull();
        assertThat(Objects.requireNonNull(run.comparison()).sentence()).isEqualTo(told);
        assertThat(run.judgements())
                .allMatch(judgement ->
                        judgement.verdict() == (run.comparison().follows() ? VerdictKind.PASS : VerdictKind.FAIL));
    }

    /** Other things may happen between, but what is recorded happens in its order. */
    @Test
    void aRecordingThatIsNotCompleteLeavesRoom() {
        String free = RECORDING
                .replace("attribute :>> timeTolerance", "attribute :>> complete = false;\nattribute :>> timeTolerance")
                .replace("event Test::lock.keeper.watch.look", "// event Test::lock.keeper.watch.look");
        String more = LOCK.replace(
                "accept after patience then idle;",
                "accept after 2 [s] then more; state more; accept after patience - 2 [s] then idle;");
        assertThat(Objects.requireNonNull(replay(more, free).comparison()).sentence())
                .isEqualTo("happens as recorded, all 10 steps");
        String never = LOCK.replace("accept after patience then idle;", "accept after patience + 1000 [s] then idle;");
        assertThat(Objects.requireNonNull(replay(never, free).comparison()).sentence())
                .isEqualTo(
                        "differs from the recording at t = 10.5 s: recorded is keeper.mode.idle begins, which does not happen now");
    }

    /** A stimulus at an instant comes when all that is due there has happened, as it did on the bench. */
    @Test
    void whatComesAtTheSameInstantComesAfterwards() {
        String idle = "event Test::lock.keeper.mode.idle : Begins { attribute :>> at = 10.5 [s]; }";
        String late = RECORDING
                .replaceAll("message[^{]*\\{ attribute :>> at = 4 .*", "")
                .replace(
                        idle,
                        idle + "message : Told of Test::Call from outside to Test::lock.keeper.horn"
                                + " { attribute :>> at = 10.5 [s]; }");
        CaseRun run = replay(LOCK, late);
        assertThat(Objects.requireNonNull(run.comparison()).rows())
                .filteredOn(row -> row.recorded() instanceof SequenceStep.Message message && message.at() == 10.5)
                .extracting(SequenceComparison.Row::difference)
                .containsExactly(SequenceComparison.Difference.NONE);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "event lock.keeper.mode.busy; | it does not say when; write '{ attribute :>> at = 30 [s]; }' behind it",
                "event lock.keeper : Recordings::Begins { attribute :>> at = 3 [s]; } | 'lock.keeper' is neither a step nor a state",
                "message : Recordings::Told from outside to lock.keeper.horn { attribute :>> at = 3 [s]; } | it does not say of what",
                "attribute :>> timeTolerance = -1 [s]; | its time tolerance is -1.0 s; it is 0 or more",
            })
    void aBadRecordingSaysWhatIsWrong(String member, String told) {
        Model model = Models.of(LOCK + "verification bad : Recordings::Recording { subject :>> system = lock;"
                + " attribute :>> stopTime = 5 [s]; " + member + " objective { verify letsIn; } }");
        assertThatThrownBy(() -> Sequence.of(model, Models.element(model, "Test::bad"), new Flattening(model)))
                .isInstanceOf(ModelFault.class)
                .hasMessageContaining(told);
        CaseRun run = CaseRun.of(model, Models.element(model, "Test::bad"), RunControl.NONE);
        assertThat(run.judgements()).extracting(Judgement::verdict).containsExactly(VerdictKind.ERROR);
    }

    @Test
    void whatNobodyAcceptsAnyMoreIsADifference() {
        String deaf = LOCK.replaceAll("transition hear [^;]*;", "");
        assertThat(Objects.requireNonNull(replay(deaf, RECORDING).comparison()).sentence())
                .startsWith(
                        "differs from the recording at t = 3 s: recorded is Call (length = 30 [m], urgent = false) from outside "
                                + "to keeper.horn, which does not happen now");
    }
}
