package org.polyclave.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.polyclave.files.convert.FormatLosses;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.convert.MatrixFiles.Format;
import org.polyclave.files.table.TableWriter;
import org.polyclave.study.model.Study;
import org.polyclave.study.rules.InvalidInput;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Writes a matrix in another format, and says what that format cannot hold. */
@Command(
        name = "convert",
        description = "Write a matrix in another format, and list what that cannot hold.",
        mixinStandardHelpOptions = true)
final class ConvertCommand implements Callable<Integer> {
    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "IN", description = "A .polyclave.json, .csv, .tsv, .xlsx or .nex file.")
    @SuppressWarnings("NullAway.Init")
    private Path in;

    @Parameters(index = "1", paramLabel = "OUT", description = "The ending of its name decides the format.")
    @SuppressWarnings("NullAway.Init")
    private Path out;

    @Option(
            names = "--layout",
            description = "For tables: wide (rows by characters) or long (one score a line, with its origin).",
            defaultValue = "wide")
    private TableWriter.Layout layout = TableWriter.Layout.WIDE;

    @Option(
            names = "--whole",
            description = "Add what the format cannot say in rows or a block of their own, so that it reads back"
                    + " without loss.")
    private boolean whole;

    @Option(
            names = "--characters",
            paramLabel = "SET",
            description = "Of a NEXUS file, only these characters: numbers, spans and sets that it names, such as"
                    + " '1-300, mouthparts'.",
            defaultValue = "")
    private String characters = "";

    @Override
    public Integer call() throws IOException {
        PrintWriter err = spec.commandLine().getErr();
        String name = out.getFileName() == null ? "" : out.getFileName().toString();
        Format format = Format.of(name)
                .orElseThrow(() -> new InvalidInput(
                        "'" + out + "' does not say which format. End its name in " + MatrixFiles.known() + "."));
        Study study = MatrixFile.study(in, characters, err);
        byte[] bytes = whole ? MatrixFiles.writeWhole(study, format, layout) : MatrixFiles.write(study, format, layout);
        List<String> losses = FormatLosses.of(
                study,
                MatrixFiles.read(bytes, study.title() + "." + format.ending()).study());
        MatrixFile.write(out, bytes);
        losses.forEach(l -> err.println("Not in " + name + ": " + l + "."));
        return ExitCode.DONE;
    }
}
