package org.polyclave.cli;

import static org.assertj.core.api.Assertions.assertThat;

import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.demo.DemoStudies;
import org.polyclave.files.study.StudyJson;
import org.polyclave.study.rules.StudyRules;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** The batch commands as people run them, with files and exit codes. */
class CliTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    @TempDir
    private Path folder = Path.of("");

    private record Run(int code, String out, String err) {}

    /** Keys are searched for only briefly. */
    private static String[] brief(String... args) {
        if (args.length < 2 || !args[0].equals("key")) {
            return args;
        }
        String[] brief = Arrays.copyOf(args, args.length + 2);
        brief[args.length] = "--nodes";
        brief[args.length + 1] = "300";
        return brief;
    }

    private static Run run(String... args) {
        PrintStream out = System.out;
        PrintStream err = System.err;
        ByteArrayOutputStream captured = new ByteArrayOutputStream();
        ByteArrayOutputStream complaints = new ByteArrayOutputStream();
        // As on a machine without a locale: what is written must not depend on it.
        System.setProperty("sun.stdout.encoding", "US-ASCII");
        System.setProperty("sun.stderr.encoding", "US-ASCII");
        try {
            System.setOut(new PrintStream(captured, true, StandardCharsets.UTF_8));
            System.setErr(new PrintStream(complaints, true, StandardCharsets.UTF_8));
            int code = Cli.run(brief(args));
            return new Run(
                    code, captured.toString(StandardCharsets.UTF_8), complaints.toString(StandardCharsets.UTF_8));
        } finally {
            System.setOut(out);
            System.setErr(err);
        }
    }

    private Path write(String name, String text) throws IOException {
        return Files.writeString(folder.resolve(name), text);
    }

    /** 100 × 16 all binary; 20 × 35 with several states a cell; numeric ranges. */
    static Stream<Arguments> tables() {
        return Stream.of(
                Arguments.of("binary", binary(100, 16)),
                Arguments.of("polymorphic", polymorphic(20, 35)),
                Arguments.of("ranges", ranges(30, 12)));
    }

    private static String header(String first, int characters, String type, String states) {
        StringBuilder table = new StringBuilder(first);
        StringBuilder types = new StringBuilder("#type");
        StringBuilder stateRow = new StringBuilder("#states");
        for (int c = 0; c < characters; c++) {
            table.append(",part ").append(c);
            types.append(',').append(type);
            stateRow.append(',').append(states);
        }
        table.append('\n').append(types).append('\n');
        return states.isEmpty()
                ? table.toString()
                : table.append(stateRow).append('\n').toString();
    }

    private static String binary(int rows, int characters) {
        Random random = new Random(7);
        StringBuilder table = new StringBuilder(header("taxon", characters, "states", "absent|present"));
        for (int i = 0; i < rows; i++) {
            table.append("Taxon ").append(i);
            for (int c = 0; c < characters; c++) {
                table.append(random.nextBoolean() ? ",absent" : ",present");
            }
            table.append('\n');
        }
        return table.toString();
    }

    private static String polymorphic(int rows, int characters) {
        Random random = new Random(8);
        String[] states = {"red", "blue", "green", "white"};
        StringBuilder table = new StringBuilder(header("taxon", characters, "states", "red|blue|green|white"));
        for (int i = 0; i < rows; i++) {
            table.append("Taxon ").append(i);
            for (int c = 0; c < characters; c++) {
                int first = random.nextInt(4);
                int second = (first + 1 + random.nextInt(3)) % 4;
                table.append(",\"").append(states[first]);
                table.append(random.nextInt(3) == 0 ? "" : ", " + states[second])
                        .append('"');
            }
            table.append('\n');
        }
        return table.toString();
    }

    private static String ranges(int rows, int characters) {
        Random random = new Random(9);
        StringBuilder table = new StringBuilder(header("taxon", characters, "length", ""));
        for (int i = 0; i < rows; i++) {
            table.append("Taxon ").append(i);
            for (int c = 0; c < characters; c++) {
                int low = random.nextInt(80);
                int high = low + 1 + random.nextInt(15);
                table.append(",(")
                        .append(Math.max(0, low - 1))
                        .append("–)")
                        .append(low)
                        .append('–')
                        .append(high);
                table.append(random.nextBoolean() ? "(–" + (high + 3) + ")" : "");
            }
            table.append('\n');
        }
        return table.toString();
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("tables")
    void aKeyIsMadeProvenAndRefusedWhenBroken(String name, String table) throws IOException {
        Path matrix = write(name + ".csv", table);
        Path key = folder.resolve(name + ".json");
        assertThat(run("key", matrix.toString(), "--format", "json", "-o", key.toString())
                        .code())
                .isZero();
        JsonNode file = JSON.readTree(Files.readString(key));
        assertThat(file.path("figures").path("proven").asBoolean()).isTrue();
        assertThat(file.path("figures").path("expectedSteps").asDouble())
                .isGreaterThanOrEqualTo(
                        file.path("figures").path("entropyBound").asDouble() - 1e-6);
        Path schema = Path.of("../docs/format/key.schema.json");
        assertThat(SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12)
                        .getSchema(Files.readString(schema))
                        .validate(file))
                .isEmpty();
        assertThat(run("prove", matrix.toString(), key.toString()).code()).isZero();

        String text = Files.readString(key);
        String target = file.findValues("rows").stream()
                .filter(JsonNode::isArray)
                .map(rows -> rows.get(0).asString())
                .findFirst()
                .orElseThrow();
        Path broken =
                write("broken.json", text.replaceFirst("\\[ ?\"" + target + "\" ?]", "[\"" + other(target) + "\"]"));
        Run refused = run("prove", matrix.toString(), broken.toString());
        assertThat(refused.code()).isEqualTo(1);
        assertThat(refused.out())
                .containsPattern("Couplet \\d+, lead \\d: 'Taxon \\d+' with part \\d+ .* ends here, but is not named");
    }

    private static String other(String row) {
        return row.equals("taxon-0") ? "taxon-1" : "taxon-0";
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', textBlock = """
            Margin toothed | Margin entire    | 1 | it reads 'Margin entire', but its statements say 'Margin toothed'
            Margin toothed | The margin: toothed | 0 | Proven
            Margin toothed | Margin like a saw   | 0 | 1 lead is in the author's words, not proved
            Margin toothed | Margin not toothed  | 0 | 1 lead is in the author's words, not proved
            Margin toothed | Margin toothed, 7 teeth | 1 | it reads 'Margin toothed, 7 teeth'
            """)
    void theWordsOfALeadAreHeldAgainstItsStatements(String own, String other, int code, String says)
            throws IOException {
        Path matrix = write("m.csv", "taxon,margin\n#type,states\nAa,toothed\nBb,entire\nCc,\n");
        Path key = folder.resolve("k.json");
        Run made = run("key", matrix.toString(), "--format", "json", "-o", key.toString());
        assertThat(made.code()).isZero();
        assertThat(made.err()).contains("Left out, because nothing is scored: 'Cc'");
        Path changed = write(
                "changed.json",
                Files.readString(key).replace("\"text\" : \"" + own + "\"", "\"text\" : \"" + other + "\""));
        Run proved = run("prove", matrix.toString(), changed.toString());
        assertThat(proved.out()).contains(says);
        assertThat(proved.code()).isEqualTo(code);
    }

    @Test
    void onlyRegularFilesAreReplacedByWhatIsWritten() throws IOException {
        Path matrix = write("m.csv", "taxon,margin\nAa,toothed\nBb,entire\n");
        Path real = write("real.txt", "");
        Path link = Files.createSymbolicLink(folder.resolve("link.txt"), real);
        assertThat(run("key", matrix.toString(), "-o", link.toString()).code()).isZero();
        assertThat(link).isSymbolicLink();
        assertThat(Files.readString(real)).contains("Aa");
    }

    @Test
    void theDemoKeyReadsLikeAPrintedOne() throws IOException {
        Path matrix = write("demo.polyclave.json", StudyJson.write(DemoStudies.tussocks()));
        Run text = run("key", matrix.toString(), "--objective", "cautious");
        assertThat(text.code()).isZero();
        assertThat(text.out())
                .contains("22 rows")
                .contains("proven against the matrix")
                .contains("not enough to eat anything")
                .containsPattern("Ostrivia fallax[^!]*! life-threatening hazard: poisonous if eaten")
                .contains("(lens)")
                .containsPattern("(?s)[\\d.–]+\\s+(mm|cm)\\s")
                .contains("Brimora dioica, female / Brimora paludosa, female");
        assertThat(run("key", matrix.toString(), "--objective", "cautious", "--plain")
                        .out())
                .containsPattern("when\\s+cut\\s+across")
                .doesNotContain("cross-section");
        Run html = run("key", matrix.toString(), "--format", "html");
        assertThat(html.out())
                .startsWith("<!doctype html>")
                .doesNotContain("http://")
                .doesNotContain("https://")
                .doesNotContain("<script");
        assertThat(run("key", matrix.toString(), "--format", "markdown").out())
                .contains("> **Caution.**")
                .contains("→");
        assertThat(run("key", matrix.toString(), "--objective", "cautious").out())
                .as("deterministic")
                .isEqualTo(text.out());
    }

    @Test
    void theDemoStudyKeepsTheRulesOfStudies() {
        assertThat(StudyRules.check(DemoStudies.tussocks())).isEmpty();
        DemoStudies.tussocks()
                .characters()
                .forEach(c -> assertThat(StudyRules.checkWording(c)).isEmpty());
    }

    @Test
    void aCheckListsWhatMayBeSlips() throws IOException {
        Path demo = write("demo.polyclave.json", StudyJson.write(DemoStudies.tussocks()));
        Run text = run("check", demo.toString());
        assertThat(text.code()).isZero();
        assertThat(text.out())
                .contains("hazard-not-assessed\ttarnella-obscura\t")
                .contains("'Brimora dioica, female' and 'Brimora paludosa, female' have the same scores throughout");
        JsonNode json =
                JSON.readTree(run("check", demo.toString(), "--format", "json").out());
        assertThat(json.path("format").asString()).isEqualTo("polyclave-findings");
        assertThat(json.path("findings").size()).isEqualTo(text.out().lines().count() - 1);
        JsonNode first = json.path("findings").get(0);
        assertThat(first.path("kind").asString()).isEqualTo("danger-not-ruled-out");
        assertThat(first.path("row").asString()).isEqualTo("ostrivia-fallax-flowering");
        assertThat(first.path("character").isNull()).isTrue();
        assertThat(first.path("reason").asString()).contains("cannot rule out 'Ostrivia fallax, flowering'");
        assertThat(run("check", folder.resolve("none.csv").toString()).code()).isEqualTo(2);
    }

    @Test
    void aContextLeavesOutWhatIsNotAtHand() throws IOException {
        Path matrix = write("demo.polyclave.json", StudyJson.write(DemoStudies.tussocks()));
        Run winter = run("key", matrix.toString(), "--context", "months=1,methods=eye+ruler");
        assertThat(winter.code()).isZero();
        assertThat(winter.out())
                .doesNotContainIgnoringCase("flower head")
                .doesNotContain("(lens)")
                .contains("proven");
        assertThat(run("key", matrix.toString(), "--context", "moon=full").code())
                .isEqualTo(64);
    }

    @Test
    void exitCodesTellWhatWentWrong() throws IOException {
        assertThat(run("key").code()).isEqualTo(64);
        assertThat(run("key", "a.csv", "--format", "pdf").code()).isEqualTo(64);
        Run missing = run("key", folder.resolve("none.csv").toString());
        assertThat(missing.code()).isEqualTo(2);
        assertThat(missing.err()).contains("was not found");
        Path bad = write("bad.csv", "taxon,a\n#type,length\nAa,9–5\nBb,red\n");
        Path out = folder.resolve("never.json");
        Run refused = run("key", bad.toString(), "-o", out.toString());
        assertThat(refused.code()).isEqualTo(2);
        assertThat(refused.err()).contains("Row 3, column 2 (a)").contains("Row 4, column 2 (a)");
        assertThat(out).doesNotExist();
        Path good = write("good.csv", "taxon,a\nAa,red\nBb,blue\n");
        assertThat(run("key", good.toString()).err()).contains("No #type given; taken as a: states");
        Path bare = write("bare.csv", "taxon,leaf length\nAa,5–9\nBb,12\n");
        assertThat(run("key", bare.toString()).err())
                .as("nobody can be asked for the unit here")
                .contains("leaf length: length in mm (not all numbers have a unit");
        assertThat(run("probe", "nowhere").code()).isEqualTo(64);
        assertThat(run("probe", "http://127.0.0.1:9", "--senders", "1"))
                .as("what does not answer withstands nothing")
                .matches(r -> r.code() == 1 && r.out().contains("FAILED"));
        Path nonsense = write(
                "key.json",
                "{\"format\":\"polyclave-key\",\"version\":1,\"couplets\":[{\"number\":1,\"from\":null,\"leads\":[{\"statements\":[{\"character\":\"b\",\"states\":[\"x\"]}],\"text\":\"\",\"to\":{\"rows\":[\"zz\"]}}]}]}");
        Run unreadable = run("prove", good.toString(), nonsense.toString());
        assertThat(unreadable.code()).isEqualTo(2);
        assertThat(unreadable.err()).contains("no character 'b'").contains("no row 'zz'");
    }

    @Test
    void convertingTellsWhatIsLostAndTheRestMakesTheSameKey() throws IOException {
        Path study = write("plants.polyclave.json", StudyJson.write(DemoStudies.tussocks()));
        Run direct = run("key", study.toString(), "--format", "text");
        for (String name : new String[] {"a.csv", "a.tsv", "a.xlsx"}) {
            for (String layout : new String[] {"wide", "long"}) {
                String table = folder.resolve(name).toString();
                Run converted = run("convert", study.toString(), table, "--layout", layout);
                assertThat(converted.code()).isZero();
                assertThat(converted.err())
                        .contains("Not in " + name + ": scope")
                        .doesNotContain("what scores say");
                assertThat(converted.err().contains("scores, basis")).isEqualTo(layout.equals("wide"));
                assertThat(run("check", table).code()).isZero();
            }
        }
        Path nexus = folder.resolve("a.nex");
        assertThat(run("convert", study.toString(), nexus.toString()).err())
                .contains("what scores say", "order of the characters");
        assertThat(run("key", nexus.toString()).code()).isZero();
        assertThat(run(
                                "convert",
                                study.toString(),
                                folder.resolve("b.polyclave.json").toString())
                        .err())
                .isEmpty();
        assertThat(run("key", folder.resolve("b.polyclave.json").toString(), "--format", "text")
                        .out())
                .isEqualTo(direct.out());
        Run noFormat = run("convert", study.toString(), folder.resolve("a.doc").toString());
        assertThat(noFormat.code()).isEqualTo(64);
        assertThat(noFormat.err()).contains(".polyclave.json, .csv, .tsv, .xlsx, .nex or .taxa.csv");
    }

    private static JsonNode separated(String... more) throws IOException {
        String example =
                Path.of("..", "docs", "format", "examples", "telling-apart.csv").toString();
        List<String> arguments = new ArrayList<>(List.of("separate", example, "--format", "json"));
        arguments.addAll(List.of(more));
        Run run = run(arguments.toArray(String[]::new));
        assertThat(run.code()).as(run.err()).isZero();
        return JSON.readTree(run.out());
    }

    /** The example that docs/computation.md works out by hand. */
    @Test
    void whatTellsRowsApartIsToldWithWhatIsAtHand() throws IOException {
        JsonNode all = separated();
        assertThat(all.get("pairs")
                        .valueStream()
                        .map(p -> p.get("rows") + " " + p.get("separating") + " " + p.get("verdict")))
                .containsExactly(
                        "[\"aa\",\"bb\"] [\"leaf-margin\",\"leaf-width\"] \"FIRM\"",
                        "[\"aa\",\"cc\"] [\"petals\"] \"THIN\"",
                        "[\"bb\",\"cc\"] [\"leaf-margin\",\"petals\"] \"FIRM\"");
        assertThat(all.get("pairs").get(0).get("bits").asDouble()).isEqualTo(3.522);
        assertThat(all.get("diagnoses")
                        .valueStream()
                        .map(d -> d.get("row") + " " + d.get("characters") + " " + d.get("cost")))
                .containsExactly(
                        "\"aa\" [\"leaf-margin\",\"petals\"] 2.5",
                        "\"bb\" [\"leaf-margin\"] 1.25",
                        "\"cc\" [\"petals\"] 1.25");
        assertThat(all.get("diagnoses")
                        .valueStream()
                        .map(d -> d.get("completion").asString()))
                .containsOnly("OPTIMAL");

        JsonNode winter = separated("--context", "months=12+1+2");
        assertThat(winter.get("pairs").valueStream().map(p -> p.get("verdict").asString()))
                .containsExactly("FIRM", "NONE", "THIN");
        assertThat(winter.get("diagnoses").get(0).get("notTold").toString()).isEqualTo("[\"cc\"]");

        JsonNode two = separated("--rows", "bb,cc", "--context", "organs=flower");
        assertThat(two.get("pairs")).hasSize(1);
        assertThat(two.get("pairs").get(0).get("separating").toString()).isEqualTo("[\"petals\"]");

        String large = write("large.csv", large()).toString();
        assertThat(run("separate", large).code()).isEqualTo(3);
        assertThat(run("separate", large, "--rows", "t 1,t 2").out()).contains("T 1 / T 2: thin");
        assertThat(run("separate", large, "--rows", "nobody").code()).isEqualTo(64);
        assertThat(run("separate", large, "--context", "preserved=pickled").code())
                .isEqualTo(64);
    }

    @Test
    void whatIsInTheHandNarrowsRowsAndNobodyIsSentToTouchADanger() throws IOException {
        String table = write("hand.csv", """
                taxon,#stage,#hazard,sap,leaf,cap
                #organ,,,stem,leaf,cap
                #harm,,,hazardous,,
                Aa,female,none known,white,flat,"red, blue"
                Aa,male,none known,white,flat,blue
                Bb,,none known,clear,flat,red
                Cc,,serious,clear,rolled,red
                """).toString();
        Run women = run("separate", table, "--stages", "female", "--format", "json");
        JsonNode document = JSON.readTree(women.out());
        assertThat(document.get("pairs").valueStream().map(p -> p.get("rows") + " " + p.get("separating")))
                .containsExactly(
                        "[\"aa-female\",\"bb\"] [\"sap\"]",
                        "[\"aa-female\",\"cc\"] [\"sap\",\"leaf\"]",
                        "[\"bb\",\"cc\"] [\"leaf\"]");
        assertThat(women.err()).contains("no diagnosis takes smelling, cutting or touching");
        JsonNode first = document.get("diagnoses").get(0);
        assertThat(first.get("characters").toString()).isEqualTo("[\"leaf\"]");
        assertThat(first.get("notTold").toString()).isEqualTo("[\"bb\"]");
        JsonNode safe =
                JSON.readTree(run("separate", table, "--against-dangers", "--rows", "aa-male,bb", "--format", "json")
                        .out());
        assertThat(safe.get("pairs").get(0).get("separating").toString()).isEqualTo("[\"cap\"]");
    }

    private static String large() {
        StringBuilder table = new StringBuilder("taxon,c0");
        IntStream.range(1, 60).forEach(c -> table.append(",c").append(c));
        for (int row = 0; row < 200; row++) {
            table.append("\nT ").append(row);
            for (int c = 0; c < 60; c++) {
                table.append(c == 0 && row % 2 == 0 ? ",round" : ",flat");
            }
        }
        return table.append('\n').toString();
    }

    @Test
    void readingsAreSummarized() throws IOException {
        String example =
                Path.of("..", "docs", "format", "examples", "readings.csv").toString();
        Run run = run("summarize", example, "--format", "json");
        assertThat(run.code()).isZero();
        JsonNode document = JSON.readTree(run.out());
        assertThat(document.get("by").toString()).isEqualTo("[\"row\",\"stage\"]");
        JsonNode summaries = document.get("summaries");
        assertThat(summaries).hasSize(12);
        JsonNode width = summaries.get(0);
        assertThat(width.get("group").get("row").asString()).isEqualTo("Estuarion vulgare");
        assertThat(width.get("n").asInt()).isEqualTo(14);
        assertThat(width.get("missing").asInt()).isEqualTo(14);
        assertThat(width.get("flagged")).hasSize(1);
        assertThat(width.get("flagged").get(0).get("specimen").asString()).isEqualTo("ME-007");
        assertThat(width.get("flagged").get(0).get("cause").asString()).isEqualTo("inches");
        assertThat(width.get("p5").asDouble()).isLessThan(width.get("median").asDouble());
        JsonNode claw = summaries.get(1);
        assertThat(claw.get("items").asInt()).isEqualTo(28);
        assertThat(claw.get("cell").asString()).endsWith(" mm");
        assertThat(claw.get("provisional").asBoolean()).isTrue();

        Run text = run("summarize", example, "--by", "row");
        assertThat(text.out())
                .contains("Estuarion vulgare × carapace width (mm)", "look again: line 14, ME-007", "inches?");
        assertThat(run("summarize", example, "--by", "place").code()).isEqualTo(64);
        Run broken = run(
                "summarize",
                write("broken.csv", "specimen,width\nA,3 mm\nB,-4 mm\n").toString());
        assertThat(broken.code()).isEqualTo(2);
        assertThat(broken.err()).contains("Row 3, column 2 (width): '-4 mm' is below zero");
        assertThat(broken.out()).isEmpty();
    }
}
