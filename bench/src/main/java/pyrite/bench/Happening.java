package pyrite.bench;

import java.util.List;
import java.util.PriorityQueue;
import java.util.concurrent.TimeUnit;
import org.hipparchus.random.Well19937c;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.RunControl;
import pyrite.core.dynamics.RunSettings;
import pyrite.core.dynamics.Simulation;
import pyrite.core.dynamics.SortedSystem;
import pyrite.core.dynamics.Sorting;
import pyrite.core.execution.Engine;
import pyrite.core.execution.Program;
import pyrite.core.execution.ProgramBuilder;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.Source;

/**
 * Behaviour in discrete time beside a loop by hand that does the same: a queue with one server over so many customers,
 * against a bare priority queue that draws, counts and serves; and a state machine that is sent to and fro, against a
 * switch. The goals are a ratio of 3 and of 10 at the most. Both sides of the queue draw from the same kind of streams;
 * the model's side also logs every event.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 3)
@Measurement(iterations = 5, time = 3)
@Fork(
        value = 1,
        jvmArgsAppend = {"-XX:+UseSerialGC", "-Xms3g"})
public class Happening {
    private static final int CUSTOMERS = 100_000;
    private static final int TURNS = 100_000;

    private final Ready queue = Ready.of("""
            part def Station :> Pool { attribute :>> capacity = 1; }
            part p { part server : Station;
                perform action visit { first start; then merge again;
                    then action gap : TimedAction { attribute :>> duration = exponential(1 [s]); }
                    then fork both; then serve; then again;
                    action serve : TimedAction { attribute :>> duration = exponential(0.8 [s]);
                        item :>> claims : Claim { ref part :>> pool = server; } } } }
            """, CUSTOMERS);
    private final Ready turning = Ready.of("""
            part p { exhibit state m { entry; then on; state on; accept after 1 [s] then off;
                state off; accept after 1 [s] then on; } }
            """, TURNS);

    /** A system that is ready to run. */
    private record Ready(Program program, SortedSystem sorted, double stop) {
        static Ready of(String text, double stop) {
            String whole = "package P {\nprivate import ScalarValues::*; private import ISQ::*; private import SI::*;"
                    + " private import Dynamics::*; private import Execution::*;\n" + text + "}\n";
            Model model = NotationReader.read(Library.model(), List.of(new Source("bench", whole)))
                    .model();
            Element part = model.ownElements().stream()
                    .filter(e -> "p".equals(e.name()))
                    .findFirst()
                    .orElseThrow();
            Flattening flattening = new Flattening(model);
            flattening.running(part);
            Program program = ProgramBuilder.build(model, flattening);
            return new Ready(program, Sorting.sort(program.flat()), stop);
        }

        int run() {
            Engine engine = new Engine(program, 1, 0);
            Simulation simulation = Simulation.of(sorted, RunSettings.of(0, stop), RunControl.NONE, engine);
            simulation.begin();
            simulation.advance(stop);
            return engine.log().size();
        }
    }

    @Benchmark
    public int queueAsModel() {
        return queue.run();
    }

    private record Event(double time, long order, boolean isArrival) implements Comparable<Event> {
        @Override
        public int compareTo(Event other) {
            int byTime = Double.compare(time, other.time);
            return byTime != 0 ? byTime : Long.compare(order, other.order);
        }
    }

    @Benchmark
    public long queueByHand() {
        Well19937c gaps = new Well19937c(1);
        Well19937c services = new Well19937c(2);
        PriorityQueue<Event> agenda = new PriorityQueue<>();
        long order = 0;
        int waiting = 0;
        boolean isBusy = false;
        long served = 0;
        agenda.add(new Event(-Math.log1p(-gaps.nextDouble()), order++, true));
        while (agenda.peek().time() < CUSTOMERS) {
            Event event = agenda.poll();
            if (event.isArrival()) {
                agenda.add(new Event(event.time() - Math.log1p(-gaps.nextDouble()), order++, true));
                waiting++;
            } else {
                isBusy = false;
                served++;
            }
            if (!isBusy && waiting > 0) {
                waiting--;
                isBusy = true;
                agenda.add(new Event(event.time() - 0.8 * Math.log1p(-services.nextDouble()), order++, false));
            }
        }
        return served;
    }

    @Benchmark
    public int machineAsModel() {
        return turning.run();
    }

    @Benchmark
    public int machineByHand() {
        PriorityQueue<Event> agenda = new PriorityQueue<>();
        long order = 0;
        boolean isOn = true;
        int turns = 0;
        agenda.add(new Event(1, order++, true));
        while (agenda.peek().time() <= TURNS) {
            Event event = agenda.poll();
            switch (isOn ? 1 : 0) {
                case 1 -> isOn = false;
                default -> isOn = true;
            }
            turns++;
            agenda.add(new Event(event.time() + 1, order++, true));
        }
        return turns;
    }
}
