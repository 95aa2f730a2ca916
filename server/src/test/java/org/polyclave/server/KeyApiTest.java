package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.format.TextStyle;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Keys of the demo study over HTTP: wishes in the address, reasons, files. */
@ExtendWith(RunningApplication.class)
class KeyApiTest {
    private static final String KEYS = "/api/v1/studies/marrowmere-tussocks/keys";

    /** The key of a wish, given as the rest of a JSON object. */
    private static JsonNode key(Visitor reader, String wish) {
        return finished(reader, KEYS, "{\"evenWeights\":true" + wish + "}").path("key");
    }

    private static JsonNode finished(Visitor visitor, String keys, String wish) {
        return answered(visitor, keys, wish).json();
    }

    /** The answer once the key is no longer being made. */
    private static Visitor.Answer answered(Visitor visitor, String keys, String wish) {
        Visitor.Answer answer = visitor.post(keys, wish);
        while (answer.json().path("status").asString().matches("QUEUED|RUNNING")) {
            answer = visitor.get(keys + "/" + answer.json().path("id").asString());
        }
        return answer;
    }

    private static List<String> asked(JsonNode key) {
        List<String> asked = new ArrayList<>();
        key.path("couplets").forEach(c -> asked.add(c.path("character").asString()));
        return asked;
    }

    @Test
    void everyObjectiveGivesAProvenKeyOfAllTaxa() {
        Visitor reader = Visitor.reader();
        for (String objective : List.of("FEWEST", "CAUTIOUS", "RELATIVES", "EQUIPMENT", "BEGINNER")) {
            JsonNode figures =
                    key(reader, ",\"objective\":\"" + objective + "\"").path("figures");
            assertThat(figures.path("proven").asBoolean()).as(objective).isTrue();
            assertThat(figures.path("rows").asInt()).isEqualTo(22);
            assertThat(figures.path("expectedSteps").asDouble())
                    .isGreaterThanOrEqualTo(figures.path("entropyBound").asDouble());
        }
    }

    @Test
    void aForbiddenCharacterIsNotAskedAndACoupletTellsItsReasons() {
        Visitor reader = Visitor.reader();
        JsonNode key = key(reader, "");
        String first = asked(key).get(0);
        JsonNode couplet = key.path("couplets").get(0);
        assertThat(couplet.path("rows").size()).isEqualTo(22);
        assertThat(couplet.path("gain").asDouble()).isBetween(0.3, 1.0);
        assertThat(couplet.path("alternatives").size()).isPositive();
        assertThat(couplet.path("alternatives").toString()).doesNotContain("\"character\":\"" + first + "\"");
        assertThat(asked(key(reader, ",\"forbidden\":[\"" + first + "\"]"))).doesNotContain(first);
    }

    @Test
    void aQuestionIsSetByTheRowsThatAreInPlay() {
        Visitor reader = Visitor.reader();
        JsonNode key = key(reader, ",\"months\":[7]");
        JsonNode first = key.path("couplets").get(0);
        String other = first.path("alternatives").get(0).path("character").asString();
        JsonNode set = key(reader, ",\"months\":[7],\"questions\":[{\"character\":\"" + other + "\"}]");
        assertThat(asked(set).get(0)).isEqualTo(other).isNotEqualTo(asked(key).get(0));
        assertThat(set.path("figures").path("proven").asBoolean()).isTrue();
        JsonNode second = set.path("couplets").get(1);
        String below = second.path("alternatives").get(0).path("character").asString();
        JsonNode both = key(
                reader,
                ",\"months\":[7],\"questions\":[{\"character\":\"%s\"},{\"character\":\"%s\",\"rows\":%s},{\"character\":\"gone\"}]"
                        .formatted(other, below, second.path("rows")));
        assertThat(asked(both)).startsWith(other, below);
        assertThat(both.path("couplets").get(1).path("rows")).isEqualTo(second.path("rows"));
    }

    /** How many couplets a specimen of the dangerous rows passes while something harmless is still in play, at most. */
    private static int mixed(JsonNode key, Set<String> dangerous) {
        int mixed = 0;
        for (JsonNode couplet : key.path("couplets")) {
            List<String> rows = new ArrayList<>();
            couplet.path("rows").forEach(r -> rows.add(r.asString()));
            boolean danger = rows.stream().anyMatch(dangerous::contains);
            mixed += danger && !dangerous.containsAll(rows) ? 1 : 0;
        }
        return mixed;
    }

    @Test
    void dangerousTaxaComeFirstIfThatIsWished() {
        Visitor author = Visitor.author();
        StringBuilder table = new StringBuilder("taxon,#hazard,tip,stem,leaf,fruit\n");
        for (int i = 0; i < 16; i++) {
            table.append("T%d,%s".formatted(i, i == 5 ? "serious" : "none known"));
            for (int bit = 0; bit < 4; bit++) {
                table.append(',').append((i >> bit & 1) == 1 ? "round" : "flat");
            }
            table.append('\n');
        }
        String with = table.toString()
                .lines()
                .map(l -> l + (l.startsWith("taxon") ? ",smell" : l.startsWith("T5,") ? ",foul" : ",none"))
                .collect(Collectors.joining("\n"));
        String keys = "/api/v1/studies/" + author.importTable("hazards first", with) + "/keys";
        JsonNode usual = finished(author, keys, "{\"evenWeights\":true,\"objective\":\"RELATIVES\"}")
                .path("key");
        JsonNode first = finished(
                        author, keys, "{\"evenWeights\":true,\"objective\":\"RELATIVES\",\"hazardsFirst\":true}")
                .path("key");
        assertThat(mixed(usual, Set.of("t5"))).isEqualTo(4);
        assertThat(mixed(first, Set.of("t5"))).isEqualTo(1);
        assertThat(first.path("figures").path("proven").asBoolean()).isTrue();
    }

    @Test
    void aKeyHasSeveralLeadsIsForSomeStagesAndStopsAtGroups() {
        Visitor author = Visitor.author();
        String keys = "/api/v1/studies/marrowmere-crabs/keys";
        JsonNode usual = finished(author, keys, "{\"evenWeights\":true}").path("key");
        JsonNode wished = finished(
                        author,
                        keys,
                        "{\"evenWeights\":true,\"objective\":\"FEWEST\",\"leads\":4,\"readers\":\"NOVICE\",\"stages\":[\"Juvenile\"]}")
                .path("key");
        assertThat(wished.path("figures").path("proven").asBoolean()).isTrue();
        assertThat(wished.path("figures").path("expectedSteps").asDouble())
                .isLessThan(usual.path("figures").path("expectedSteps").asDouble());
        assertThat(wished.path("couplets")
                        .valueStream()
                        .map(c -> c.path("leads").size()))
                .allMatch(n -> n <= 4)
                .anyMatch(n -> n > 2);
        assertThat(wished.path("leftOut").toString()).contains("male");
        String table = """
                taxon,#rank,#parent,#hazard,tip,stem
                Mild,genus,,none known,,
                Mild one,species,Mild,none known,flat,x
                Mild two,species,Mild,none known,flat,y
                Bane one,species,,serious,round,x
                """;
        String groups = "/api/v1/studies/" + author.importTable("groups", table) + "/keys";
        JsonNode stopped = finished(author, groups, "{\"evenWeights\":true,\"groups\":[\"mild\"]}")
                .path("key");
        assertThat(stopped.path("couplets").size()).isEqualTo(1);
        assertThat(stopped.path("couplets").get(0).toString()).contains("the key stops at this group");
        assertThat(stopped.path("figures").path("proven").asBoolean()).isTrue();
    }

    @Test
    void aWinterKeyAsksNothingThatIsGoneInWinter() {
        JsonNode winter = key(Visitor.reader(), ",\"months\":[1]");
        assertThat(asked(winter)).doesNotContain("flower-head", "fruit-colour", "leaf-colour", "plant-height");
        assertThat(winter.path("figures").path("proven").asBoolean()).isTrue();
        JsonNode leaves = key(Visitor.reader(), ",\"organs\":[\"leaf\",\"sheath\"],\"methods\":[\"ruler\"]");
        assertThat(asked(leaves))
                .allMatch(c -> c.startsWith("leaf-") || c.startsWith("sheath-"))
                .doesNotContain("leaf-margin");
    }

    @Test
    void aKeyForSomeTaxaNamesTheseAndTellsWhatItLeavesOut() {
        Visitor reader = Visitor.reader();
        JsonNode made =
                finished(reader, KEYS, "{\"evenWeights\":true,\"taxa\":[\"brimora-dioica\",\"velmia-stricta\"]}");
        JsonNode key = made.path("key");
        List<String> named = key.findValuesAsString("row");
        List<String> leftOut = key.path("leftOut").findValuesAsString("row");
        named.removeAll(leftOut);
        assertThat(named)
                .isNotEmpty()
                .allMatch(row -> row.startsWith("brimora-dioica") || row.equals("velmia-stricta"))
                .contains("velmia-stricta", "brimora-dioica-male");
        assertThat(key.path("figures").path("proven").asBoolean()).isTrue();
        assertThat(key.path("leftOut").get(0).path("hazard").asString()).isIn("SERIOUS", "LIFE_THREATENING");
        assertThat(leftOut).contains("velmia-aquatilis").doesNotContain("velmia-stricta", "brimora-dioica");
        String text = reader.get(KEYS + "/" + made.path("id").asString() + "/file?format=text")
                .body();
        assertThat(text).containsPattern("Dangerous, and not in this key: .*Ostrivia fallax");
        assertThat(text).containsPattern("This key does not lead to: .*Velmia aquatilis");
    }

    @Test
    void keysAreSavedInEachForm() {
        Visitor reader = Visitor.reader();
        String id = finished(reader, KEYS, "{\"evenWeights\":true}").path("id").asString();
        for (String format : List.of("text", "markdown", "json", "html")) {
            Visitor.Answer file = reader.get(KEYS + "/" + id + "/file?format=" + format);
            assertThat(file.status()).isEqualTo(200);
            assertThat(file.response()
                            .headers()
                            .firstValue("Content-Disposition")
                            .orElse(""))
                    .contains("marrowmere-tussocks-key.");
            assertThat(file.body()).contains(format.equals("json") ? "ostrivia-fallax-flowering" : "Ostrivia fallax");
        }
        assertThat(reader.get(KEYS + "/" + id + "/file?format=pdf").status()).isEqualTo(400);
    }

    /** A study whose key takes seconds. */
    private static String large(Visitor author) {
        Random random = new Random(5);
        int characters = 200;
        StringBuilder table = new StringBuilder("taxon");
        for (int c = 0; c < characters; c++) {
            table.append(",part ").append(c);
        }
        for (int row = 0; row < 2_000; row++) {
            table.append("\nTaxon ").append(row);
            for (int c = 0; c < characters; c++) {
                table.append(',').append((char) ('a' + random.nextInt(4)));
            }
        }
        return author.importTable("large", table.toString());
    }

    @Test
    void aLongKeyTellsHowFarItIsAndCanBeStopped() throws SQLException, InterruptedException {
        Visitor author = Visitor.author();
        String keys = "/api/v1/studies/" + large(author) + "/keys";
        JsonNode job = author.post(keys, "{\"evenWeights\":true}").json();
        String id = job.path("id").asString();
        assertThat(job.path("status").asString()).isEqualTo("RUNNING");
        assertThat(job.has("key")).isFalse();
        double before = job.path("progress").asDouble();
        double now = before;
        // The first couplets take longest; how long, depends on what else the machine does.
        for (int wait = 0; wait < 300 && now <= before; wait++) {
            Thread.sleep(100);
            now = author.get(keys + "/" + id).json().path("progress").asDouble();
        }
        assertThat(now).isGreaterThan(before).isLessThan(1);

        assertThat(author.get(keys.replaceFirst("large[-0-9]*", "marrowmere-tussocks") + "/" + id)
                        .status())
                .as("a job of another study")
                .isEqualTo(404);
        assertThat(Visitor.reader().delete(keys + "/" + id).status()).isEqualTo(404);
        assertThat(author.delete(keys + "/" + id).status()).isEqualTo(200);
        JsonNode stopped = author.get(keys + "/" + id).json();
        for (int wait = 0; wait < 60 && stopped.path("status").asString().equals("RUNNING"); wait++) {
            stopped = author.get(keys + "/" + id).json();
        }
        assertThat(stopped.path("status").asString()).isEqualTo("CANCELLED");
        // Whether there was a key already depends on when it was stopped; it is whole, if so.
        if (stopped.has("key")) {
            assertThat(stopped.path("key").path("figures").path("rows").asInt()).isEqualTo(2_000);
        }
    }

    @Test
    void aKeyThatAKilledServerLeftInTheQueueIsMade() throws SQLException {
        Visitor reader = Visitor.reader();
        String wish = "{\"evenWeights\":true,\"months\":[7]}";
        String id = finished(reader, KEYS, wish).path("id").asString();
        try (Connection database = RunningApplication.database();
                Statement statement = database.createStatement()) {
            statement.execute("update job set status = 'QUEUED', answer = null where id = '" + id + "'");
        }
        JsonNode again = finished(reader, KEYS, wish);
        assertThat(again.path("id").asString()).isEqualTo(id);
        assertThat(again.path("key").path("figures").path("proven").asBoolean()).isTrue();
    }

    @Test
    void aKeyThatCannotBeMadeSaysWhy() {
        Visitor author = Visitor.author();
        for (String wish : List.of(
                "\"objective\":\"MAGIC\"", "\"months\":[13]", "\"leads\":1", "\"leads\":9", "\"magnification\":-1")) {
            assertThat(author.post(KEYS, "{\"evenWeights\":true," + wish + "}").status())
                    .as(wish)
                    .isEqualTo(400);
        }
        assertThat(author.get(KEYS + "/no-such-key").status()).isEqualTo(404);
        Visitor.Answer refused = answered(
                author,
                "/api/v1/studies/" + author.importTable("tangle", tangle(16)) + "/keys",
                "{\"evenWeights\":true}");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.json().path("code").asString()).isEqualTo("too-many-terminals");
        assertThat(refused.json().path("detail").asString()).contains("part 0");
        Visitor.Answer nobody = answered(author, KEYS, "{\"evenWeights\":true,\"taxa\":[\"nobody\"]}");
        assertThat(nobody.status()).isEqualTo(422);
        assertThat(nobody.json().path("detail").asString())
                .contains("None of the chosen taxa, sexes and stages has scores");
    }

    /** Each character parts two taxa and varies in all others, so that a key would name them over and over. */
    private static String tangle(int taxa) {
        StringBuilder header = new StringBuilder("taxon");
        StringBuilder[] rows = new StringBuilder[taxa];
        for (int i = 0; i < taxa; i++) {
            rows[i] = new StringBuilder("\nTaxon " + i);
        }
        int characters = 0;
        for (int i = 0; i < taxa; i++) {
            for (int j = 0; j < i; j++) {
                header.append(",part ").append(characters++);
                for (int row = 0; row < taxa; row++) {
                    rows[row].append(row == i ? ",x" : row == j ? ",y" : ",\"x, y\"");
                }
            }
        }
        return header + String.join("", rows);
    }

    @Test
    void theNextBestStepIsComputed() {
        Visitor author = Visitor.author();
        JsonNode demo =
                author.get("/api/v1/studies/marrowmere-tussocks/next-step").json();
        assertThat(demo.path("kind").asString()).isEqualTo("ASSESS_HAZARDS");
        assertThat(demo.path("subject").asString()).isEqualTo("Tarnella obscura");
        String alike = author.importTable(
                "alike", "taxon,#hazard,a,b\nAa,none known,x,x\nBb,none known,x,x\nCc,none known,y,y\n");
        JsonNode parting = author.get("/api/v1/studies/" + alike + "/next-step").json();
        assertThat(parting.path("kind").asString()).isEqualTo("SEPARATE_PAIR");
        assertThat(parting.path("subject").asString()).isEqualTo("Aa / Bb");
        String ready = author.importTable("ready", "taxon,#hazard,a,b\nAa,none known,x,x\nBb,none known,y,y\n");
        assertThat(author.get("/api/v1/studies/" + ready + "/next-step")
                        .json()
                        .path("kind")
                        .asString())
                .isEqualTo("PUBLISH");
    }

    @Test
    void theNextBestStepMindsTheYear() {
        Visitor author = Visitor.author();
        String now = LocalDate.now(ZoneId.systemDefault()).getMonth().getDisplayName(TextStyle.SHORT, Locale.ENGLISH);
        String seasonal = author.importTable("seasonal", """
                taxon,#hazard,a,b,c
                #months,,Jan–Dec,Jan–Dec,May–Jun
                Aa,none known,x,x,x
                Bb,none known,x,x,y
                Cc,none known,y,y,x
                Dd,none known,z,z,x
                """);
        JsonNode winter =
                author.get("/api/v1/studies/" + seasonal + "/next-step").json();
        assertThat(winter.path("kind").asString()).isEqualTo("SEPARATE_IN_MONTH");
        assertThat(winter.path("month").asInt()).isEqualTo(1);
        assertThat(winter.path("count").asInt()).isEqualTo(1);
        assertThat(winter.path("month").asInt()).isEqualTo(1);
        String fleeting = author.importTable("fleeting", """
                taxon,#hazard,a,b,c
                #months,,Jan–Dec,Jan–Dec,%s
                Aa,none known,x,x,x
                Bb,none known,y,?,?
                Cc,none known,z,y,y
                """.formatted(now));
        JsonNode cell = author.get("/api/v1/studies/" + fleeting + "/next-step").json();
        assertThat(cell.path("kind").asString()).isEqualTo("SCORE_CELL_NOW");
        assertThat(cell.path("subject").asString()).isEqualTo("Bb: c");
    }
}
