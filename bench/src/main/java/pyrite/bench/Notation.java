package pyrite.bench;

import java.util.List;
import java.util.concurrent.TimeUnit;
import org.antlr.v4.runtime.CharStreams;
import org.antlr.v4.runtime.CommonTokenStream;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.model.WellFormedness;
import pyrite.core.notation.Library;
import pyrite.core.notation.NotationLexer;
import pyrite.core.notation.NotationReader;
import pyrite.core.notation.Source;

/**
 * Reading 5.2 MB of notation, 98,820 elements of the kinds the demo model has, with the rules checked, against only
 * splitting it into tokens; the rules alone are measured beside it, to see their share.
 */
@State(Scope.Benchmark)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 8, time = 3)
@Measurement(iterations = 8, time = 3)
@Fork(
        value = 1,
        jvmArgsAppend = {"-XX:+UseSerialGC", "-Xms6g", "-Xmn5g", "-XX:+AlwaysPreTouch", "-Xss4m"})
public class Notation {
    private final String text = Texts.demos(90);
    private final Model read = NotationReader.read(Library.model(), List.of(new Source("bench", text)))
            .model();
    private final List<Element> elements = read.ownElements();

    @Benchmark
    public int reading() {
        return NotationReader.read(Library.model(), List.of(new Source("bench", text)))
                .read()
                .size();
    }

    @Benchmark
    public int rules() {
        return WellFormedness.check(read, elements).size();
    }

    @Benchmark
    public int lexing() {
        CommonTokenStream tokens = new CommonTokenStream(new NotationLexer(CharStreams.fromString(text)));
        tokens.fill();
        return tokens.size();
    }
}
