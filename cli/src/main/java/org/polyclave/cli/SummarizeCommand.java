package org.polyclave.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.statistics.Summary;
import org.polyclave.files.table.ReadingTable;
import org.polyclave.study.measuring.ReadingSheet;
import org.polyclave.study.measuring.ReadingSummary;
import org.polyclave.study.notation.NotationPrinter;
import org.polyclave.study.rules.Limits;
import org.polyclave.study.rules.Problem;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** Summarises readings of specimens into statistics and proposed cells. */
@Command(
        name = "summarize",
        description = "Statistics of specimens' readings, what should be read again, and the cells they propose.",
        mixinStandardHelpOptions = true)
final class SummarizeCommand implements Callable<Integer> {
    private static final JsonMapper JSON =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "READINGS", description = "CSV, TSV or XLSX")
    @SuppressWarnings("NullAway.Init")
    private Path file;

    @Option(
            names = "--by",
            split = ",",
            paramLabel = "COLUMN",
            description =
                    "columns by which readings are grouped; without it: row, stage, sex and material, where they are")
    private @Nullable List<String> by;

    @Option(names = "--format", description = "text or json", defaultValue = "text")
    private ListFormat format = ListFormat.TEXT;

    @Override
    public Integer call() throws IOException {
        String name = file.getFileName() == null ? "" : file.getFileName().toString();
        ReadingSheet readings = ReadingTable.read(MatrixFile.bytes(file, Limits.TABLE_BYTES), name);
        if (!readings.blocking().isEmpty()) {
            throw new CannotRead(
                    readings.blocking().stream().map(Problem::sentence).toList());
        }
        readings.problems().forEach(p -> spec.commandLine().getErr().println(p.sentence()));
        List<String> fields = by == null ? ReadingSummary.usualFields(readings) : by;
        List<ReadingSummary> summaries = ReadingSummary.of(readings, fields);
        PrintWriter out = spec.commandLine().getOut();
        if (format == ListFormat.JSON) {
            Map<String, Object> document = new LinkedHashMap<>();
            document.put("format", "polyclave-summary");
            document.put("version", 1);
            document.put("by", fields);
            document.put(
                    "summaries", summaries.stream().map(SummarizeCommand::entry).toList());
            out.println(JSON.writeValueAsString(document));
        } else {
            summaries.forEach(s -> print(s, out));
        }
        out.flush();
        return ExitCode.DONE;
    }

    private static Map<String, Object> entry(ReadingSummary summary) {
        Map<String, Object> entry = new LinkedHashMap<>();
        entry.put("group", summary.group());
        entry.put("character", summary.character());
        entry.put("type", summary.type().name().toLowerCase(Locale.ROOT));
        entry.put("unit", summary.unit().isEmpty() ? null : summary.unit());
        entry.put("n", summary.counts().individuals());
        entry.put("items", summary.counts().items());
        entry.put("readings", summary.counts().readings());
        entry.put(
                "collections",
                summary.counts().collections() == 0 ? null : summary.counts().collections());
        entry.put("missing", summary.counts().missing());
        entry.putAll(numbers(summary));
        if (!summary.states().isEmpty()) {
            Map<String, Double> states = new LinkedHashMap<>();
            summary.states().forEach(s -> states.put(s.label(), s.individuals()));
            entry.put("states", states);
        }
        entry.put(
                "flagged",
                summary.flagged().stream().map(SummarizeCommand::entry).toList());
        entry.put("cell", summary.cell().isEmpty() ? null : summary.cell());
        entry.put("provisional", summary.provisional());
        return entry;
    }

    private static Map<String, Object> numbers(ReadingSummary summary) {
        Map<String, Object> numbers = new LinkedHashMap<>();
        summary.numbers().ifPresent(s -> {
            numbers.put("mean", s.mean());
            numbers.put("sd", finite(s.sd()));
            numbers.put("min", s.min());
            numbers.put("p5", s.p5());
            numbers.put("p25", s.p25());
            numbers.put("median", s.median());
            numbers.put("p75", s.p75());
            numbers.put("p95", s.p95());
            numbers.put("max", s.max());
            numbers.put("meanInterval", interval(s.meanInterval()));
            summary.tolerance().ifPresent(t -> numbers.put("toleranceInterval", interval(t)));
            numbers.put("repeatability", summary.repeatability().orElse(null));
        });
        return numbers;
    }

    private static @Nullable Double finite(double value) {
        return Double.isFinite(value) ? value : null;
    }

    private static @Nullable List<Double> interval(Summary.Interval interval) {
        return Double.isFinite(interval.low()) ? List.of(interval.low(), interval.high()) : null;
    }

    private static Map<String, Object> entry(ReadingSummary.Flag flag) {
        Map<String, Object> entry = new LinkedHashMap<>();
        entry.put("line", flag.line());
        entry.put("specimen", flag.specimen());
        entry.put("typed", flag.typed());
        entry.put("cause", flag.cause().name().toLowerCase(Locale.ROOT).replace('_', '-'));
        entry.put("repaired", flag.repaired().orElse(null));
        return entry;
    }

    private static void print(ReadingSummary summary, PrintWriter out) {
        String group =
                summary.group().values().stream().filter(v -> !v.isEmpty()).collect(Collectors.joining(", "));
        String unit = summary.unit().isEmpty() ? "" : " (" + summary.unit() + ")";
        out.println((group.isEmpty() ? "" : group + " × ") + summary.character() + unit);
        String collections = summary.counts().collections() == 0
                ? ""
                : ", collections " + summary.counts().collections();
        out.println("  n " + summary.counts().individuals() + ", items "
                + summary.counts().items() + ", readings " + summary.counts().readings() + collections + ", missing "
                + summary.counts().missing());
        summary.numbers()
                .ifPresent(s -> out.println("  mean " + rounded(s.mean()) + ", SD " + rounded(s.sd()) + ", min "
                        + rounded(s.min()) + ", p5 " + rounded(s.p5()) + ", p25 " + rounded(s.p25()) + ", median "
                        + rounded(s.median()) + ", p75 " + rounded(s.p75()) + ", p95 " + rounded(s.p95()) + ", max "
                        + rounded(s.max())));
        if (!summary.states().isEmpty()) {
            out.println("  "
                    + summary.states().stream()
                            .map(s -> rounded(s.individuals()) + " " + s.label())
                            .collect(Collectors.joining(", ")));
        }
        summary.flagged()
                .forEach(f -> out.println(
                        "  look again: line " + f.line() + ", " + f.specimen() + ", " + f.typed() + ": " + words(f)));
        out.println(
                summary.cell().isEmpty()
                        ? "  cell: too few individuals for a range"
                        : "  cell: " + summary.cell() + (summary.provisional() ? " (provisional)" : "")
                                + (summary.flagged().isEmpty() ? "" : ", once the flagged readings are settled"));
    }

    private static String words(ReadingSummary.Flag flag) {
        Optional<String> repaired = flag.repaired().map(r -> ", it would be " + rounded(r));
        String cause = switch (flag.cause()) {
            case INCHES -> "25.4 times the others, or a 25.4th: inches?";
            case TENFOLD -> "ten times the others, or a tenth: a decimal mark or unit off?";
            case HUNDREDFOLD -> "a hundred times the others, or a hundredth: decimal marks or unit off?";
            case THOUSANDFOLD -> "a thousand times the others, or a thousandth: decimal marks or unit off?";
            case TRANSPOSED_DIGITS -> "far from the others: two digits changed about?";
            case FRACTION -> "a count with a fraction";
            case OUTLIER -> "far from the others";
        };
        return cause + repaired.orElse("");
    }

    private static String rounded(double value) {
        return Double.isNaN(value) ? "–" : NotationPrinter.number((double) Math.round(value * 1000) / 1000);
    }
}
