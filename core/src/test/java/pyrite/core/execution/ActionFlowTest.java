package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import pyrite.core.execution.EventLog.Kind;

/** Steps in time (SysML 2.0, 7.17), each case with an answer that can be worked out by hand. */
class ActionFlowTest {
    @Test
    void stepsFollowEachOtherInTime() {
        Played played = Played.of("""
                part p { perform action work { first start; then action a : TimedAction { attribute :>> duration = 3 [s]; }
                    then action b : TimedAction { attribute :>> duration = 2 [s]; } then done; } }
                """, 10);
        assertThat(played.lines())
                .containsExactly(
                        "0.0 started p.work",
                        "0.0 started p.work.a",
                        "3.0 ended p.work.a",
                        "3.0 started p.work.b",
                        "5.0 ended p.work.b",
                        "5.0 ended p.work");
    }

    @Test
    void aKitchenServesWhatIsOrdered() {
        Played played = Played.of("""
                item def Order { attribute size : Real; } item def Cup;
                port def Counter { in item order : Order; out item cup : Cup; }
                part def Stove :> Pool { attribute :>> capacity = 2; }
                part def Kitchen {
                    part stove : Stove;
                    port counter : Counter;
                    attribute heat : Real := 0;
                    perform action serve {
                        first start;
                        then action take accept order : Order via counter;
                        then action boil : TimedAction {
                            attribute :>> duration = take.order.size * 1 [min];
                            item :>> claims : Claim { ref part :>> pool = stove; attribute :>> amount = 1; }
                        }
                        then fork prepare;
                            then pour;
                            then fetch;
                        action pour : TimedAction { attribute :>> duration = 10 [s]; }
                        then both;
                        action fetch : TimedAction { attribute :>> duration = 15 [s]; }
                        then both;
                        join both;
                        then action warm assign heat := heat + take.order.size;
                        then action give send new Cup() via counter;
                        then done;
                    }
                }
                part def Guest { port table : ~Counter;
                    perform action dine { first start;
                        then action think : TimedAction { attribute :>> duration = 5 [s]; }
                        then action ask send new Order(size = 3) via table;
                        then action drink accept Cup via table; then done; } }
                part p { part kitchen : Kitchen; part guest : Guest; connect kitchen.counter to guest.table; }
                """, 600);
        assertThat(played.lines(Kind.STARTED, Kind.ENDED, Kind.ACCEPTED))
                .contains(
                        "5.0 accepted p.kitchen.serve.take: Order 1 via p.kitchen.counter",
                        "185.0 ended p.kitchen.serve.boil",
                        "195.0 ended p.kitchen.serve.pour",
                        "200.0 ended p.kitchen.serve.fetch",
                        "200.0 started p.kitchen.serve.give",
                        "200.0 ended p.guest.dine");
        assertThat(played.at("p.kitchen.heat", 199)).isZero();
        assertThat(played.at("p.kitchen.heat", 201)).isEqualTo(3);
        assertThat(played.at("used(p.kitchen.stove)", 100)).isEqualTo(1);
        assertThat(played.at("used(p.kitchen.stove)", 190)).isZero();
    }

    /** SysML 2.0, 7.17.1: what no succession orders is performed concurrently. */
    @Test
    void aStepThatNothingLeadsToBeginsBesideTheStart() {
        assertThat(Played.of("""
                part p { attribute x : Real := 0; perform action w { first start;
                    then action a : TimedAction { attribute :>> duration = 3 [s]; } then done;
                    action b : TimedAction { attribute :>> duration = 5 [s]; }
                    then action c assign x := 2;
                    calc twice { return : Real = 2; } } }
                """, 10).lines(Kind.STARTED, Kind.ENDED))
                .containsExactly(
                        "0.0 started p.w",
                        "0.0 started p.w.a",
                        "0.0 started p.w.b",
                        "3.0 ended p.w.a",
                        "5.0 ended p.w.b",
                        "5.0 started p.w.c",
                        "5.0 ended p.w.c",
                        "5.0 ended p.w");
    }

    private static java.util.List<String> steps(String body, double stop) {
        return Played.of(
                        "item def Go; item def Box { attribute n : Real; }\npart p { attribute x : Real := 0; perform action w { "
                                + body + " } }",
                        stop)
                .lines(Kind.STARTED, Kind.ENDED, Kind.CUT, Kind.STANDSTILL)
                .stream()
                .map(line -> line.replace("p.w.", ""))
                .filter(line -> !line.contains("send") && !line.contains("assign"))
                .toList();
    }

    private static final String A = "action a : TimedAction { attribute :>> duration = 1 [s]; }";
    private static final String B = "action b : TimedAction { attribute :>> duration = 2 [s]; }";

    @Test
    void aJoinWaitsForAllAndAMergeForAny() {
        // SysML 2.0, 7.17.4: control nodes.
        assertThat(steps(
                        "first start; then fork f; then a; then b; " + A + " then j; " + B
                                + " then j; join j; then action c; then done;",
                        9))
                .containsSubsequence("1.0 ended a", "2.0 ended b", "2.0 started c", "2.0 ended p.w");
        assertThat(steps(
                        "first start; then fork f; then a; then b; " + A + " then m; " + B
                                + " then m; merge m; then action c; then done;",
                        9))
                .containsSubsequence("1.0 started c", "2.0 started c", "2.0 ended p.w");
    }

    @Test
    void aDecisionTakesTheFirstBranchThatIsOpen() {
        String rest = " action one; then done; action two; then done; action three; then done;";
        assertThat(steps("first start; then decide; if x > 1 then one; if x < 1 then two; else three;" + rest, 9))
                .contains("0.0 started two")
                .noneMatch(line -> line.contains("one") || line.contains("three"));
        assertThat(steps("first start; then decide; if x > 1 then one; else three;" + rest, 9))
                .contains("0.0 started three");
        assertThat(steps("first start; then decide d; if x > 1 then one; if x > 2 then two;" + rest, 9))
                .last()
                .isEqualTo("0.0 standstill p.w: no branch of 'd' is open (p.x = 0)");
    }

    @Test
    void aBehaviourDoesNotEndWhereADecisionInItIsBlocked() {
        String body = "first start; then fork f; then d; then a; " + A + " decide d; if x > 1 then b; " + B
                + " decide e; if x > 2 then b;";
        assertThat(steps(body, 9))
                .contains("1.0 ended a", "1.0 standstill p.w: no branch of 'd' is open (p.x = 0)")
                .noneMatch(line -> line.endsWith("ended p.w"));
        assertThat(steps(body.replace(A, A + " then e; "), 9))
                .contains(
                        "1.0 standstill p.w: no branch of 'd' is open (p.x = 0)",
                        "1.0 standstill p.w: no branch of 'e' is open (p.x = 0)")
                .noneMatch(line -> line.endsWith("ended p.w"));
        // One that is cut off waits no more.
        assertThat(steps(body.replace(A, A + " then stop; action stop terminate; "), 9))
                .last()
                .isEqualTo("1.0 ended p.w");
    }

    @Test
    void loopsGoRoundUntilTheirConditionHolds() {
        assertThat(steps(
                        "first start; then while x < 3 { first start; then action a : TimedAction { attribute :>> duration = 1 "
                                + "[s]; } then assign x := x + 1; then done; } then action after1; then done;",
                        9))
                .contains("3.0 started after1")
                .filteredOn(line -> line.contains("started") && line.endsWith(".a"))
                .hasSize(3);
        assertThat(steps(
                        "first start; then loop { first start; then action a : TimedAction { attribute :>> duration = 1 [s]; } "
                                + "then assign x := x + 1; then done; } until x >= 2; then action after1; then done;",
                        9))
                .contains("2.0 started after1");
        Played sum = Played.of(
                "part p { attribute x : Real := 0; perform action w { first start; then for i in (1, 2, 4) { assign x := "
                        + "x + i; } then done; } }",
                1);
        assertThat(sum.at("p.x", 1)).isEqualTo(7);
    }

    @Test
    void anIfDoesOneOrTheOther() {
        String model =
                "part p { attribute x : Real := %s; attribute y : Real := 0; perform action w { first start; then if x > "
                        + "2 { assign y := 1; } else if x > 1 { assign y := 2; } else { assign y := 3; } then done; } }";
        assertThat(Played.of(model.formatted("5"), 1).at("p.y", 1)).isEqualTo(1);
        assertThat(Played.of(model.formatted("1.5"), 1).at("p.y", 1)).isEqualTo(2);
        assertThat(Played.of(model.formatted("0"), 1).at("p.y", 1)).isEqualTo(3);
    }

    @Test
    void terminateEndsTheBehaviourAroundOrAStep() {
        assertThat(steps("first start; then fork f; then a; then b; " + A + " then terminate; " + B + " then done;", 9))
                .contains("1.0 cut b", "1.0 ended p.w");
        assertThat(steps(
                        "first start; then fork f; then a; then b; " + A + " then terminate b; " + B + " then done;",
                        9))
                .contains("1.0 ended b");
    }

    @Test
    void timesAreWaitedFor() {
        assertThat(steps(
                        "first start; then action w1 accept after 3 [s]; then action w2 accept at 10 [s]; then action w3 accept "
                                + "at 4 [s]; then action w4 accept when time > 12 [s]; then done;",
                        20))
                .contains("3.0 ended w1", "10.0 ended w2", "10.0 ended w3", "12.0 ended w4");
    }

    @Test
    void anActionWithStepsIgnoresItsDurationUnlessItIsToldOtherwise() {
        String inner =
                "action a : TimedAction { attribute :>> duration = 7 [s]; %s action i : TimedAction { attribute :>> duration = 2 [s]; } }";
        assertThat(steps("first start; then " + inner.formatted("") + " then done;", 20))
                .contains("2.0 ended a");
        assertThat(steps("first start; then " + inner.formatted("attribute :>> inside = false;") + " then done;", 20))
                .contains("7.0 ended a");
    }

    @Test
    void itemsFlowFromStepToStep() {
        Played played = Played.of("""
                item def Box { attribute n : Real; }
                action def Pack :> TimedAction { in attribute n : Real; out attribute twice : Real = 2 * n;
                    attribute :>> duration = 1 [s]; }
                part p { attribute got : Real := 0;
                    perform action w { first start;
                        action give : TimedAction { out attribute n : Real = 21; attribute :>> duration = 3 [s]; }
                        action pack : Pack; action take { in attribute t : Real; assign got := t; }
                        flow from give.n to pack.n; flow from pack.twice to take.t; } }
                """, 20);
        assertThat(played.lines(Kind.STARTED)).contains("3.0 started p.w.pack", "4.0 started p.w.take");
        assertThat(played.at("p.got", 3.5)).isZero();
        assertThat(played.at("p.got", 4.5)).isEqualTo(42);
    }

    @Test
    void aStepThatOnlyWaitsForItemsBeginsWheneverTheyArrive() {
        Played played = Played.of("""
                part p { attribute n : Real := 0; attribute got : Real := 0;
                    perform action w {
                        action round { first start; then while n < 3 { first start; then accept after 2 [s]; then assign n := n + 1;
                            then action tell { out attribute m : Real = n; } then done; flow from tell.m to keep.m; } then done; }
                        action keep { in attribute m : Real; assign got := got * 10 + m; } } }
                """, 20);
        assertThat(played.at("p.got", 20)).isEqualTo(123);
    }

    @Test
    void functionsOfPartsHandOnWhatFlowsBetweenThem() {
        Played played = Played.of("""
                item def Reading { attribute level : Real; }
                action def Measure :> TimedAction { out item reading : Reading; attribute :>> duration = 2 [s]; }
                action def Judge :> TimedAction { in item reading : Reading; attribute :>> duration = 1 [s]; }
                part def Sensor { perform action measure : Measure; } part def Brain { perform action judge : Judge; }
                part p { part sensor : Sensor; part brain : Brain; flow of Reading from sensor.measure.reading to brain.judge.reading; }
                """, 9);
        assertThat(played.lines(Kind.STARTED, Kind.ENDED))
                .containsExactly(
                        "0.0 started p.sensor.measure",
                        "2.0 ended p.sensor.measure",
                        "2.0 started p.brain.judge",
                        "3.0 ended p.brain.judge");
    }

    @Test
    void severalPerformancesOfOneStepKeepTheirOwnValues() {
        Played played = Played.of("""
                item def Job { attribute n : Real; }
                part p { attribute sum : Real := 0; attribute last : Real := 0; port def Door { in item job : Job; }
                    port door : Door; port back : ~Door; connect door to back;
                    perform action w { first start; then merge again; then action take accept job : Job via door;
                        then fork f; then handle; then again;
                        action handle { attribute mine : Real := take.job.n;
                            first start; then action wait1 : TimedAction { attribute :>> duration = (10 - mine) * 1 [s]; }
                            then assign sum := sum * 10 + mine; then done; } }
                    perform action s { first start; then send new Job(n = 1) via back; then send new Job(n = 2) via back;
                        then send new Job(n = 3) via back; then done; } }
                """, 20);
        assertThat(played.at("p.sum", 20)).isEqualTo(321);
    }

    @Test
    void aChannelPassesSoMuchInATime() {
        Played played = Played.of("""
                item def Word :> Sized { attribute :>> size : Real default 100; }
                port def Plug { in item word : Word; }
                interface def Radio :> Channel { end port one : ~Plug; end port other : Plug;
                    attribute :>> rate : FrequencyValue = 50 [Hz]; attribute :>> latency = 1 [s]; }
                part def Sender { port plug : ~Plug; perform action talk { first start; then send new Word() via plug;
                    then send new Word(size = 50) via plug; then done; } }
                part def Receiver { port plug : Plug; perform action hear { first start; then accept Word via plug;
                    then accept Word via plug; then done; } }
                part p { part sender : Sender; part receiver : Receiver; interface radio : Radio connect sender.plug to receiver.plug; }
                """, 20);
        assertThat(played.lines(Kind.ACCEPTED))
                .extracting(line -> line.substring(0, 3))
                .containsExactly("3.0", "4.0");
    }

    /** Three boxes leave at once: 2 s a box, 5 s on the way, so the last is there after 11 s. */
    @Test
    void aPacedFlowPassesSoMuchInATime() {
        Played played = Played.of("""
                flow def Belt :> PacedFlow { attribute :>> rate : FrequencyValue = 0.5 [Hz]; attribute :>> latency = 5 [s]; }
                part p { attribute got : Real := 0; attribute last : Real := 0; attribute n : Real := 0;
                    perform action w {
                        action give { first start; then while n < 3 { first start; then assign n := n + 1;
                            then action box { out attribute m : Real = n; } then done;
                            flow : Belt from box.m to keep.m; } then done; }
                        action keep { in attribute m : Real; assign got := got * 10 + m; } } }
                """, 40);
        assertThat(played.at("p.n", 0.5)).isEqualTo(3);
        assertThat(played.at("p.got", 6.9)).isZero();
        assertThat(played.at("p.got", 7.1)).isEqualTo(1);
        assertThat(played.at("p.got", 9.1)).isEqualTo(12);
        assertThat(played.at("p.got", 11.1)).isEqualTo(123);
        assertThat(played.lines(Kind.ENDED)).last().isEqualTo("11.0 ended p.w");
    }

    /** What a step inside makes leaves the behaviour around by its own parameter. */
    @ParameterizedTest
    @CsvSource({
        "out attribute m : Real := 0, 1, ",
        "out attribute m : Real, 1, ",
        "out attribute m : Real := 0, 6, : Belt",
        "out attribute m : Real, 6, : Belt"
    })
    void whatAStepInsideMakesLeavesTheBehaviourAroundWhenThatEnds(String out, double time, String belt) {
        Played played = Played.of("""
                flow def Belt :> PacedFlow { attribute :>> latency = 5 [s]; }
                part p { attribute got : Real := 0;
                    perform action w {
                        action make { %s;
                            action cut : TimedAction { out attribute c : Real = 7; attribute :>> duration = 1 [s]; }
                            flow %s from cut.c to m; }
                        action keep { in attribute k : Real; assign got := k; }
                        flow from make.m to keep.k; } }
                """.formatted(out, belt == null ? "" : belt), 40);
        assertThat(played.at("p.got", time - 0.1)).isZero();
        assertThat(played.at("p.got", time + 0.1)).isEqualTo(7);
        assertThat(played.lines(Kind.ENDED)).last().isEqualTo(time + " ended p.w");
    }

    @Test
    void anItemMadeTwoLevelsDeepIsHandedOutLevelByLevel() {
        Played played = Played.of("""
                item def Reading { attribute level : Real; }
                part p { attribute got : Real := 0;
                    perform action w {
                        action sense { out item made : Reading;
                            action probe { out item raw : Reading;
                                action look : TimedAction { out item seen : Reading { attribute :>> level = 4; }
                                    attribute :>> duration = 2 [s]; }
                                flow from look.seen to raw; }
                            flow from probe.raw to made; }
                        action keep { in item k : Reading; assign got := k.level; }
                        flow from sense.made to keep.k; } }
                """, 5);
        assertThat(played.at("p.got", 2.1)).isEqualTo(4);
    }

    @Test
    void aBeltBetweenFunctionsOfPartsTakesItsTime() {
        Played played = Played.of("""
                item def Reading { attribute level : Real; }
                flow def Line :> PacedFlow { attribute :>> latency = 3 [s]; }
                action def Measure :> TimedAction { out item reading : Reading; attribute :>> duration = 2 [s]; }
                action def Judge :> TimedAction { in item reading : Reading; attribute :>> duration = 1 [s]; }
                part def Sensor { perform action measure : Measure; } part def Brain { perform action judge : Judge; }
                part p { part sensor : Sensor; part brain : Brain;
                    flow line : Line of Reading from sensor.measure.reading to brain.judge.reading; }
                """, 9);
        assertThat(played.lines(Kind.STARTED, Kind.ENDED))
                .containsExactly(
                        "0.0 started p.sensor.measure",
                        "2.0 ended p.sensor.measure",
                        "5.0 started p.brain.judge",
                        "6.0 ended p.brain.judge");
    }

    @Test
    void whatNobodyAcceptsIsReported() {
        assertThat(Played.of(
                                "item def Go; port def D { in item g : Go; } part p { port d : D; perform action w { first start; then "
                                        + "send new Go() via d; then done; } }",
                                1)
                        .lines(Kind.LOST))
                .containsExactly("0.0 lost p.w.send: Go 1: nobody there accepts it");
    }

    @Test
    void aPoolIsGrantedByPriorityAndThenInTheOrderOfArrival() {
        String step =
                "action %s : TimedAction { attribute :>> duration = 2 [s]; item :>> claims : Claim { ref part :>> pool = "
                        + "oven; attribute :>> amount = %s; attribute :>> priority = %s; } } then done;";
        Played played = Played.of(
                "part def Oven :> Pool { attribute :>> capacity = 10 [kW]; } part p { part oven : Oven; perform action w "
                        + "{ first start; then fork f; then a; then b; then c; then d; "
                        + step.formatted("a", "8 [kW]", "0") + step.formatted("b", "4 [kW]", "0")
                        + step.formatted("c", "6 [kW]", "1") + step.formatted("d", "2 [kW]", "0") + " } }",
                20);
        assertThat(played.lines(Kind.STARTED).subList(1, 5))
                .containsExactly("0.0 started p.w.a", "2.0 started p.w.c", "2.0 started p.w.b", "4.0 started p.w.d");
        assertThat(played.at("used(p.oven)", 3)).isEqualTo(10_000);
        assertThat(played.inWords("used(p.oven)", 3)).isEqualTo("10 kW");
        assertThat(played.at("queue(p.oven)", 1)).isEqualTo(3);
    }

    @Test
    void aLevelIsDrawnFromAndFilled() {
        Played played = Played.of("""
                part def Tank :> Pool { attribute :>> capacity = 10; attribute :>> initially = 4; }
                part p { part tank : Tank; perform action w { first start; then fork f; then take; then fill;
                    action take : TimedAction { attribute :>> duration = 1 [s]; item :>> claims : Draw {
                        ref part :>> pool = tank; attribute :>> amount = 6; } } then done;
                    action fill : TimedAction { attribute :>> duration = 3 [s]; item :>> claims : Fill {
                        ref part :>> pool = tank; attribute :>> amount = 5; } } then done; } }
                """, 20);
        assertThat(played.lines(Kind.STARTED)).contains("3.0 started p.w.take");
        assertThat(played.at("used(p.tank)", 20)).isEqualTo(7);
    }
}
