package org.polyclave.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.Callable;
import org.polyclave.study.checks.StudyCheck;
import org.polyclave.study.checks.StudyFinding;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.wording.finding.FindingWording;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** Looks for slips and gaps in a matrix. */
@Command(
        name = "check",
        description = "Look for what may be slips or gaps in a matrix.",
        mixinStandardHelpOptions = true)
final class CheckCommand implements Callable<Integer> {
    private static final JsonMapper JSON =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "MATRIX")
    @SuppressWarnings("NullAway.Init")
    private Path matrix;

    @Option(names = "--format", description = "text or json", defaultValue = "text")
    private ListFormat format = ListFormat.TEXT;

    @Override
    public Integer call() throws IOException {
        CompiledStudy compiled = MatrixFile.read(matrix, spec.commandLine().getErr());
        List<StudyFinding> findings = StudyCheck.of(compiled).findings();
        PrintWriter out = spec.commandLine().getOut();
        if (format == ListFormat.JSON) {
            Map<String, Object> document = new LinkedHashMap<>();
            document.put("format", "polyclave-findings");
            document.put("version", 1);
            document.put("findings", findings.stream().map(CheckCommand::entry).toList());
            out.println(JSON.writeValueAsString(document));
        } else {
            findings.forEach(f -> out.println(line(f)));
            out.println(findings.isEmpty() ? "No findings." : findings.size() + " findings.");
        }
        out.flush();
        return ExitCode.DONE;
    }

    private static Map<String, Object> entry(StudyFinding finding) {
        Map<String, Object> entry = new LinkedHashMap<>();
        entry.put("kind", finding.kind().code());
        entry.put("row", finding.row().isEmpty() ? null : finding.row());
        entry.put("character", finding.character().isEmpty() ? null : finding.character());
        entry.put("other", finding.other().isEmpty() ? null : finding.other());
        entry.put("reason", FindingWording.reason(finding));
        return entry;
    }

    private static String line(StudyFinding finding) {
        String place = finding.row()
                + (finding.row().isEmpty() || finding.character().isEmpty() ? "" : " × ")
                + finding.character();
        return finding.kind().code() + (place.isEmpty() ? "" : "\t" + place) + "\t" + FindingWording.reason(finding);
    }
}
