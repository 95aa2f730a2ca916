package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Studies over HTTP against the real database: who sees what, edits, conflicts, undo. */
@ExtendWith(RunningApplication.class)
class StudyApiTest {
    private static final String TABLE = """
            taxon,#hazard,leaf margin,leaf width,petals
            #type,,states,length,count
            #states,,toothed|entire|lobed,,
            Aa one,none known,toothed,5–9,5
            Bb two,none known,entire,4–6,4
            """;

    private Visitor author = Visitor.anonymous();
    private String study = "";

    @BeforeEach
    void importStudy() {
        author = Visitor.author();
        String slug = author.importTable("meadow", TABLE);
        author.put("/api/v1/studies/" + slug + "/members", "{\"account\":\"oswin\",\"role\":\"SCORER\"}");
        study = "/api/v1/studies/" + slug;
    }

    private static String edit(String row, String character, String text, long baseRevision) {
        return "{\"edits\":[{\"row\":\"" + row + "\",\"character\":\"" + character + "\",\"text\":\"" + text
                + "\",\"baseRevision\":" + baseRevision + "}]}";
    }

    private JsonNode cell(Visitor visitor, String row, String character) {
        return visitor.cell(study, row, character);
    }

    @Test
    void whatIsNotSharedDoesNotExist() {
        for (Visitor stranger : new Visitor[] {Visitor.anonymous(), Visitor.reader()}) {
            assertThat(stranger.get(study).status()).isEqualTo(404);
            assertThat(stranger.get(study + "/export?format=csv").status()).isEqualTo(404);
            assertThat(stranger.post(study + "/keys", "{\"evenWeights\":true}").status())
                    .isEqualTo(404);
            assertThat(stranger.post(study + "/scores", edit("aa-one", "petals", "6", 0))
                            .status())
                    .isEqualTo(404);
            assertThat(stranger.get(study).body().replace(study, "X"))
                    .as("no different from what does not exist")
                    .isEqualTo(stranger.get("/api/v1/studies/no-such").body().replace("/api/v1/studies/no-such", "X"));
        }
        assertThat(Visitor.anonymous().get("/api/v1/studies").status()).isEqualTo(404);
        assertThat(Visitor.author().get("/api/v1/accounts").status())
                .as("administrators only")
                .isEqualTo(404);
    }

    @Test
    void requestsWithoutTheirTokenAreRefused() {
        Visitor nobody = new Visitor();
        assertThat(nobody.post("/api/v1/session", "{\"name\":\"isolde\",\"password\":\"meadow-author\"}")
                        .status())
                .isEqualTo(403);
    }

    @Test
    void rolesLimitWhatMembersDo() {
        author.put(study + "/members", "{\"account\":\"petra\",\"role\":\"VIEWER\"}");
        Visitor reader = Visitor.reader();
        assertThat(reader.get(study).status()).isEqualTo(200);
        assertThat(reader.post(study + "/scores", edit("aa-one", "petals", "6", 0))
                        .status())
                .isEqualTo(403);
        assertThat(Visitor.scorer()
                        .post(study + "/editions", "{\"authors\":[\"x\"],\"words\":{}}")
                        .status())
                .isEqualTo(403);
    }

    @Test
    void anEditIsStoredUndoneAndDoneAgain() {
        assertThat(author.post(study + "/scores", edit("aa-one", "leaf-margin", "usually toothed, rarely lobed", 0))
                        .status())
                .isEqualTo(200);
        assertThat(cell(author, "aa-one", "leaf-margin").path("text").asString())
                .isEqualTo("usually toothed, rarely lobed");
        assertThat(author.post(study + "/undo", "{}").status()).isEqualTo(200);
        assertThat(cell(author, "aa-one", "leaf-margin").path("text").asString())
                .isEqualTo("toothed");
        assertThat(author.post(study + "/redo", "{}").status()).isEqualTo(200);
        assertThat(cell(author, "aa-one", "leaf-margin").path("text").asString())
                .isEqualTo("usually toothed, rarely lobed");
        JsonNode history =
                author.get(study + "/history?row=aa-one&character=leaf-margin").json();
        assertThat(history.size()).isEqualTo(3);
        assertThat(history.get(0).path("kind").asString()).isEqualTo("REDO");
    }

    @Test
    void editsAreTakenBackOneByOneAndDoneAgainOneByOne() {
        long baseRevision = 0;
        for (String petals : new String[] {"6", "7", "8"}) {
            baseRevision = author.post(study + "/scores", edit("aa-one", "petals", petals, baseRevision))
                    .json()
                    .path("revision")
                    .asLong();
        }
        for (String petals : new String[] {"7", "6", "5"}) {
            assertThat(author.post(study + "/undo", "{}").status()).isEqualTo(200);
            assertThat(cell(author, "aa-one", "petals").path("text").asString()).isEqualTo(petals);
        }
        assertThat(author.post(study + "/undo", "{}").json().path("code").asString())
                .isEqualTo("nothing-to-undo");
        assertThat(author.post(study + "/redo", "{}").status()).isEqualTo(200);
        assertThat(author.post(study + "/redo", "{}").status()).isEqualTo(200);
        assertThat(cell(author, "aa-one", "petals").path("text").asString()).isEqualTo("7");
        long now = cell(author, "aa-one", "petals").path("revision").asLong();
        assertThat(author.post(study + "/scores", edit("aa-one", "petals", "9", now))
                        .status())
                .isEqualTo(200);
        assertThat(author.post(study + "/redo", "{}").json().path("code").asString())
                .as("an edit ends what could be done again")
                .isEqualTo("nothing-to-redo");
    }

    @Test
    void whatWasTakenBackIsAChangeForThoseWhoSawIt() {
        Visitor scorer = Visitor.scorer();
        long baseRevision = author.post(study + "/scores", edit("aa-one", "petals", "6", 0))
                .json()
                .path("revision")
                .asLong();
        author.post(study + "/undo", "{}");
        assertThat(scorer.post(study + "/scores", edit("aa-one", "petals", "7", baseRevision))
                        .status())
                .as("the scorer saw 6, which is there no more")
                .isEqualTo(409);
    }

    @Test
    void theSecondToSaveGetsBothVersions() {
        Visitor scorer = Visitor.scorer();
        long baseRevision = cell(scorer, "aa-one", "petals").path("revision").asLong();
        assertThat(author.post(study + "/scores", edit("aa-one", "petals", "6", baseRevision))
                        .status())
                .isEqualTo(200);
        Visitor.Answer conflict = scorer.post(study + "/scores", edit("aa-one", "petals", "7", baseRevision));
        assertThat(conflict.status()).isEqualTo(409);
        JsonNode both = conflict.json().path("conflicts").get(0);
        assertThat(both.path("yours").asString()).isEqualTo("7");
        assertThat(both.path("theirs").asString()).isEqualTo("6");
        assertThat(both.path("who").asString()).isEqualTo("Isolde Quillane");
        assertThat(cell(author, "aa-one", "petals").path("text").asString()).isEqualTo("6");
        assertThat(scorer.post(
                                study + "/scores",
                                edit(
                                        "aa-one",
                                        "petals",
                                        "7",
                                        both.path("revision").asLong()))
                        .status())
                .as("having seen it, the scorer decides")
                .isEqualTo(200);
        Visitor.Answer undo = author.post(study + "/undo", "{}");
        assertThat(undo.json().path("passed").toString())
                .as("others changed it since")
                .contains("× petals")
                .contains("Oswin Brandreth");
        assertThat(undo.json().path("done").size()).isZero();
    }

    @Test
    void anotherCellChangedMeanwhileIsNoConflict() {
        assertThat(author.post(study + "/scores", edit("aa-one", "petals", "6", 0))
                        .status())
                .isEqualTo(200);
        assertThat(Visitor.scorer()
                        .post(study + "/scores", edit("bb-two", "petals", "6", 0))
                        .status())
                .isEqualTo(200);
    }

    @Test
    void aBlockWithOneBadCellChangesNothing() {
        String block = "{\"edits\":[{\"row\":\"aa-one\",\"character\":\"petals\",\"text\":\"9\",\"baseRevision\":0},"
                + "{\"row\":\"bb-two\",\"character\":\"leaf-margin\",\"text\":\"smooth\",\"baseRevision\":0}]}";
        Visitor.Answer answer = author.post(study + "/scores", block);
        assertThat(answer.status()).isEqualTo(422);
        JsonNode rejected = answer.json().path("rejections").get(0);
        assertThat(rejected.path("text").asString()).as("the text is kept").isEqualTo("smooth");
        assertThat(rejected.path("reason").asString()).contains("not a state of 'leaf margin'");
        assertThat(cell(author, "aa-one", "petals").path("text").asString()).isEqualTo("5");
        assertThat(answer.response().headers().firstValue("Content-Type"))
                .hasValueSatisfying(t -> assertThat(t).startsWith("application/problem+json"));
    }

    @Test
    void changesAreToldToOthers() {
        long revision = author.get(study).json().path("revision").asLong();
        Visitor.scorer().post(study + "/scores", edit("bb-two", "petals", "8", 0));
        JsonNode changes = author.get(study + "/changes?since=" + revision).json();
        assertThat(changes.path("revision").asLong()).isGreaterThan(revision);
        assertThat(changes.path("characters").toString()).isEqualTo("[\"petals\"]");
        assertThat(changes.path("structure").asBoolean()).isFalse();
        assertThat(cell(author, "bb-two", "petals").path("text").asString()).isEqualTo("8");
        assertThat(author.get(study + "/changes?since="
                                + changes.path("revision").asLong())
                        .json()
                        .path("characters")
                        .size())
                .isZero();
    }

    @Test
    void anExportReadsBackAsTheSameStudy() {
        String json = author.get(study + "/export?format=json").body();
        String again = Importing.of(author, "copy.polyclave.json", json).create();
        String copy =
                author.get("/api/v1/studies/" + again + "/export?format=json").body();
        assertThat(copy.replaceFirst("\"slug\": \"[^\"]*\"", ""))
                .isEqualTo(json.replaceFirst("\"slug\": \"[^\"]*\"", ""));
        String csv = author.get(study + "/export?format=csv").body();
        JsonNode preview = Importing.of(author, "again.csv", csv).preview();
        assertThat(preview.path("usable").asBoolean()).isTrue();
        assertThat(preview.path("scores").asInt()).isEqualTo(6);
    }

    @Test
    void anImportAsksWhetherWhatStandsBelowATaxonIsAllAndTakesTheAnswer() {
        Importing table = Importing.of(author, "stages.csv", """
                taxon,#stage,#rank,#parent,colour
                #states,,,,red|blue|green
                Fenroot,,genus,,
                Fenroot alta,,species,Fenroot,red
                Fenroot alta,seedling,species,Fenroot alta,blue
                Fenroot alta,first year,species,Fenroot alta,green
                """);
        JsonNode asked = table.preview().path("coverings");
        assertThat(asked.toString())
                .isEqualTo("[{\"kind\":\"TAXA_OF_HIGHER_TAXA\",\"covered\":true,\"rows\":[\"Fenroot\"]},"
                        + "{\"kind\":\"SEXES_AND_STAGES\",\"covered\":false,\"rows\":[\"Fenroot alta\"]}]");
        String answer = "[{\"kind\":\"SEXES_AND_STAGES\",\"covered\":false,\"covers\":\"ALL\"}]";
        JsonNode answered = table.with("coverings", answer).preview();
        assertThat(answered.path("coverings")).as("one may think again").isEqualTo(asked);
        String slug = table.create();
        assertThat(author.get("/api/v1/studies/" + slug + "/export?format=csv").body())
                .contains("#covers")
                .containsPattern("Fenroot alta,[^\n]*,all,");
        assertThat(table.with("coverings", "[{\"kind\":\"NONE\"}]")
                        .begin("PREVIEW")
                        .status())
                .isEqualTo(400);
    }

    @Test
    void aBadTableMakesNoStudy() {
        int before = author.get("/api/v1/studies").json().path("total").asInt();
        Importing bad = Importing.of(author, "bad.csv", TABLE.replace("5–9", "9–5"));
        JsonNode preview = bad.preview();
        assertThat(preview.path("usable").asBoolean()).isFalse();
        assertThat(preview.path("problems"))
                .as("what can be corrected here stands apart")
                .isEmpty();
        assertThat(preview.path("unread").get(0).path("line").asInt()).isEqualTo(4);
        assertThat(preview.path("unread").get(0).path("column").asInt()).isEqualTo(4);
        assertThat(bad.run().status()).isEqualTo(422);
        assertThat(author.get("/api/v1/studies").json().path("total").asInt()).isEqualTo(before);
    }

    @Test
    void whatCannotBeReadIsCorrectedWithoutTheFile() {
        String table = "taxon,leaf length,margin\nAa,5,tooothed\nBb,7,entire\nCc,9,entire\n";
        JsonNode preview = Importing.of(author, "units.csv", table)
                .with("types", "{\"margin\": {\"type\": \"COUNT\", \"unit\": \"\"}}")
                .preview();
        assertThat(preview.path("usable").asBoolean()).isFalse();
        assertThat(preview.path("columns").get(0).path("open").asBoolean()).isTrue();
        assertThat(preview.path("unreadCount").asInt()).isEqualTo(3);
        assertThat(preview.path("account").path("taxa").asInt()).isEqualTo(3);
        assertThat(Importing.of(author, "units.csv", table).run().body())
                .contains("Choose the unit of the numbers of 'leaf length'");
        Importing answered = Importing.of(author, "units.csv", table)
                .with("types", "{\"leaf length\": {\"type\": \"LENGTH\", \"unit\": \"cm\"}}")
                .with(
                        "corrections",
                        "[{\"column\": \"margin\", \"row\": \"\", \"text\": \"tooothed\", \"as\": \"toothed\"},"
                                + "{\"column\": \"margin\", \"row\": \"Cc\", \"text\": \"entire\", \"as\": null}]");
        String slug = "/api/v1/studies/" + answered.create();
        assertThat(author.get(slug + "/export?format=csv").body())
                .containsPattern("#unit.*,cm,")
                .containsPattern("Aa,.*,5,toothed")
                .containsPattern("Cc,.*,9,\\?");
        assertThat(answered.with("corrections", "{}").begin("IMPORT").status()).isEqualTo(400);
    }

    @Test
    void nonsenseGetsASentenceAndNoInternals() {
        assertThat(author.post(study + "/scores", "{").status()).isEqualTo(400);
        assertThat(author.post(study + "/scores", "{\"edits\":[]}").status()).isEqualTo(400);
        assertThat(author.get(study + "/export?format=exe").status()).isEqualTo(400);
        assertThat(author.post(study + "/keys", "{\"months\":[\"May\"]}").status())
                .isEqualTo(400);
        assertThat(author.get("/api/nothing").status()).isEqualTo(404);
        for (String path : new String[] {study + "/export?format=exe", "/api/nothing"}) {
            assertThat(author.get(path).body())
                    .doesNotContain("org.springframework")
                    .doesNotContain("\tat ");
        }
    }

    @Test
    void aTableThatNobodyPreparedIsReadByAMappingThatIsRemembered() throws Exception {
        byte[] book = "Field book\n;Leaf;\nSpecies;width;margin\n;mm;\nAa;4,5;toothed\nBb;3;entire\n"
                .getBytes(StandardCharsets.UTF_8);
        Visitor author = Visitor.author();
        Importing table = Importing.of(author, "book.csv", book);
        JsonNode look = table.look();
        assertThat(look.path("remembered").asBoolean()).isFalse();
        String mapping = look.path("mapping").toString().replace("\"label\":\"leaf width\"", "\"label\":\"breadth\"");
        assertThat(table.run().status()).isEqualTo(422);
        String study = "/api/v1/studies/"
                + table.with("mapping", mapping).titled("Mapped").create();
        assertThat(study).as("of its title, not of its file").matches(".*/mapped(-\\d+)?");
        assertThat(table.preview().path("title").asString())
                .as("what stands above the table")
                .isEqualTo("Field book");
        assertThat(author.cell(study, "aa", "breadth").path("text").asString()).isEqualTo("4.5");

        JsonNode again = Importing.of(author, "other.csv", book).look();
        assertThat(again.path("remembered").asBoolean()).isTrue();
        assertThat(again.path("mapping").toString()).contains("breadth");
        assertThat(Importing.of(Visitor.scorer(), "other.csv", book)
                        .look()
                        .path("remembered")
                        .asBoolean())
                .as("each remembers their own")
                .isFalse();
        assertThat(table.with("mapping", "[]").begin("PREVIEW").status()).isEqualTo(400);
    }
}
