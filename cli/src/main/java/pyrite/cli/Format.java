package pyrite.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.concurrent.Callable;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import pyrite.core.model.Element;
import pyrite.core.notation.NotationWriter;
import pyrite.core.notation.ReadResult;

@Command(
        name = "format",
        description = "Writes a file's model in canonical text.",
        mixinStandardHelpOptions = true,
        footer = {"", "For instance:  pyrite format gate.sysml --with components.sysml > gate-canonical.sysml"})
final class Format implements Callable<Integer> {
    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Parameters(paramLabel = "FILE", description = "The file to write again, or - for standard input.")
    private Path file = Path.of("");

    @Option(names = "--with", paramLabel = "OTHER", arity = "1..*", description = "Files it refers to.")
    private List<Path> others = List.of();

    @Override
    public Integer call() {
        List<Path> all = new ArrayList<>(List.of(file));
        all.addAll(others);
        ReadResult reading = Files.read(all);
        if (!Files.report(reading, spec.commandLine().getErr())) {
            return Main.MODEL_ERRORS;
        }
        List<Element> roots = reading.model().ownRoots().stream()
                .filter(root -> Objects.requireNonNull(reading.places().get(root.id()))
                        .source()
                        .name()
                        .equals(file.toString()))
                .toList();
        spec.commandLine().getOut().print(NotationWriter.write(reading.model(), roots));
        spec.commandLine().getOut().flush();
        return Main.GOOD;
    }
}
