package org.polyclave.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.Callable;
import org.polyclave.core.key.Proof;
import org.polyclave.core.key.SupportPropagationProver;
import org.polyclave.files.key.KeyJson;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.rules.Limits;
import org.polyclave.wording.key.KeyWording;
import org.polyclave.wording.key.LeadText;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Checks any key against a matrix. */
@Command(
        name = "prove",
        description = "Check that every specimen the matrix admits reaches its own name in a key.",
        mixinStandardHelpOptions = true)
final class ProveCommand implements Callable<Integer> {
    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "MATRIX")
    @SuppressWarnings("NullAway.Init")
    private Path matrix;

    @Parameters(index = "1", paramLabel = "KEY.json")
    @SuppressWarnings("NullAway.Init")
    private Path key;

    @Override
    public Integer call() throws IOException {
        PrintWriter err = spec.commandLine().getErr();
        CompiledStudy compiled = MatrixFile.read(matrix, err).scoredOnly();
        KeyJson.ReadKey read = KeyJson.read(MatrixFile.bytes(key, Limits.STUDY_BYTES), compiled);
        if (!read.problems().isEmpty()) {
            throw new CannotRead(read.problems());
        }
        Proof proof = new SupportPropagationProver().prove(compiled.matrix(), read.key());
        PrintWriter out = spec.commandLine().getOut();
        List<LeadText> contrary = with(read, LeadText.Answer.CONTRARY);
        if (proof.proven() && contrary.isEmpty()) {
            out.println("Proven: every specimen of " + compiled.rows().size() + " rows reaches its name ("
                    + proof.observations() + " observations checked).");
            List<LeadText> own = with(read, LeadText.Answer.UNMATCHED);
            if (!own.isEmpty()) {
                out.println(own.size() + (own.size() == 1 ? " lead is" : " leads are")
                        + " in the author's words, not proved:");
                own.forEach(t -> out.println("  " + t.place() + ": '" + t.given() + "'."));
            }
            out.flush();
            return ExitCode.DONE;
        }
        KeyWording.failures(compiled, proof).forEach(out::println);
        contrary.forEach(t -> out.println(
                t.place() + ": it reads '" + t.given() + "', but its statements say '" + t.rendered() + "'."));
        out.flush();
        return ExitCode.NOT_PROVEN;
    }

    private static List<LeadText> with(KeyJson.ReadKey read, LeadText.Answer answer) {
        return read.texts().stream().filter(t -> t.answer() == answer).toList();
    }
}
