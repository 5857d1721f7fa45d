package pyrite.core.verification;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;
import pyrite.core.Models;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;

/** Random edits of behaviour: where a fresh verdict differs from the one before, the one before counts as stale. */
class BehaviorFreshnessLawTest {
    private static final Model MODEL = Models.of("""
            private import Execution::*;
            item def Order :> Sized { attribute :>> size : Real default 2; attribute urgent : Real default 0; }
            item def Rush :> Order;
            item def Done1;
            port def Desk { in item order : Order; out item done1 : Done1; }
            interface def Wire :> Channel { end port one : ~Desk; end port other : Desk;
                attribute :>> rate = 4 [Hz]; attribute :>> latency = 0.5 [s]; }
            flow def Lane :> PacedFlow { attribute :>> rate = 10 [Hz]; attribute :>> latency = 0.2 [s]; }
            part def Oven :> Pool { attribute :>> capacity = 2; }
            action def Bake :> TimedAction { in attribute n : Real; out attribute m : Real = n + 1; attribute :>> duration = 1 [s]; }
            state def Modes { entry; then idle; state idle; state busy { entry assign load := load + 1; }
                attribute load : Real := 0;
                transition go first idle accept o : Order if o.size > 1 then busy;
                transition back first busy accept after 3 [s] then idle; }
            state def Special :> Modes { state late; transition first busy accept when load > 1 then late; }
            part def Shop {
                port desk : Desk; part oven : Oven; attribute heat : Real := 1; attribute warmth : Real := 0;
                assert constraint { der(warmth) == (heat - warmth) / 2 [s] }
                exhibit state modes : Special;
                perform action serve { first start;
                    then loop { first start; then action take accept o : Order via desk;
                        then action bake : TimedAction { attribute :>> duration = take.o.size * 0.3 [s];
                            item :>> claims : Claim { ref part :>> pool = oven; attribute :>> amount = 2; } }
                        then decide; if heat < 3 then warm; else cool;
                        action warm assign heat := heat + 1; then over; action cool assign heat := 1; then over; merge over;
                        then send new Done1() via desk; then done; } until heat > 9; then done; }
                perform action one { out attribute n : Real = 4; }
                perform action two : Bake;
                flow lane : Lane from one.n to two.n;
            }
            part def Guest { port desk : ~Desk; ref part shop : Shop;
                perform action ask { first start; then for i in (1, 2, 3) { first start; then accept after 1 [s];
                    then send new Order(size = i) via desk; then if i > 2 { send new Rush() to shop; } else {
                        send new Order() to shop; } then done; } then done; }
                perform action hear { first start; then merge again; then action got accept Done1 via desk; then again; } }
            part town { part shop : Shop; part guest : Guest { ref part :>> shop = town.shop; }
                interface wire : Wire connect guest.desk to shop.desk; }
            requirement served { subject s : Shop; attribute within1 : TimeValue = 6 [s];
                require constraint { firstTime(count(s.serve) >= 0 and s.heat > 2) <= within1 } }
            requirement calm { subject s : Shop; require constraint { duration(active(s.modes.busy)) <= 8 [s] } }
            requirement warm { subject s : Shop; require constraint { maximum(s.warmth) >= 1.5 } }
            requirement shared { subject s : Shop; require constraint { maximum(used(s.oven)) <= 2 and maximum(queue(s.oven)) <= 1 } }
            requirement heard { subject g : Guest; require constraint { done(g.ask) implies started(g.hear) } }
            requirement swift { subject s : Shop; require constraint { firstTime(done(s.two)) <= 1.35 [s] } }
            satisfy swift by town.shop; satisfy served by town.shop; satisfy calm by town.shop; satisfy warm by town.shop; satisfy shared by town.shop;
            satisfy heard by town.guest;
            verification check : SimulatedCheck { subject :>> system = town; attribute :>> stopTime = 12 [s];
                objective { verify served; verify calm; verify warm; verify shared; verify heard; verify swift; } }
            verification replay : Recordings::Recording { subject :>> system = town; attribute :>> stopTime = 6 [s];
                attribute :>> complete = false; attribute :>> timeTolerance = 1.2 [s];
                message : Recordings::Told of o : Order = new Order(size = 5) from outside to town.shop.desk { attribute :>> at = 0.5 [s]; }
                event town.shop.modes.busy : Recordings::Begins { attribute :>> at = 0.5 [s]; }
                action : Recordings::Sets assign town.shop.heat := 2 { attribute :>> at = 1 [s]; }
                event town.shop.modes.idle : Recordings::Begins { attribute :>> at = 3.5 [s]; }
                objective { verify calm; verify warm; } }
            """);

    private static final List<String> VALUES =
            List.of("3", "0.25", "true", "heat", "2 [s]", "0.1 [Hz]", "uniform(1, 2)", "-1", "load", "5 [s]");
    private static final List<String> MEMBERS = List.of(
            "then action more : TimedAction { attribute :>> duration = 2 [s]; }",
            "attribute :>> duration = 4 [s]",
            "attribute :>> size = 9",
            "attribute :>> size : Real = 7",
            "attribute size : Real = 7",
            "attribute :>> capacity = 1",
            "attribute :>> rate = 1 [Hz]",
            "accept Rush then late",
            "transition :>> go first idle accept Rush then late",
            "transition first idle accept after 1 [s] then busy",
            "then assign heat := 0",
            "perform action extra { first start; then assign heat := 7; then done; }",
            "entry assign load := 5",
            "exit assign load := 5",
            "do action long : TimedAction { attribute :>> duration = 1 [s]; }",
            "action :>> warm assign heat := 5",
            "perform action :>> serve",
            "first start then done",
            "if heat > 1 then over",
            "state idle",
            "item :>> claims : Claim { ref part :>> pool = oven; attribute :>> amount = 1; }",
            "terminate",
            "flow from one.n to two.n",
            "attribute :>> stopTime = 3 [s]",
            "attribute :>> seed = 4",
            "attribute :>> inside = false",
            "attribute load : Real := 3",
            "attribute :>> at = 2 [s]",
            "attribute :>> timeTolerance = 0.01 [s]",
            "attribute :>> complete = true",
            "event town.shop.modes.busy : Recordings::Begins { attribute :>> at = 4 [s]; }",
            "message : Recordings::Told of Rush from outside to town.shop.desk { attribute :>> at = 2 [s]; }",
            "exhibit state other : Modes");

    private static final RandomEdits EDITS = new RandomEdits(MODEL, VALUES, MEMBERS);
    private static final Map<String, Judgement> BEFORE = judgements(MODEL, RunControl.NONE);

    private static Map<String, Judgement> judgements(Model model, RunControl control) {
        Map<String, Judgement> byPlace = new TreeMap<>();
        model.ownElements().stream()
                .filter(e -> e.kind() == ElementKind.VERIFICATION)
                .forEach(check -> CaseRun.of(model, check, control)
                        .judgements()
                        .forEach(judgement -> byPlace.put(
                                check.id() + " " + judgement.requirement() + " " + judgement.subject(), judgement)));
        return byPlace;
    }

    @Test
    void theModelIsJudged() {
        assertThat(BEFORE.values())
                .extracting(judgement -> judgement.verdict() + " " + judgement.reason())
                .hasSize(8)
                .allMatch(said -> said.startsWith("PASS") || said.startsWith("FAIL"));
    }

    private static RunControl patience() {
        long end = System.nanoTime() + 2_000_000_000L;
        return new RunControl() {
            @Override
            public boolean isCancelled() {
                return System.nanoTime() > end;
            }
        };
    }

    @Property(tries = 1000)
    void aVerdictThatAFreshOneContradictsIsStale(@ForAll long seed) {
        Random random = new Random(seed);
        Edit edit = EDITS.next(random);
        if (edit == null || !(MODEL.apply(edit) instanceof EditResult.Applied(Model after, var difference))) {
            return;
        }
        Map<String, Judgement> now = judgements(after, patience());
        if (now.values().stream().anyMatch(judgement -> judgement.reason().startsWith("cancelled"))) {
            return;
        }
        BEFORE.forEach((place, before) -> {
            if (before.fingerprint().changedIn(after).isEmpty()) {
                assertThat(now.containsKey(place) ? said(now.get(place)) : "nothing")
                        .as(() -> before.subject() + " after " + difference.changes())
                        .isEqualTo(said(before));
            }
        });
    }

    private static String said(Judgement judgement) {
        return judgement.verdict() + " " + judgement.margin() + " " + judgement.worstInstant() + " "
                + judgement.firstViolation() + " " + judgement.reason();
    }
}
