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
import pyrite.core.function.ExchangeTable;
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.ElementKind;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.Source;

/**
 * The table of who exchanges what, for 5,000 flows between functions that 500 parts perform. The baseline is walking
 * over all elements once.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 4, time = 2)
@Fork(
        value = 1,
        jvmArgsAppend = {"-XX:+UseSerialGC", "-Xms2g", "-Xss4m"})
public class Exchanging {
    private static final int PARTS = 500;
    private static final int FLOWS = 10;
    private Model model;
    private Element moved;
    private int turn;

    @Setup
    public void read() {
        StringBuilder text = new StringBuilder("package Wide {\nitem def Oil; port def Hose { out item oil : Oil; }\n");
        for (int i = 0; i < PARTS; i++) {
            text.append("action def Work%1$d { in item taken : Oil; out item given : Oil; }\n".formatted(i));
            text.append("part def Part%1$d { perform action work : Work%1$d; port give : Hose; port take : ~Hose; }\n"
                    .formatted(i));
        }
        text.append("action def Whole {\n");
        for (int i = 0; i < PARTS; i++) {
            text.append("action work%1$d : Work%1$d;\n".formatted(i));
        }
        for (int i = 0; i < PARTS; i++) {
            for (int k = 1; k <= FLOWS; k++) {
                text.append("flow of Oil from work%d.given to work%d.taken;\n".formatted(i, (i + k * 7) % PARTS));
            }
        }
        text.append("}\npart def Plant {\n");
        for (int i = 0; i < PARTS; i++) {
            text.append("part part%1$d : Part%1$d;\n".formatted(i));
        }
        for (int i = 0; i < PARTS; i++) {
            text.append("connect part%d.give to part%d.take;\n".formatted(i, (i + 7) % PARTS));
        }
        model = NotationReader.read(
                        Library.model(),
                        List.of(new Source("wide", text.append("}\n}").toString())))
                .model();
        System.out.println(
                model.ownElements().size() + " elements, " + table().rows().size() + " rows");
        moved = named("Part7");
    }

    private Element named(String name) {
        return model.ownElements().stream()
                .filter(element -> name.equals(element.name()))
                .findFirst()
                .orElseThrow();
    }

    private ExchangeTable table() {
        return ExchangeTable.of(model, named("Whole"), named("Plant"), 1);
    }

    @Benchmark
    public long baselineWalk() {
        return model.ownElements().stream()
                .filter(element -> element.kind() == ElementKind.FLOW)
                .count();
    }

    @Benchmark
    public int everything() {
        return table().rows().size();
    }

    @Benchmark
    public int afterAnEdit() {
        Element part = model.get(moved.id());
        turn++;
        if (model.apply(Edit.put(part.withName("Part7x" + turn))) instanceof EditResult.Applied(Model next, var _)) {
            model = next;
        }
        return ExchangeTable.of(model, named("Whole"), named("Plant"), 1).rows().size();
    }
}
