package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
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
                        "5.0 accepted p.kitchen.serve.take: 'Order' via p.kitchen.counter",
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
}
