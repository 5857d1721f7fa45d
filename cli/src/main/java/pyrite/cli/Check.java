package pyrite.cli;

import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import pyrite.core.notation.Reading;

@Command(name = "check", description = "Reads files together and reports every error with its place.",
        mixinStandardHelpOptions = true)
final class Check implements Callable<Integer> {
    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Parameters(paramLabel = "FILE", arity = "1..*", description = "Model files; they may refer to each other.")
    private List<Path> files = List.of();

    @Override
    public Integer call() {
        Reading reading = Files.read(files);
        var out = spec.commandLine().getOut();
        Files.report(reading, out);
        int count = reading.problems().size();
        out.println(count == 0 ? reading.read().size() + " elements, no errors" : count + (count == 1 ? " error" : " errors"));
        return count == 0 ? Main.GOOD : Main.MODEL_ERRORS;
    }
}
