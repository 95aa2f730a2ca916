package org.polyclave.cli;

import java.io.IOException;
import java.io.PrintWriter;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.diagnosis.Diagnoses;
import org.polyclave.core.diagnosis.Diagnosis;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.Strength;
import org.polyclave.core.separation.StrictSeparation;
import org.polyclave.study.comparison.ViewingConditions;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.KeyContext;
import org.polyclave.study.rules.InvalidInput;
import picocli.CommandLine.Command;
import picocli.CommandLine.Model.CommandSpec;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;
import picocli.CommandLine.Spec;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** What tells which rows apart, how surely, and the cheapest diagnosis of each. */
@Command(
        name = "separate",
        description = "What separates rows with what is at hand, and the cheapest diagnosis of each.",
        mixinStandardHelpOptions = true)
final class SeparateCommand implements Callable<Integer> {
    private static final JsonMapper JSON =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();
    private static final long MOST = 1_000_000;
    private static final double THOUSANDTHS = 1000;

    @Spec
    @SuppressWarnings("NullAway.Init")
    private CommandSpec spec;

    @Parameters(index = "0", paramLabel = "MATRIX", description = "A .polyclave.json, .csv, .tsv, .xlsx or .nex file.")
    @SuppressWarnings("NullAway.Init")
    private Path file;

    @Option(
            names = "--context",
            description =
                    "What is at hand, for example months=12+1+2,organs=leaf+stem,methods=eye+lens,preserved=dried")
    private Optional<String> context = Optional.empty();

    @Option(
            names = "--stages",
            split = ",",
            paramLabel = "STAGE",
            description = "Sex or stage of what is in the hand; rows of other ones are left out.")
    private Set<String> stages = Set.of();

    @Option(
            names = "--against-dangers",
            description =
                    "Only what may rule a danger out: nothing that is smelled, cut or touched, and nothing that does not count for safety.")
    private boolean againstDangers;

    @Option(names = "--rows", split = ",", paramLabel = "ROW", description = "Only these rows, by their ids or names.")
    private @Nullable List<String> wanted;

    @Option(names = "--observer", description = "${COMPLETION-CANDIDATES}")
    private Observer observer = Observer.TRAINED;

    @Option(
            names = "--fold",
            description =
                    "How many independent groups must separate each rival: 1 or 2. The default is 1, or 2 where one of them is dangerous.")
    private @Nullable Integer fold;

    @Option(names = "--format", description = "${COMPLETION-CANDIDATES}")
    private ListFormat format = ListFormat.TEXT;

    /** A pair of rows, and what tells them apart. */
    private record Pair(int a, int b, List<Integer> separating, String verdict, double bits) {}

    @Override
    public Integer call() throws IOException {
        PrintWriter err = spec.commandLine().getErr();
        KeyContext at = context.map(KeyContext::parse).orElse(KeyContext.EVERYTHING);
        if (fold != null && (fold < 1 || fold > 2)) {
            throw new InvalidInput("--fold is 1 or 2.");
        }
        CompiledStudy compiled = MatrixFile.read(file, err);
        ViewingConditions conditions = new ViewingConditions(at, stages, observer, againstDangers);
        List<Integer> rows = rows(compiled, conditions);
        long tests =
                rows.size() * (rows.size() - 1L) / 2 * compiled.characters().size();
        if (tests > MOST) {
            err.println("These are " + tests + " pairs times characters; at most " + MOST
                    + " are listed. Name some rows with --rows.");
            return ExitCode.CANNOT_BE_MET;
        }
        List<Pair> pairs = pairs(compiled, rows, conditions.separation(compiled));
        if (conditions.isDangerous(compiled)) {
            err.println("A dangerous row may be in the hand: no diagnosis takes smelling, cutting or touching.");
        }
        Diagnoses diagnoses =
                new Diagnoses(compiled.matrix(), conditions.recognising(compiled), observer, Diagnoses.NODES);
        List<Diagnosis> found = rows.parallelStream()
                .map(row -> fold == null ? diagnoses.ofSafely(row) : diagnoses.of(row, fold))
                .toList();
        PrintWriter out = spec.commandLine().getOut();
        if (format == ListFormat.JSON) {
            out.println(JSON.writeValueAsString(document(compiled, pairs, found)));
        } else {
            pairs.forEach(p -> out.println(text(compiled, p)));
            found.forEach(d -> out.println(text(compiled, d)));
        }
        out.flush();
        return ExitCode.DONE;
    }

    private List<Integer> rows(CompiledStudy compiled, ViewingConditions conditions) {
        if (wanted == null) {
            return conditions.rows(compiled);
        }
        return wanted.stream()
                .map(name -> row(compiled, name.strip()))
                .distinct()
                .toList();
    }

    private static int row(CompiledStudy compiled, String name) {
        return IntStream.range(0, compiled.rows().size())
                .filter(r -> compiled.rows().get(r).id().equals(name)
                        || compiled.rows().get(r).name().equalsIgnoreCase(name))
                .findFirst()
                .orElseThrow(() -> new InvalidInput("The matrix has no row '" + name + "' that keys name."));
    }

    private List<Pair> pairs(CompiledStudy compiled, List<Integer> rows, SeparationContext now) {
        StrictSeparation separation = new StrictSeparation(compiled.matrix(), now);
        Strength strength = new Strength(compiled.matrix(), observer);
        List<Pair> pairs = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            for (int j = i + 1; j < rows.size(); j++) {
                int a = rows.get(i);
                int b = rows.get(j);
                pairs.add(new Pair(
                        a,
                        b,
                        separation.separating(a, b),
                        separation.verdict(a, b).name(),
                        Math.round(strength.bits(a, b, separation) * THOUSANDTHS) / THOUSANDTHS));
            }
        }
        return pairs;
    }

    private static Map<String, Object> document(CompiledStudy compiled, List<Pair> pairs, List<Diagnosis> diagnoses) {
        Map<String, Object> document = new LinkedHashMap<>();
        document.put("format", "polyclave-separation");
        document.put("version", 1);
        document.put(
                "pairs",
                pairs.stream()
                        .map(p -> {
                            Map<String, Object> pair = new LinkedHashMap<>();
                            pair.put("rows", List.of(id(compiled, p.a()), id(compiled, p.b())));
                            pair.put("separating", characters(compiled, p.separating()));
                            pair.put("verdict", p.verdict());
                            pair.put("bits", p.bits());
                            return pair;
                        })
                        .toList());
        document.put(
                "diagnoses",
                diagnoses.stream()
                        .map(d -> {
                            Map<String, Object> diagnosis = new LinkedHashMap<>();
                            diagnosis.put("row", id(compiled, d.row()));
                            diagnosis.put("characters", characters(compiled, d.characters()));
                            diagnosis.put("completion", d.completion().name());
                            diagnosis.put("cost", d.cost());
                            diagnosis.put("bound", d.bound());
                            diagnosis.put(
                                    "notTold",
                                    d.shortfalls().stream()
                                            .filter(s -> s.groups() == 0)
                                            .map(s -> id(compiled, s.rival()))
                                            .toList());
                            return diagnosis;
                        })
                        .toList());
        return document;
    }

    private static String id(CompiledStudy compiled, int row) {
        return compiled.rows().get(row).id();
    }

    private static List<String> characters(CompiledStudy compiled, List<Integer> characters) {
        return characters.stream().map(c -> compiled.characters().get(c).id()).toList();
    }

    private static String text(CompiledStudy compiled, Pair pair) {
        return String.format(
                Locale.ROOT,
                "%s / %s: %s, %.1f bits%s",
                compiled.rows().get(pair.a()).name(),
                compiled.rows().get(pair.b()).name(),
                pair.verdict().toLowerCase(Locale.ROOT),
                pair.bits(),
                labels(compiled, pair.separating()));
    }

    private static String labels(CompiledStudy compiled, List<Integer> characters) {
        return characters.isEmpty()
                ? ""
                : characters.stream()
                        .map(c -> compiled.characters().get(c).label())
                        .collect(Collectors.joining(", ", ": ", ""));
    }

    private static String text(CompiledStudy compiled, Diagnosis diagnosis) {
        String proven = diagnosis.cost() > diagnosis.bound()
                ? String.format(Locale.ROOT, " (costs %.1f; no less than %.1f)", diagnosis.cost(), diagnosis.bound())
                : "";
        String open = diagnosis.shortfalls().stream()
                .filter(s -> s.groups() == 0)
                .map(s -> compiled.rows().get(s.rival()).name())
                .collect(Collectors.joining(", "));
        return "To know " + compiled.rows().get(diagnosis.row()).name() + labels(compiled, diagnosis.characters())
                + proven + (open.isEmpty() ? "" : "; not distinguished from " + open);
    }
}
