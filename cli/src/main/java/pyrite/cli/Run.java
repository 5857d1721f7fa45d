package pyrite.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import pyrite.core.dynamics.RunControl;
import pyrite.core.model.Element;
import pyrite.core.model.Model;
import pyrite.core.notation.ReadResult;
import pyrite.core.verification.CaseRun;
import pyrite.core.verification.CaseSetup;
import pyrite.core.verification.NotExecuted;
import pyrite.core.verification.SeriesTable;

@Command(
        name = "run",
        description = "Runs one case and writes what was recorded as CSV.",
        mixinStandardHelpOptions = true,
        footer = {"", "For instance:  pyrite run models/ --case Tank::drain --csv drain.csv"})
final class Run implements Callable<Integer> {
    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Parameters(paramLabel = "FILE", arity = "1..*", description = Files.WHICH)
    private List<Path> files = List.of();

    @Option(
            names = "--case",
            paramLabel = "NAME",
            required = true,
            description = "Qualified name of the case, as in Tank::drain.")
    private String name = "";

    @Option(
            names = "--csv",
            paramLabel = "OUT",
            description = "File for the recorded series; standard output if left out.")
    private Path csv = Path.of("");

    @Override
    public Integer call() throws IOException {
        ReadResult reading = Files.read(files);
        if (!Files.report(reading, spec.commandLine().getErr())) {
            return Main.MODEL_ERRORS;
        }
        Element usage = find(reading.model());
        NotExecuted.by(reading.model(), usage)
                .forEach(note -> spec.commandLine().getErr().println("note: " + note));
        CaseRun run = CaseRun.of(reading.model(), usage, RunControl.NONE);
        if (run.failure() != null) {
            spec.commandLine().getErr().println("error: " + run.failure());
            return Main.MODEL_ERRORS;
        }
        write(run);
        return Main.GOOD;
    }

    private Element find(Model model) {
        List<Element> cases = model.ownElements().stream()
                .filter(e -> CaseSetup.isRunnable(model, e))
                .toList();
        List<Element> named = cases.stream().filter(e -> goesBy(model, e)).toList();
        if (named.size() == 1) {
            return named.getFirst();
        }
        throw new UsageFault((named.isEmpty() ? "there is no case '" : "there are several cases '") + name
                + "'; there are: "
                + cases.stream().map(model.names()::qualifiedName).sorted().collect(Collectors.joining(", ")));
    }

    /** By its qualified name, or the end of it. */
    private boolean goesBy(Model model, Element usage) {
        return ("::" + model.names().qualifiedName(usage)).endsWith("::" + name);
    }

    private void write(CaseRun run) throws IOException {
        if (csv.toString().isEmpty()) {
            SeriesTable.write(run.times(), run.series(), spec.commandLine().getOut());
            spec.commandLine().getOut().flush();
            return;
        }
        try (PrintWriter out = new PrintWriter(csv.toFile(), StandardCharsets.UTF_8)) {
            SeriesTable.write(run.times(), run.series(), out);
        }
    }
}
