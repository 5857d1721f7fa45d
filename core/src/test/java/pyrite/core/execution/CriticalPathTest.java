package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Locale;
import org.junit.jupiter.api.Test;
import pyrite.core.execution.EventLog.Kind;

/** Small behaviours whose critical path can be told by hand; networks of any form are in {@link TimeNetworksTest}. */
class CriticalPathTest {
    private static CriticalPath.End end(EventLog log, Kind kind, String path) {
        return new CriticalPath.End(
                kind, log.subjects().stream().map(Subject::path).toList().indexOf(path));
    }

    private static List<String> lines(EventLog log, CriticalPath way) {
        return way.parts().stream()
                .map(part -> log.subjects().get(part.subject()).path() + " "
                        + part.what().name().toLowerCase(Locale.ROOT) + " " + part.took())
                .toList();
    }

    private static List<String> upTo(String model, Kind kind, String path) {
        EventLog log = Played.of(model, 100).engine().log();
        EventLog read = HappenedBytes.read(HappenedBytes.write(new Happened(log, Standstill.NONE)))
                .log();
        CriticalPath way = CriticalPath.upTo(log, end(log, kind, path)).orElseThrow();
        assertThat(CriticalPath.upTo(read, end(log, kind, path))).contains(way);
        return lines(log, way);
    }

    private static String step(String name, double duration, String more) {
        return "action " + name + " : TimedAction { attribute :>> duration = " + duration + " [s]; " + more + "}";
    }

    @Test
    void aJoinIsReachedOverTheLastOfItsBranches() {
        assertThat(upTo(
                        "part p { perform action w { first start; then fork f; then a; then b; " + step("a", 3, "")
                                + " then both; " + step("b", 5, "") + " then both; join both; then c; "
                                + step("c", 2, "")
                                + " then done; } }",
                        Kind.ENDED,
                        "p.w"))
                .containsExactly("p.w.b active 5.0", "p.w.c active 2.0");
    }

    @Test
    void whoWaitsForAPoolWaitsForItsHolder() {
        String claim = "item :>> claims : Claim { ref part :>> pool = q; } ";
        assertThat(upTo(
                        "part def Q :> Pool { attribute :>> capacity = 1; } part p { part q : Q;"
                                + " perform action w { first start; then fork f; then a; then b; " + step("a", 3, claim)
                                + " then done; " + step("b", 5, claim) + " then done; } }",
                        Kind.ENDED,
                        "p.w.b"))
                .containsExactly("p.w.a active 3.0", "p.w.b active 5.0");
    }

    @Test
    void anItemIsOnTheWay() {
        String model = """
                item def X; port def D { out item x : X; }
                interface def Radio :> Channel { end port one : D; end port other : ~D; attribute :>> latency = 4 [s]; }
                part def S { port d : D; perform action w { first start; then action wait accept after 2 [s];
                    then action give send new X() via d; then done; } }
                part def R { port d : ~D; perform action w { first start; then action take accept X via d; then done; } }
                part p { part s : S; part r : R; interface radio : Radio connect s.d to r.d; }
                """;
        assertThat(upTo(model, Kind.ENDED, "p.r.w"))
                .containsExactly("p.s.w.wait active 2.0", "p.r.w.take on_the_way 4.0");
        EventLog log = Played.of(model, 100).engine().log();
        CriticalPath way = CriticalPath.between(
                        log, end(log, Kind.STARTED, "p.s.w.give"), end(log, Kind.ENDED, "p.r.w.take"))
                .orElseThrow();
        assertThat(way.hasBegin()).isTrue();
        assertThat(lines(log, way)).containsExactly("p.r.w.take on_the_way 4.0");
        assertThat(CriticalPath.between(log, end(log, Kind.ENDED, "p.r.w.take"), end(log, Kind.STARTED, "p.s.w.give")))
                .isEmpty();
    }

    @Test
    void whatDoesNotFollowFromTheEarlierEventSaysSo() {
        EventLog log = Played.of(
                        "part p { perform action w { first start; then fork f; then a; then b; " + step("a", 3, "")
                                + " then done; " + step("b", 5, "") + " then done; } }",
                        100)
                .engine()
                .log();
        CriticalPath way = CriticalPath.between(log, end(log, Kind.ENDED, "p.w.a"), end(log, Kind.ENDED, "p.w.b"))
                .orElseThrow();
        assertThat(way.hasBegin()).isFalse();
        assertThat(lines(log, way)).containsExactly("p.w.b active 2.0");
    }

    @Test
    void aStateIsLeftAfterItsTime() {
        assertThat(upTo("""
                part p { state def M { entry; then a; state a; state b; transition first a accept after 7 [s] then b; }
                    exhibit state m : M; }""", Kind.ENTERED, "p.m.b")).containsExactly("p.m.a waiting 7.0");
    }
}
