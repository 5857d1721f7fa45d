package pyrite.cli;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
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
import pyrite.core.notation.Source;

@Command(
        name = "format",
        description = "Writes a file's model in canonical text; with --write files and folders in their place.",
        mixinStandardHelpOptions = true,
        footer = {
            "",
            "For instance:  pyrite format gate.sysml --with components.sysml > gate-canonical.sysml",
            "               pyrite format models/ --write"
        })
final class Format implements Callable<Integer> {
    @Spec
    private CommandSpec spec = CommandSpec.create();

    @Parameters(paramLabel = "FILE", description = "The file to write again, or - for standard input.")
    private Path file = Path.of("");

    @Option(names = "--with", paramLabel = "OTHER", arity = "1..*", description = "Files it refers to.")
    private List<Path> others = List.of();

    @Option(names = "--write", description = "Replace each file by its canonical text; FILE may be a folder.")
    private boolean write;

    @Override
    public Integer call() throws IOException {
        if (!write && java.nio.file.Files.isDirectory(file)) {
            throw new UsageFault(file + " is a folder; name one file, or add --write to replace the files in it");
        }
        if (write && file.toString().equals(Files.STANDARD_INPUT)) {
            throw new UsageFault("standard input cannot be replaced; leave --write away");
        }
        List<Source> own = Files.sources(List.of(file));
        List<Source> all = new ArrayList<>(own);
        all.addAll(others.isEmpty() ? List.of() : Files.sources(others));
        ReadResult reading = Files.readAll(all);
        if (!Files.report(reading, spec.commandLine().getErr())) {
            return Main.MODEL_ERRORS;
        }
        for (Source source : own) {
            put(source, canonical(reading, source));
        }
        return Main.GOOD;
    }

    /** A file of nothing but notes stays as it is. */
    private static String canonical(ReadResult reading, Source source) {
        List<Element> roots = reading.model().ownRoots().stream()
                .filter(root -> Objects.requireNonNull(reading.places().get(root.id()))
                        .source()
                        .name()
                        .equals(source.name()))
                .toList();
        return roots.isEmpty() ? source.text() : NotationWriter.write(reading.model(), roots);
    }

    private void put(Source source, String text) throws IOException {
        if (!write) {
            spec.commandLine().getOut().print(text);
            spec.commandLine().getOut().flush();
        } else if (!text.equals(source.text())) {
            replace(Path.of(source.name()), text);
            spec.commandLine().getOut().println(source.name());
        }
    }

    /** A command that is cut off leaves the old text or the new one, and nothing between. */
    private static void replace(Path path, String text) throws IOException {
        Path whole = java.nio.file.Files.createTempFile(path.toAbsolutePath().getParent(), ".pyrite", ".tmp");
        java.nio.file.Files.writeString(whole, text, StandardCharsets.UTF_8);
        java.nio.file.Files.move(whole, path, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
    }
}
