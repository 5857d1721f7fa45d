package pyrite.core.execution;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import pyrite.core.execution.EventLog.Kind;

/** Networks of steps against second methods: the longest path, and Little's law. */
class TimeNetworksTest {
    /** Steps in layers, each behind some of the layer before: it begins when the latest of them has ended. */
    @Property(tries = 60)
    void aNetworkTakesAsLongAsItsLongestPath(@ForAll long seed, @ForAll @IntRange(min = 1, max = 5) int layers) {
        Random random = new Random(seed);
        StringBuilder text = new StringBuilder();
        Map<String, Integer> durations = new HashMap<>(Map.of("a0", 0));
        Set<String> successions = new HashSet<>();
        List<Double> ends = new ArrayList<>(List.of(0.0));
        List<String> names = new ArrayList<>(List.of("a0"));
        text.append("first start; then a0; action a0; ");
        int count = 1;
        List<Integer> before = List.of(0);
        for (int layer = 0; layer < layers; layer++) {
            List<Integer> here = new ArrayList<>();
            for (int i = 0; i < 1 + random.nextInt(3); i++) {
                int duration = 1 + random.nextInt(9);
                double begin = 0;
                for (int from : before) {
                    if (from == before.getFirst() || random.nextBoolean()) {
                        begin = Math.max(begin, ends.get(from));
                        successions.add(names.get(from) + " a" + count);
                        text.append("first ")
                                .append(names.get(from))
                                .append(" then a")
                                .append(count)
                                .append("; ");
                    }
                }
                text.append("action a")
                        .append(count)
                        .append(" : TimedAction { attribute :>> duration = ")
                        .append(duration)
                        .append(" [s]; } ");
                names.add("a" + count);
                durations.put("a" + count, duration);
                ends.add(begin + duration);
                here.add(count++);
            }
            before = here;
        }
        Played played = Played.of("part p { perform action w { " + text + " } }", 1000);
        double longest = ends.stream().mapToDouble(Double::doubleValue).max().orElseThrow();
        assertThat(played.lines(Kind.ENDED)).last().isEqualTo(longest + " ended p.w");
        String last = "a0";
        double sum = 0;
        for (CriticalPath.Part part : criticalPath(played.engine().log(), "p.w")) {
            String step =
                    played.engine().log().subjects().get(part.subject()).path().substring("p.w.".length());
            assertThat(part.took()).isEqualTo(durations.get(step).doubleValue());
            assertThat(last.equals("a0") || successions.contains(last + " " + step))
                    .as(last + " leads to " + step)
                    .isTrue();
            last = step;
            sum += part.took();
        }
        assertThat(sum).isEqualTo(longest);
    }

    private static List<CriticalPath.Part> criticalPath(EventLog log, String path) {
        int subject = log.subjects().stream().map(Subject::path).toList().indexOf(path);
        return CriticalPath.upTo(log, new CriticalPath.End(Kind.ENDED, subject))
                .orElseThrow()
                .parts();
    }

    /**
     * Little 1961: what is in the system is the rate of arrivals times the time spent there, on every path that
     * empties.
     */
    @Property(tries = 20)
    void whatIsThereIsRateTimesStay(@ForAll @IntRange(min = 1, max = 1_000_000) int seed) {
        Played played = Played.of("""
                part def Station :> Pool { attribute :>> capacity = 2; }
                part p { part server : Station; attribute n : Real := 0; perform action visit { first start;
                    then while n < 200 { first start; then accept after exponential(1 [s]); then assign n := n + 1;
                        then done; } then done; }
                    perform action served { first start; then merge again;
                        then action come accept after exponential(1 [s]); then fork both; then stay; then more;
                        decide more; if n < 200 then again; else done;
                        action stay { first start; then action serve : TimedAction { attribute :>> duration = uniform(0.5 [s], 2.5 [s]);
                            item :>> claims : Claim { ref part :>> pool = server; } } then done; } then done; } }
                """, 2_000, seed);
        EventLog log = played.engine().log();
        double inside = 0;
        double arrived = 0;
        double last = 0;
        for (int i = 0; i < log.size(); i++) {
            EventLog.Event event = log.get(i);
            if (log.subjects().get(event.subject()).path().equals("p.served.stay")) {
                if (event.kind() == Kind.STARTED) {
                    arrived++;
                    inside -= event.time();
                } else if (event.kind() == Kind.ENDED) {
                    inside += event.time();
                    last = event.time();
                }
            }
        }
        int started = played.index("started(p.served.stay)");
        int ended = played.index("ended(p.served.stay)");
        double area = 0;
        for (int i = 0; i < played.trajectory().stepCount(); i++) {
            double from = played.trajectory().step(i).from();
            double[] v = played.trajectory().at(i, from);
            area += (v[started] - v[ended]) * (played.trajectory().step(i).to() - from);
        }
        double stay = inside / arrived;
        assertThat(area / last).isCloseTo(arrived / last * stay, within(1e-9 * area));
    }

    @Test
    void aTandemLineHasTheRateOfItsSlowestStation() {
        Played played = Played.of("""
                item def Box; port def D { in item b : Box; }
                part def Station { port in1 : D; port out1 : ~D; attribute takes : TimeValue; attribute made : Real := 0;
                    perform action work { first start; then loop { first start; then accept Box via in1;
                        then action a : TimedAction { attribute :>> duration = takes; } then assign made := made + 1;
                            then send new Box() via out1; then done; } then done; } }
                part p { port feed : ~D; part one : Station { attribute :>> takes = 2 [s]; } part two : Station {
                    attribute :>> takes = 5 [s]; } part three : Station { attribute :>> takes = 3 [s]; }
                    connect feed to one.in1; connect one.out1 to two.in1; connect two.out1 to three.in1;
                    perform action give { first start; then loop { first start; then send new Box() via feed;
                        then accept after 1 [s]; then done; } then done; } }
                """, 1000);
        // The first box is through after 10 s; then one comes each 5 s.
        assertThat(played.at("p.three.made", 999.5)).isEqualTo(Math.floor((999.5 - 10) / 5) + 1);
    }
}
