package pyrite.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import pyrite.core.finding.Findings;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.model.Property;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.Source;

/**
 * The check of a model of some 100,000 elements: units of four parts each, wired, in groups of ten. The baseline is
 * walking over all elements once.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 4, time = 2)
@Fork(
        value = 1,
        jvmArgsAppend = {"-XX:+UseSerialGC", "-Xms3g", "-Xss4m"})
public class Checking {
    private static final int UNITS = 2_800;
    private Model model;
    private Element port;
    private Element pipe;
    private boolean isTurned;

    @Setup
    public void read() {
        model = NotationReader.read(Library.model(), List.of(new Source("units", text())))
                .model();
        System.out.println(model.ownElements().size() + " elements");
        port = named("inlet1400");
        pipe = named("pipe1400");
        Findings.in(model);
    }

    private static String text() {
        StringBuilder text =
                new StringBuilder("package Units {\nitem def Oil;\nport def Hose { in item oil : Oil; }\n");
        for (int i = 0; i < UNITS; i++) {
            text.append("""
                    part def Pump%1$d { port outlet : ~Hose; attribute mass; }
                    part def Tank%1$d { port inlet%1$d : Hose; port drain : ~Hose[0..1]; }
                    part def Unit%1$d {
                        part pump : Pump%1$d; part spare : Pump%1$d; part tank : Tank%1$d; part second : Tank%1$d;
                        connection pipe%1$d connect pump.outlet to tank.inlet%1$d;
                        connect spare.outlet to second.inlet%1$d;
                    }
                    """.formatted(i));
        }
        for (int i = 0; i < UNITS; i += 10) {
            text.append("part group").append(i).append(" {\n");
            for (int k = i; k < i + 10; k++) {
                text.append("part unit").append(k).append(" : Unit").append(k).append(";\n");
            }
            text.append("}\n");
        }
        return text.append('}').toString();
    }

    private Element named(String name) {
        return model.ownElements().stream()
                .filter(element -> name.equals(element.name()))
                .findFirst()
                .orElseThrow();
    }

    @Benchmark
    public long allElementsOnce() {
        return model.ownElements().stream()
                .filter(element -> element.kind() == ElementKind.PART)
                .count();
    }

    /** A port is turned round, so that what is joined to it no longer fits, or fits again. */
    @Benchmark
    public Findings findingsAfterAnEdit() {
        isTurned = !isTurned;
        EditResult.Applied applied =
                (EditResult.Applied) model.apply(Edit.put(port.with(Property.CONJUGATED, isTurned ? true : null)));
        return Findings.in(applied.model());
    }

    /** Of which the check takes the rest. */
    @Benchmark
    public EditResult theEditAlone() {
        isTurned = !isTurned;
        return model.apply(Edit.put(port.with(Property.CONJUGATED, isTurned ? true : null)));
    }

    @Benchmark
    public Findings everythingAfresh() {
        EditResult.Applied applied = (EditResult.Applied) model.apply(Edit.put(pipe.withName("other")));
        return Findings.everything(applied.model());
    }
}
