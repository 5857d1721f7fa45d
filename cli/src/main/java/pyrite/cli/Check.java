package pyrite.cli;

import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import java.util.stream.Stream;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import pyrite.core.notation.ReadResult;
import pyrite.core.notation.TextProblem;
import tools.jackson.databind.json.JsonMapper;

@Command(
        name = "check",
        description = "Reads files together and reports every error with its place.",
        mixinStandardHelpOptions = true,
        footer = {"", "For instance:  pyrite check models/", "               pyrite check gate.sysml --json"})
final class Check implements Callable<Integer> {
    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Parameters(paramLabel = "FILE", arity = "1..*", description = Files.WHICH)
    private List<Path> files = List.of();

    @Option(names = "--json", description = "Write the errors as JSON.")
    private boolean json;

    @Override
    public Integer call() {
        ReadResult reading = Files.read(files);
        var out = spec.commandLine().getOut();
        int count = reading.problems().size();
        List<String> notes = notes(reading);
        if (json) {
            out.println(JsonMapper.builder()
                    .build()
                    .writerWithDefaultPrettyPrinter()
                    .writeValueAsString(Map.of(
                            "elements",
                            reading.read().size(),
                            "errors",
                            reading.problems().stream().map(Check::row).toList(),
                            "notes",
                            notes)));
        } else {
            Files.report(reading, out);
            notes.forEach(out::println);
            out.println(
                    count == 0
                            ? reading.read().size() + " elements, no errors"
                            : count + (count == 1 ? " error" : " errors"));
        }
        return count == 0 ? Main.GOOD : Main.MODEL_ERRORS;
    }

    /** What is right and may be meant otherwise, and what runs leave out. */
    private static List<String> notes(ReadResult reading) {
        Stream<String> hints = reading.hints().stream().map(TextProblem::asNote);
        Stream<String> leftOut =
                reading.isGood() ? Verify.notes(reading.model()).stream().map(note -> "note: " + note) : Stream.of();
        return Stream.concat(hints, leftOut).toList();
    }

    private static Map<String, Object> row(TextProblem problem) {
        Map<String, Object> row = new LinkedHashMap<>();
        row.put("file", problem.source());
        row.put("line", problem.line());
        row.put("column", problem.column());
        row.put("message", problem.message());
        return row;
    }
}
