package pyrite.cli;

import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** {@code pyrite check | format | run | verify}. */
@Command(
        name = "pyrite",
        subcommands = {Check.class, Format.class, Run.class, Verify.class},
        description = "Reads, checks, runs and verifies SysML v2 models.",
        footer = {"", "Exit codes: 0 done and good, 1 the model has errors, 2 a requirement is not met, 64 wrong usage."
        })
public final class Main implements Runnable {
    static final int GOOD = 0;
    static final int MODEL_ERRORS = 1;
    static final int NOT_MET = 2;
    static final int USAGE = 64;

    @CommandLine.Spec
    private CommandLine.Model.CommandSpec spec = CommandLine.Model.CommandSpec.create();

    public static void main(String[] arguments) {
        System.exit(execute(
                new PrintWriter(System.out, true, StandardCharsets.UTF_8),
                new PrintWriter(System.err, true, StandardCharsets.UTF_8),
                arguments));
    }

    static int execute(PrintWriter out, PrintWriter err, String... arguments) {
        return new CommandLine(new Main())
                .setOut(out)
                .setErr(err)
                .setExecutionExceptionHandler((fault, commandLine, _) -> failed(fault, commandLine))
                .setParameterExceptionHandler((fault, _) -> wrongUsage(fault))
                .execute(arguments);
    }

    private static int failed(Exception fault, CommandLine commandLine) {
        if (fault instanceof UsageFault) {
            commandLine.getErr().println("pyrite: " + fault.getMessage());
            return USAGE;
        }
        commandLine.getErr().println("pyrite: a fault of Pyrite itself: " + fault);
        fault.printStackTrace(commandLine.getErr());
        return MODEL_ERRORS;
    }

    private static int wrongUsage(CommandLine.ParameterException fault) {
        CommandLine commandLine = fault.getCommandLine();
        commandLine.getErr().println("pyrite: " + fault.getMessage());
        commandLine.usage(commandLine.getErr());
        return USAGE;
    }

    @Override
    public void run() {
        throw new CommandLine.ParameterException(spec.commandLine(), "say what to do: check, format, run or verify");
    }
}
