package pyrite.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import pyrite.core.dynamics.Flattening;
import pyrite.core.dynamics.Sorting;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.Source;

/**
 * Flattening and sorting a chain of equations that stand in the worst order. The goals: 10,000 in less than 2 s, and
 * about ten times the time of 1,000.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 8, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(
        value = 1,
        jvmArgsAppend = {"-XX:+UseSerialGC", "-Xms2g", "-Xss4m"})
public class Equations {
    @Param({"1000", "10000"})
    private int count;

    private Model model = Model.EMPTY;
    private Element part = Library.model().roots().getFirst();

    @Setup
    public void read() {
        StringBuilder text = new StringBuilder(
                "package P {\nprivate import ScalarValues::*; private import SI::*; private import Dynamics::*;\npart p {\n"
                        + "attribute x0 : Real = time / 1 [s];\n");
        for (int i = count; i >= 1; i--) {
            text.append("attribute x")
                    .append(i)
                    .append(" : Real; assert constraint c")
                    .append(i)
                    .append(" { 2 * x")
                    .append(i)
                    .append(" - x")
                    .append(i - 1)
                    .append(" == 1 }\n");
        }
        model = NotationReader.read(
                        Library.model(),
                        List.of(new Source("bench", text.append("}\n}\n").toString())))
                .model();
        part = model.ownElements().stream()
                .filter(e -> e.kind() == ElementKind.PART)
                .findFirst()
                .orElseThrow();
    }

    @Benchmark
    public int flatteningAndSorting() {
        Flattening flattening = new Flattening(model);
        flattening.root(part);
        return Sorting.sort(flattening.system()).assignments().size();
    }
}
