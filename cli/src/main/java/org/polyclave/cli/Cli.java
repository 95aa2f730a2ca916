package org.polyclave.cli;

import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import org.polyclave.study.rules.InvalidInput;
import picocli.CommandLine;
import picocli.CommandLine.Command;

/** Commands for people who keep matrices under version control; they need no database and no server. */
@Command(
        name = "polyclave",
        description = "Keys from matrices of lookalikes, and cells from readings, without a server.",
        subcommands = {
            KeyCommand.class,
            ProveCommand.class,
            CheckCommand.class,
            ConvertCommand.class,
            SummarizeCommand.class,
            SeparateCommand.class,
            ProbeCommand.class
        },
        mixinStandardHelpOptions = true)
public final class Cli {
    private Cli() {}

    public static void main(String[] args) {
        System.exit(run(args));
    }

    /** Runs a command and returns its exit code. Output is UTF-8 whatever the locale says, as files are. */
    public static int run(String... args) {
        return new CommandLine(new Cli())
                .setOut(utf8(System.out))
                .setErr(utf8(System.err))
                .setCaseInsensitiveEnumValuesAllowed(true)
                .setParameterExceptionHandler((problem, arguments) -> {
                    problem.getCommandLine().getErr().println(problem.getMessage());
                    problem.getCommandLine().usage(problem.getCommandLine().getErr());
                    return ExitCode.USAGE;
                })
                .setExecutionExceptionHandler((failure, line, result) -> {
                    if (failure instanceof InvalidInput wrong) {
                        line.getErr().println(wrong.getMessage());
                        return ExitCode.USAGE;
                    }
                    if (failure instanceof CannotRead unreadable) {
                        unreadable.problems().forEach(line.getErr()::println);
                        return ExitCode.UNREADABLE;
                    }
                    if (failure instanceof java.io.IOException || failure instanceof java.io.UncheckedIOException) {
                        line.getErr().println("The file system refused: " + failure.getMessage());
                        return ExitCode.ENVIRONMENT;
                    }
                    throw failure;
                })
                .execute(args);
    }

    private static PrintWriter utf8(OutputStream stream) {
        return new PrintWriter(new OutputStreamWriter(stream, StandardCharsets.UTF_8), true);
    }
}
