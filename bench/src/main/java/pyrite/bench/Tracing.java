package pyrite.bench;

import java.util.List;
import java.util.Set;
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
import pyrite.core.model.Edit;
import pyrite.core.model.EditResult;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.Source;
import pyrite.core.specification.Specification;
import pyrite.core.trace.Agreements;
import pyrite.core.trace.Coverage;
import pyrite.core.trace.Impact;
import pyrite.core.trace.Matrix;
import pyrite.core.trace.ProjectCheck;
import pyrite.core.trace.TraceGraph;
import pyrite.core.trace.TraceTable;

/**
 * What is asked of 30,000 requirements on three levels with 40,000 links. The baseline is walking over all elements
 * once, which nothing that looks at every link can do without.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 4, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(
        value = 1,
        jvmArgsAppend = {"-XX:+UseSerialGC", "-Xms3g", "-Xss4m"})
public class Tracing {
    private static final int EACH = 10_000;
    private Model model;
    private TraceGraph graph;
    private List<Element> needs;
    private List<Element> systems;
    private Element need;
    private Element text;
    private int number;

    @Setup
    public void read() {
        model = NotationReader.read(Library.model(), List.of(new Source("levels", Levels.text(EACH))))
                .model();
        graph = TraceGraph.of(model);
        List<Specification> all = Specification.all(model);
        needs = all.get(0).requirements(model);
        systems = all.get(1).requirements(model);
        need = needs.get(EACH / 2);
        text = model.inheritance().documentationOf(systems.get(EACH / 2)).orElseThrow();
    }

    @Benchmark
    public long allElementsOnce() {
        return model.ownElements().stream().filter(Specification::isRequirement).count();
    }

    @Benchmark
    public TraceGraph graphOfAllLinksAfterAnEdit() {
        EditResult.Applied applied = (EditResult.Applied) model.apply(Edit.put(
                text.with(pyrite.core.model.Property.TEXT, "The product shall do it " + number++ + " times.")));
        return TraceGraph.of(applied.model());
    }

    @Benchmark
    public Coverage coverage() {
        return Coverage.of(graph, Coverage.VerdictLookup.NOTHING_JUDGED);
    }

    @Benchmark
    public List<TraceTable.Row> traceTableOverThreeLevels() {
        TraceTable table = new TraceTable(List.of("frame<", "frame<;derive<", "frame<;derive<;satisfy<").stream()
                .map(TraceTable.Column::parse)
                .toList());
        return table.kept(graph, needs).stream()
                .map(each -> table.row(graph, each))
                .toList();
    }

    @Benchmark
    public Impact impactOfOneNeed() {
        return Impact.of(graph, List.of(need), true, true, TraceTable.FARTHEST, Set.of());
    }

    @Benchmark
    public Matrix matrixPage() {
        return Matrix.of(graph, systems.subList(0, 100), needs, "frame", true);
    }

    @Benchmark
    public Object committingAnEditWithItsRules() {
        EditResult.Applied applied = (EditResult.Applied) model.apply(Edit.put(
                text.with(pyrite.core.model.Property.TEXT, "The product shall do it " + number++ + " times.")));
        return ProjectCheck.check(model, applied.model(), applied.difference());
    }

    @Benchmark
    public Agreements agreementsOfAllLinks() {
        return Agreements.begin(model, 1);
    }
}
