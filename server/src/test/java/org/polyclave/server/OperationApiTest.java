package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.concurrent.CompletableFuture;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Changes of many objects at once, snapshots, glossary and references, files into a study that exists. */
@ExtendWith(RunningApplication.class)
class OperationApiTest {
    private final Visitor author = Visitor.author();
    private String study = "";

    @BeforeEach
    void importStudy() {
        study = "/api/v1/studies/" + author.importTable("operations", """
                        taxon,#hazard,margin,width
                        #type,,states,length
                        #states,,entire|toothed,
                        Aa,none known,toothed,5–9
                        Bb,none known,entire,3
                        Cc,none known,toothed,12
                        """);
    }

    private long revision() {
        return author.get(study).json().path("revision").asLong();
    }

    private String text(String row, String character) {
        return author.cell(study, row, character).path("text").asString();
    }

    private static String operation(String body, long baseRevision) {
        return "{\"operation\":{" + body + "},\"baseRevision\":" + baseRevision + "}";
    }

    private static final String SPLIT =
            "\"operation\":\"SplitState\",\"character\":\"margin\",\"state\":\"toothed\",\"into\":[\"coarse\",\"fine\"],\"assigned\":{\"aa\":[\"fine\"]}";

    @Test
    void whatAnOperationWouldDoIsShownThenDoneAndTakenBackAsOne() {
        long before = revision();
        JsonNode preview =
                author.post(study + "/operations/preview", operation(SPLIT, 0)).json();
        assertThat(preview.path("total").asInt()).isEqualTo(3);
        assertThat(preview.path("changes").findValuesAsString("name")).contains("margin", "Aa × margin", "Cc × margin");
        assertThat(revision()).as("a preview changes nothing").isEqualTo(before);
        assertThat(author.post(
                                study + "/operations",
                                operation(SPLIT, preview.path("revision").asLong()))
                        .status())
                .isEqualTo(200);
        assertThat(text("aa", "margin")).isEqualTo("fine");
        assertThat(text("cc", "margin")).isEqualTo("coarse / fine");
        assertThat(author.cell(study, "cc", "margin").path("doubtful").asBoolean())
                .isTrue();
        author.post(study + "/undo", "{}");
        assertThat(text("cc", "margin")).isEqualTo("toothed");
    }

    @Test
    void whatOthersChangedMeanwhileIsNotOverwritten() {
        long baseRevision = revision();
        author.post(
                study + "/scores",
                "{\"edits\":[{\"row\":\"cc\",\"character\":\"margin\",\"text\":\"toothed, entire\",\"baseRevision\":0}]}");
        Visitor.Answer refused = author.post(study + "/operations", operation(SPLIT, baseRevision));
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.json().path("detail").asString()).contains("cc × margin");
        assertThat(text("aa", "margin")).isEqualTo("toothed");
        assertThat(author.post(study + "/operations/preview", operation(SPLIT.replace("toothed", "red"), 0))
                        .json()
                        .path("detail")
                        .asString())
                .contains("has no state 'red'");
    }

    @Test
    void scoresCarryTheirOriginAndScorersMayReplaceButNotRestructure() {
        author.put(study + "/members", "{\"account\":\"oswin\",\"role\":\"SCORER\"}");
        Visitor scorer = Visitor.scorer();
        String origin =
                "{\"basis\":\"REFERENCE\",\"source\":\"orrin\",\"doubtful\":true,\"note\":\"plate 3\",\"months\":[7,5],\"concept\":\"s.l.\"}";
        assertThat(scorer.post(
                                study + "/scores",
                                "{\"edits\":[{\"row\":\"bb\",\"character\":\"margin\",\"text\":\"entire\",\"baseRevision\":0,\"origin\":"
                                        + origin + "}]}")
                        .status())
                .isEqualTo(200);
        JsonNode cell = author.cell(study, "bb", "margin");
        assertThat(cell.path("scorer").asString()).isEqualTo("Oswin Brandreth");
        assertThat(cell.path("months").toString()).isEqualTo("[5,7]");
        assertThat(cell.path("note").asString()
                        + cell.path("source").asString()
                        + cell.path("concept").asString())
                .isEqualTo("plate 3orrins.l.");
        String replace =
                "\"operation\":\"ReplaceScores\",\"rows\":[],\"characters\":[],\"saying\":\"\",\"contains\":false,\"doubtful\":true,\"withoutSource\":false,\"replacement\":\"\",\"becomeDoubtful\":false,\"source\":null";
        assertThat(scorer.post(study + "/operations", operation(replace, revision()))
                        .status())
                .isEqualTo(200);
        assertThat(author.cell(study, "bb", "margin").path("doubtful").asBoolean())
                .isFalse();
        assertThat(scorer.post(study + "/operations", operation(SPLIT, revision()))
                        .status())
                .isEqualTo(403);
    }

    @Test
    void snapshotsAreComparedAndBroughtBack() {
        JsonNode taken = author.post(study + "/snapshots", "{\"name\":\"Before the field trip\"}")
                .json();
        long id = taken.path(0).path("id").asLong();
        assertThat(author.post(study + "/snapshots", "{\"name\":\"before the field trip\"}")
                        .status())
                .isEqualTo(422);
        author.post(
                study + "/scores",
                "{\"edits\":[{\"row\":\"bb\",\"character\":\"width\",\"text\":\"4\",\"baseRevision\":0}]}");
        author.post(study + "/operations", operation(SPLIT, revision()));
        JsonNode difference =
                author.get(study + "/snapshots/difference?from=" + id + "&to=0").json();
        assertThat(difference.path("total").asInt()).isEqualTo(4);
        assertThat(author.post(study + "/snapshots/" + id + "/restore", "{\"baseRevision\":" + revision() + "}")
                        .status())
                .isEqualTo(200);
        assertThat(text("bb", "width")).isEqualTo("3");
        assertThat(author.get(study + "/snapshots/difference?from=" + id + "&to=0")
                        .json()
                        .path("total")
                        .asInt())
                .isZero();
        author.post(study + "/undo", "{}");
        assertThat(text("bb", "width")).isEqualTo("4");
        assertThat(Visitor.reader().get(study + "/snapshots").status()).isEqualTo(404);
    }

    @Test
    void termsReferencesAndClaimsAreObjectsOfTheirOwn() {
        JsonNode written = author.put(
                        study + "/terms",
                        "{\"term\":{\"id\":\"\",\"term\":\"Awn\",\"definition\":\"a bristle\",\"plain\":\"\",\"synonyms\":[\"arista\"],\"misspellings\":[]},\"baseRevision\":0}")
                .json();
        assertThat(written.path("id").asString()).isEqualTo("awn");
        Visitor.Answer twice = author.put(
                study + "/terms",
                "{\"term\":{\"id\":\"\",\"term\":\"Arista\",\"definition\":\"\",\"plain\":\"\",\"synonyms\":[],\"misspellings\":[]},\"baseRevision\":0}");
        assertThat(twice.status()).isEqualTo(422);
        assertThat(twice.json().path("detail").asString()).contains("already means 'Awn'");
        author.put(
                study + "/references",
                "{\"reference\":{\"id\":\"\",\"citation\":\"Orrin (2031) Sedges.\",\"doi\":\"10.1234/x\"},\"baseRevision\":0}");
        author.put(
                study + "/claims",
                "{\"claim\":{\"id\":\"\",\"row\":\"bb\",\"kind\":\"ONLY\",\"character\":\"margin\",\"states\":[\"entire\"],\"text\":\"the only one\"},\"baseRevision\":0}");
        JsonNode view = author.get(study).json();
        assertThat(view.path("references").path(0).path("id").asString()).isEqualTo("orrin-2031-sedges");
        assertThat(view.path("claims").size()).isEqualTo(1);
        long baseRevision = view.path("revisions").path("term/awn").asLong();
        assertThat(author.delete(study + "/terms/awn?baseRevision=" + (baseRevision - 1))
                        .status())
                .isEqualTo(409);
        assertThat(author.delete(study + "/terms/awn?baseRevision=" + baseRevision)
                        .status())
                .isEqualTo(200);
        assertThat(author.get(study).json().path("glossary").size()).isZero();
        author.post(study + "/undo", "{}");
        assertThat(author.get(study).json().path("glossary").size()).isEqualTo(1);
    }

    private static String specimen(String id, String characters, long baseRevision) {
        return "{\"specimen\":{\"id\":\"" + id
                + "\",\"code\":\"V 1\",\"note\":\"\",\"determinations\":[{\"row\":\"aa\",\"qualifier\":\"cf.\",\"kind\":"
                + "\"DETERMINED\",\"by\":\"Isolde\",\"date\":\"2021\",\"how\":\"\",\"characters\":[" + characters
                + "]}]},\"baseRevision\":" + baseRevision + "}";
    }

    private List<String> kindsAt(String row) {
        return author.get(study + "/findings")
                .json()
                .valueStream()
                .filter(f -> f.path("row").asString().equals(row))
                .map(f -> f.path("kind").asString())
                .toList();
    }

    @Test
    void whatWasMeasuredComesBackInItsUnitAndTheMeanLiesWithinTheRange() {
        author.post(
                study + "/operations",
                operation("\"operation\":\"ChangeUnit\",\"character\":\"width\",\"unit\":\"cm\"", revision()));
        String score =
                "{\"edits\":[{\"row\":\"aa\",\"character\":\"width\",\"text\":\"0.5–0.9\",\"baseRevision\":%d,\"origin\":{\"basis\":\"SPECIMENS\","
                        + "\"source\":\"\",\"doubtful\":false,\"note\":\"\",\"months\":[],\"concept\":\"\",\"sample\":{\"items\":30,%s\"specimens\":[],\"mean\":%s,"
                        + "\"sd\":0.1,\"provisional\":true}}}]}";
        long baseRevision = author.cell(study, "aa", "width").path("revision").asLong();
        assertThat(author.post(study + "/scores", String.format(score, baseRevision, "", "0.7"))
                        .json()
                        .path("detail")
                        .asString())
                .isEqualTo(
                        "The score of 'aa' in 'width': mean, standard deviation and the number of individuals say something"
                                + " only together.");
        assertThat(author.post(study + "/scores", String.format(score, baseRevision, "\"individuals\":12,", "7"))
                        .json()
                        .path("detail")
                        .asString())
                .contains("outside the range");
        assertThat(author.post(study + "/scores", String.format(score, baseRevision, "\"individuals\":12,", "0.7"))
                        .status())
                .isEqualTo(200);
        assertThat(author.cell(study, "aa", "width").path("sample").toString())
                .isEqualTo(
                        "{\"items\":30,\"individuals\":12,\"specimens\":[],\"mean\":0.7,\"sd\":0.1,\"provisional\":true}");
        JsonNode file = author.get(study + "/export?format=json").json();
        assertThat(file.path("scores").toString()).contains("\"mean\":7.0");
    }

    @Test
    void aScoreRestsOnSpecimensThatItsOwnCharacterDidNotName() {
        assertThat(author.put(study + "/specimens", specimen("", "\"width\"", 0))
                        .json()
                        .path("id")
                        .asString())
                .isEqualTo("v-1");
        String score =
                "{\"edits\":[{\"row\":\"aa\",\"character\":\"width\",\"text\":\"5–9\",\"baseRevision\":0,\"origin\":{\"basis\":\"SPECIMENS\","
                        + "\"source\":\"\",\"doubtful\":false,\"note\":\"\",\"months\":[],\"concept\":\"\",\"sample\":{\"individuals\":6,\"specimens\":[\"v-1\"],\"provisional\":false}}}]}";
        assertThat(author.post(study + "/scores", score.replace("v-1", "v-2")).status())
                .isEqualTo(400);
        assertThat(author.post(study + "/scores", score).status()).isEqualTo(200);
        assertThat(author.cell(study, "aa", "width")
                        .path("sample")
                        .path("specimens")
                        .toString())
                .isEqualTo("[\"v-1\"]");
        JsonNode view = author.get(study).json();
        assertThat(view.path("counts").path("specimens").path("v-1").asInt()).isEqualTo(1);
        assertThat(kindsAt("aa")).contains("CIRCULAR_EVIDENCE");
        long baseRevision = view.path("revisions").path("specimen/v-1").asLong();
        Visitor.Answer used = author.delete(study + "/specimens/v-1?baseRevision=" + baseRevision);
        assertThat(used.status()).isEqualTo(422);
        assertThat(used.json().path("detail").asString()).contains("rests on the specimen 'v-1'");
        assertThat(author.put(study + "/specimens", specimen("v-1", "\"margin\"", baseRevision))
                        .status())
                .isEqualTo(200);
        assertThat(kindsAt("aa")).doesNotContain("CIRCULAR_EVIDENCE");
        assertThat(author.put(study + "/specimens", specimen("v-1", "\"colour\"", baseRevision))
                        .json()
                        .path("detail")
                        .asString())
                .contains("'colour', which is not a character");
        author.post(study + "/undo", "{}");
        assertThat(kindsAt("aa")).contains("CIRCULAR_EVIDENCE");
    }

    @Test
    void aFileJoinsAStudyAsOneChangeAndNeverDeletes() {
        String table = "taxon,margin,width,spots\nAa,entire,5–9,present\nDd,toothed,0.7 cm,absent\n";
        Importing more = Importing.of(author, "more.csv", table).into(study);
        JsonNode shown = more.changes();
        assertThat(shown.path("total").asInt()).isEqualTo(7);
        assertThat(more.with("baseRevision", shown.path("revision").toString())
                        .run()
                        .status())
                .isEqualTo(200);
        assertThat(text("aa", "margin")).isEqualTo("entire");
        assertThat(text("cc", "margin")).isEqualTo("toothed");
        assertThat(text("dd", "width")).isEqualTo("7");
        author.post(study + "/undo", "{}");
        assertThat(author.get(study).json().path("rows").size()).isEqualTo(3);
        JsonNode wrong = Importing.of(author, "more.csv", "taxon,width\nAa,broad\n")
                .into(study)
                .ask("PREVIEW")
                .json()
                .path("answer");
        assertThat(wrong.path("changes").isObject()).isFalse();
        assertThat(wrong.path("preview").path("unread").toString()).contains("'broad' is not a number");
    }

    @Test
    void aTableOfSpecimensJoinsAStudyAsOneChange() {
        String table = "specimen,taxon,place,coordinates\nBox 1,Aa,the weir,\"54.1, -2.3\"\nBox 2,cf. Bb,,\n";
        int before = author.get(study).json().path("specimens").size();
        Importing box = Importing.of(author, "box.csv", table).into(study);
        assertThat(box.preview().path("specimens").asInt()).isEqualTo(2);
        JsonNode shown = box.changes();
        assertThat(shown.path("total").asInt()).isEqualTo(2);
        assertThat(box.with("baseRevision", shown.path("revision").toString())
                        .run()
                        .status())
                .isEqualTo(200);
        JsonNode last = author.get(study).json().path("specimens").path(before);
        assertThat(last.path("event").path("place").asString()).isEqualTo("the weir");
        assertThat(author.get(study).json().path("specimens").size()).isEqualTo(before + 2);
        author.post(study + "/undo", "{}");
        assertThat(author.get(study).json().path("specimens").size()).isEqualTo(before);
        JsonNode swapped = Importing.of(author, "box.csv", table.replace("54.1, -2.3", "151, -33"))
                .into(study)
                .ask("PREVIEW")
                .json()
                .path("answer");
        assertThat(swapped.path("changes").isObject()).isFalse();
        assertThat(swapped.path("preview").path("problems").toString()).contains("swapped");
    }

    @Test
    void everyFormatIsExportedAndSaysWhatItLoses() {
        for (String format : new String[] {"csv", "tsv", "xlsx", "nexus", "json"}) {
            assertThat(author.get(study + "/export?format=" + format).status()).isEqualTo(200);
            boolean lossy =
                    author.get(study + "/export/losses?format=" + format).json().size() > 0;
            assertThat(lossy).as(format).isEqualTo(format.equals("nexus"));
        }
        assertThat(author.get(study + "/export?format=nexus").body()).startsWith("#NEXUS");
        assertThat(author.get(study + "/export?format=csv&layout=long").body()).contains("Aa,,margin,toothed,import");
        assertThat(author.get(study + "/export?format=doc").status()).isEqualTo(400);
    }

    @Test
    void undoPressedManyTimesAtOnceTakesBackOneAfterTheOther() {
        for (String score : new String[] {"4", "5", "6", "7"}) {
            long baseRevision =
                    author.cell(study, "bb", "width").path("revision").asLong();
            author.post(
                    study + "/scores",
                    "{\"edits\":[{\"row\":\"bb\",\"character\":\"width\",\"text\":\"" + score + "\",\"baseRevision\":"
                            + baseRevision + "}]}");
        }
        assertThat(text("bb", "width")).isEqualTo("7");
        List<Integer> answers = java.util.stream.IntStream.range(0, 4)
                .mapToObj(k -> CompletableFuture.supplyAsync(
                        () -> author.post(study + "/undo", "{}").status()))
                .toList()
                .stream()
                .map(CompletableFuture::join)
                .toList();
        assertThat(answers).containsOnly(200);
        assertThat(text("bb", "width")).isEqualTo("3");
    }
}
