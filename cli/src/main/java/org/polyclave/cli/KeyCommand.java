package org.polyclave.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyObjective;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.key.Proof;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.files.key.KeyJson;
import org.polyclave.print.key.KeyRenderer;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.KeyContext;
import org.polyclave.study.compile.Targets;
import org.polyclave.study.model.StudyRow;
import org.polyclave.wording.key.KeyView;
import org.polyclave.wording.key.KeyWording;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;

/** Makes a dichotomous key of a matrix. */
@Command(name = "key", description = "Make a dichotomous key from a matrix.", mixinStandardHelpOptions = true)
final class KeyCommand implements Callable<Integer> {
    enum Format {
        JSON,
        TEXT,
        MARKDOWN,
        HTML
    }

    enum Weights {
        EVEN,
        COMMON
    }

    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "MATRIX", description = "A .polyclave.json, .csv, .tsv, .xlsx or .nex file.")
    @SuppressWarnings("NullAway.Init")
    private Path matrix;

    @Option(
            names = "--context",
            description = "What is at hand, for example months=1,organs=leaf+stem,methods=eye+lens,preserved=no")
    private Optional<String> context = Optional.empty();

    @Option(names = "--objective", description = "${COMPLETION-CANDIDATES}")
    private KeyObjective objective = KeyObjective.FEWEST;

    @Option(names = "--weights", description = "even: every row counts the same; common: by #weight")
    private Weights weights = Weights.EVEN;

    @Option(names = "--nodes", description = "How many positions may be opened to improve the key of each objective.")
    private int nodes = KeyOptions.DEFAULT.nodeBudget();

    @Option(names = "--format", description = "${COMPLETION-CANDIDATES}")
    private Format format = Format.TEXT;

    @Option(names = "--plain", description = "In plain words (text, Markdown and HTML).")
    private boolean plain;

    @Option(
            names = {"-o", "--output"},
            description = "Write here instead of to the screen.")
    private Optional<Path> output = Optional.empty();

    @Override
    public Integer call() throws IOException {
        PrintWriter err = spec.commandLine().getErr();
        KeyContext at = context.map(KeyContext::parse).orElse(KeyContext.EVERYTHING);
        CompiledStudy whole = MatrixFile.read(matrix, err);
        CompiledStudy compiled = at.apply(whole);
        sayLeftOut(whole, err);
        KeyOptions options = KeyOptions.DEFAULT
                .withObjective(objective)
                .withEvenWeights(weights == Weights.EVEN)
                .withNodeBudget(Math.max(0, nodes))
                .inMonths(at.monthsOfUse());
        KeyOutcome outcome = new KeyGenerator().generate(compiled.matrix(), options, CancelSignal.NEVER);
        if (outcome instanceof KeyOutcome.Generated generated) {
            write(render(compiled, generated.result()));
            return proven(compiled, generated.result().proof(), err) ? ExitCode.DONE : ExitCode.NOT_PROVEN;
        }
        err.println(refusal(compiled, outcome));
        return ExitCode.CANNOT_BE_MET;
    }

    private static void sayLeftOut(CompiledStudy whole, PrintWriter err) {
        if (!whole.unscored().isEmpty()) {
            err.println("Left out, because nothing is scored: "
                    + names(whole.unscored().stream().map(StudyRow::name).toList()) + ".");
        }
        List<StudyRow> rest = Targets.leftOut(whole.study().rows(), whole.scores());
        if (!rest.isEmpty()) {
            err.println("Left out, because only some of their sexes, stages or parts are scored: "
                    + names(rest.stream().map(StudyRow::name).toList()) + ".");
        }
    }

    /** A key that is not proven is written all the same: whoever asked for it is told what fails. */
    private static boolean proven(CompiledStudy compiled, Proof proof, PrintWriter err) {
        if (!proof.proven()) {
            err.println("The key is not proven:");
            KeyWording.failures(compiled, proof).forEach(err::println);
        }
        return proof.proven();
    }

    private String render(CompiledStudy compiled, KeyResult result) {
        KeyView worded = KeyWording.word(compiled, result);
        KeyView view = plain ? worded.inPlainWords() : worded;
        return switch (format) {
            case JSON -> KeyJson.write(compiled, result);
            case TEXT -> KeyRenderer.text(view, compiled.study());
            case MARKDOWN -> KeyRenderer.markdown(view, compiled.study());
            case HTML -> KeyRenderer.html(view, compiled.study());
        };
    }

    private void write(String text) throws IOException {
        if (output.isPresent()) {
            MatrixFile.write(output.get(), text.getBytes(StandardCharsets.UTF_8));
            return;
        }
        PrintWriter out = spec.commandLine().getOut();
        out.print(text);
        out.flush();
    }

    private static String refusal(CompiledStudy compiled, KeyOutcome outcome) {
        if (outcome instanceof KeyOutcome.TooManyTerminals many) {
            return "The key would need more than " + many.terminals()
                    + " ends. Characters that vary or are unknown most: "
                    + names(many.looseCharacters().stream()
                            .map(c -> compiled.characters().get(c).label())
                            .toList())
                    + ". Rows scored too thinly: "
                    + names(many.thinRows().stream()
                            .map(r -> compiled.rows().get(r).name())
                            .toList())
                    + ". Score these, or leave them out.";
        }
        return outcome instanceof KeyOutcome.NoRows
                ? "The matrix has no taxa to make a key from."
                : "The key was cancelled.";
    }

    private static String names(List<String> names) {
        return names.isEmpty() ? "none" : names.stream().map(n -> "'" + n + "'").collect(Collectors.joining(", "));
    }
}
