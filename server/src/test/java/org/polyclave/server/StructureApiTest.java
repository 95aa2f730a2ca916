package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Taxa, sexes and stages, characters and scope edited over HTTP: what follows, what is refused, what undo brings back. */
@ExtendWith(RunningApplication.class)
class StructureApiTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();
    private static final String TABLE = """
            taxon,#rank,#hazard,#parent,#stage,margin,hairs,hair length
            #type,,,,,states,states,length
            #states,,,,,toothed|entire|lobed,present|absent,
            #applies,,,,,,,hairs = present
            Aa,species,none known,,,toothed,present,2–3
            Aa,,,,female,,,4–5
            Aa minor,subspecies,none known,Aa,,"usually entire, rarely lobed",absent,n/a
            Bb,species,serious,,,entire,absent,n/a
            """;

    private Visitor author = Visitor.anonymous();
    private String study = "";

    @BeforeEach
    void importStudy() {
        author = Visitor.author();
        String slug = author.importTable("structure", TABLE);
        author.put("/api/v1/studies/" + slug + "/members", "{\"account\":\"oswin\",\"role\":\"EDITOR\"}");
        author.put("/api/v1/studies/" + slug + "/members", "{\"account\":\"petra\",\"role\":\"SCORER\"}");
        study = "/api/v1/studies/" + slug;
    }

    private JsonNode view() {
        return author.get(study).json();
    }

    private ObjectNode row(String id) {
        return find("rows", id);
    }

    private ObjectNode character(String id) {
        return find("characters", id);
    }

    private ObjectNode find(String list, String id) {
        for (JsonNode one : view().path(list)) {
            if (one.path("id").asString().equals(id)) {
                return (ObjectNode) one;
            }
        }
        throw new AssertionError("No " + id + " in " + list);
    }

    private List<String> ids(String list) {
        List<String> ids = new ArrayList<>();
        view().path(list).forEach(r -> ids.add(r.path("id").asString()));
        return ids;
    }

    private String text(String row, String character) {
        return author.cell(study, row, character).path("text").asString();
    }

    private Visitor.Answer merge(String character, String from, String into) {
        return author.post(
                study + "/operations",
                "{\"operation\":{\"operation\":\"MergeStates\",\"character\":\"" + character + "\",\"from\":\"" + from
                        + "\",\"into\":\"" + into + "\"},\"baseRevision\":" + view().path("revision") + "}");
    }

    private long baseRevision(String object) {
        return view().path("revisions").path(object).asLong(0);
    }

    private Visitor.Answer putRow(ObjectNode row) {
        String id = row.path("id").asString();
        return author.put(study + "/rows/" + id, body("row", row, baseRevision("row/" + id)));
    }

    private Visitor.Answer putCharacter(ObjectNode character) {
        String id = character.path("id").asString();
        return author.put(study + "/characters/" + id, body("character", character, baseRevision("character/" + id)));
    }

    private static String body(String name, JsonNode value, long baseRevision) {
        return JSON.createObjectNode()
                .put("baseRevision", baseRevision)
                .set(name, value)
                .toString();
    }

    private static String sentence(Visitor.Answer refused) {
        assertThat(refused.status()).isEqualTo(422);
        return refused.json().path("detail").asString();
    }

    @Test
    void aTaxonIsAddedRenamedAndTakenBack() {
        ObjectNode draft = row("bb").put("id", "").put("label", "Cc nova").put("hazard", "NONE_KNOWN");
        Visitor.Answer added = author.post(study + "/rows", body("row", draft, 0));
        assertThat(added.json().path("id").asString()).isEqualTo("cc-nova");
        assertThat(putRow(row("cc-nova").put("label", "Cc vetus")).status()).isEqualTo(200);
        assertThat(row("cc-nova").path("label").asString())
                .as("the identifier outlives a new name")
                .isEqualTo("Cc vetus");
        author.post(study + "/undo", "{}");
        assertThat(row("cc-nova").path("label").asString()).isEqualTo("Cc nova");
        author.post(study + "/undo", "{}");
        assertThat(ids("rows")).containsExactly("aa", "aa-female", "aa-minor", "bb");
        assertThat(author.post(study + "/rows", body("row", draft, 0))
                        .json()
                        .path("id")
                        .asString())
                .as("an identifier is never given twice")
                .isEqualTo("cc-nova-2");
    }

    @Test
    void sexesAndStagesGoByTheNameOfTheirTaxon() {
        assertThat(putRow(row("aa").put("label", "Aa nova")).status()).isEqualTo(200);
        assertThat(row("aa-female").path("label").asString()).isEqualTo("Aa nova");
        assertThat(row("aa-minor").path("label").asString()).isEqualTo("Aa minor");
        author.post(study + "/undo", "{}");
        assertThat(row("aa-female").path("label").asString()).isEqualTo("Aa");
    }

    @Test
    void aRecordedHazardDecidesHowDangerousATaxonIs() {
        ObjectNode row = row("aa");
        row.putArray("hazards")
                .addObject()
                .put("kind", "venom")
                .put("severity", "LIFE_THREATENING")
                .put("parts", "")
                .put("caution", "Keep away")
                .putArray("routes");
        assertThat(putRow(row).status()).isEqualTo(200);
        assertThat(row("aa").path("hazard").asString()).isEqualTo("LIFE_THREATENING");
    }

    @Test
    void aRemovedTaxonTakesItsStagesAndScoresAlongAndUndoBringsAllBack() {
        String before = author.get(study + "/export?format=json").body();
        Visitor.Answer removed = author.delete(study + "/rows/aa?baseRevision=0");
        assertThat(removed.status()).isEqualTo(200);
        assertThat(ids("rows")).containsExactly("aa-minor", "bb");
        assertThat(row("aa-minor").has("parent")).as("a subtaxon moves up").isFalse();
        assertThat(author.post(study + "/undo", "{}").status()).isEqualTo(200);
        assertThat(author.get(study + "/export?format=json").body()).isEqualTo(before);
    }

    @Test
    void rowsMoveAmongTheirSiblingsAndUnderOtherParents() {
        assertThat(author.post(study + "/rows/bb/move", "{\"before\":\"aa\",\"baseRevision\":0}")
                        .status())
                .isEqualTo(200);
        assertThat(ids("rows")).containsExactly("bb", "aa", "aa-female", "aa-minor");
        assertThat(author.post(study + "/rows/aa-minor/move", "{\"parent\":\"bb\",\"baseRevision\":0}")
                        .status())
                .isEqualTo(200);
        assertThat(row("aa-minor").path("parent").asString()).isEqualTo("bb");
        assertThat(sentence(author.post(
                        study + "/rows/bb/move",
                        "{\"parent\":\"aa-minor\",\"baseRevision\":" + baseRevision("row/bb") + "}")))
                .contains("its own ancestor");
        assertThat(author.post(study + "/rows/bb/move", "{\"before\":\"gone\",\"baseRevision\":0}")
                        .status())
                .isEqualTo(400);
    }

    @Test
    void whatBreaksARuleIsRefusedWithASentenceAndNothingChanges() {
        long revision = view().path("revision").asLong();
        assertThat(sentence(putRow(row("bb").put("label", "AÁ"))))
                .contains("case, accents and spaces make no difference");
        assertThat(sentence(putRow(row("aa").put("rank", "variety")))).contains("does not rank below");
        assertThat(sentence(putRow(row("bb").put("weight", 0)))).contains("more than 0");
        ObjectNode margin = character("margin");
        margin.withArray("states")
                .addObject()
                .put("id", "")
                .put("label", "larger")
                .put("plain", "")
                .put("definition", "");
        assertThat(sentence(putCharacter(margin))).contains("compares, but with what");
        ObjectNode hairs = character("hairs");
        hairs.withArray("appliesWhen")
                .addObject()
                .put("character", "hairs")
                .putArray("states")
                .add("present");
        assertThat(sentence(putCharacter(hairs))).contains("in a circle");
        assertThat(sentence(putCharacter(character("hair-length").put("unit", "g"))))
                .contains("not a unit");
        assertThat(sentence(putCharacter(character("margin").put("type", "COUNT"))))
                .contains("another type cannot hold");
        assertThat(view().path("revision").asLong()).isEqualTo(revision);
    }

    @Test
    void aStateInUseGoesOnlyByMerging() {
        ObjectNode margin = character("margin");
        margin.withArray("states").remove(2);
        assertThat(sentence(putCharacter(margin)))
                .contains("'lobed' is scored for aa-minor")
                .contains("Merge it");
        assertThat(merge("margin", "lobed", "entire").status()).isEqualTo(200);
        assertThat(text("aa-minor", "margin")).isEqualTo("usually entire");
        assertThat(character("margin").path("states").size()).isEqualTo(2);
        author.post(study + "/undo", "{}");
        assertThat(text("aa-minor", "margin")).isEqualTo("usually entire, rarely lobed");
        assertThat(character("margin").path("states").size()).isEqualTo(3);
    }

    @Test
    void newStatesGetNamesOfTheirOwnAndDependenciesFollowAMerge() {
        ObjectNode hairs = character("hairs");
        hairs.withArray("states")
                .addObject()
                .put("id", "")
                .put("label", "Present!")
                .put("plain", "")
                .put("definition", "");
        assertThat(putCharacter(hairs).status()).isEqualTo(200);
        assertThat(character("hairs").path("states").get(2).path("id").asString())
                .isEqualTo("present-2");
        assertThat(merge("hairs", "present", "present-2").status()).isEqualTo(200);
        assertThat(character("hair-length").path("appliesWhen").toString()).contains("[\"present-2\"]");
        assertThat(text("aa", "hairs")).isEqualTo("Present!");
    }

    @Test
    void charactersAreAddedMovedAndRemovedWithTheirScores() {
        ObjectNode draft = character("margin").put("id", "").put("label", "Flower colour");
        assertThat(author.post(study + "/characters", body("character", draft, 0))
                        .json()
                        .path("id")
                        .asString())
                .isEqualTo("flower-colour");
        author.post(
                study + "/characters/flower-colour/move",
                "{\"before\":\"margin\",\"baseRevision\":" + baseRevision("character/flower-colour") + "}");
        assertThat(ids("characters")).containsExactly("flower-colour", "margin", "hairs", "hair-length");
        assertThat(sentence(author.delete(study + "/characters/hairs?baseRevision=0")))
                .contains("depends on 'hairs'");
        assertThat(author.delete(study + "/characters/margin?baseRevision=0").status())
                .isEqualTo(200);
        assertThat(text("aa", "margin")).isEmpty();
        author.post(study + "/undo", "{}");
        assertThat(text("aa", "margin")).isEqualTo("toothed");
    }

    @Test
    void theSecondEditorGetsTheFirstOnesVersionAndDecides() {
        assertThat(putRow(row("bb").put("plain", "bee bee")).status()).isEqualTo(200);
        Visitor second = Visitor.scorer();
        Visitor.Answer conflict =
                second.put(study + "/rows/bb", body("row", row("bb").put("plain", "other"), 0));
        assertThat(conflict.status()).isEqualTo(409);
        assertThat(conflict.json().path("who").asString()).isEqualTo("Isolde Quillane");
        assertThat(conflict.json().path("now").asString()).contains("bee bee");
        long baseRevision = conflict.json().path("revision").asLong();
        assertThat(second.put(study + "/rows/bb", body("row", row("bb").put("plain", "other"), baseRevision))
                        .status())
                .isEqualTo(200);
        Visitor.Answer undo = author.post(study + "/undo", "{}");
        assertThat(undo.json().path("passed").toString()).contains("Bb").contains("Oswin Brandreth");
        assertThat(undo.json().path("done").size()).as("nothing is overwritten").isZero();
        assertThat(row("bb").path("plain").asString()).isEqualTo("other");
        assertThat(second.put(
                                study + "/characters/margin",
                                body("character", character("margin").put("note", "From above"), 0))
                        .status())
                .as("another object is not a conflict")
                .isEqualTo(200);
    }

    @Test
    void scopeAndOutsideTaxaAreUndoneToo() {
        ObjectNode scope = (ObjectNode) view().path("scope");
        ObjectNode request = JSON.createObjectNode().put("title", "New title").put("baseRevision", 0);
        request.set("scope", scope.put("covers", "Two plants"));
        assertThat(author.put(study + "/scope", request.toString()).status()).isEqualTo(200);
        String outside = "{\"baseRevision\":0,\"taxa\":[{\"name\":\"Dd\",\"why\":\"dunes\",\"hazard\":\"SERIOUS\"}]}";
        assertThat(author.put(study + "/outside", outside).status()).isEqualTo(200);
        assertThat(view().path("nearButOutside").size()).isEqualTo(1);
        author.post(study + "/undo", "{}");
        author.post(study + "/undo", "{}");
        assertThat(view().path("nearButOutside").size()).isZero();
        assertThat(view().path("title").asString()).isEqualTo("structure");
        assertThat(author.put(study + "/outside", outside.replace("Dd", " ")).status())
                .isEqualTo(422);
    }

    @Test
    void scorersDoNotChangeTheStructure() {
        Visitor scorer = Visitor.reader();
        assertThat(scorer.put(study + "/rows/bb", body("row", row("bb"), 0)).status())
                .isEqualTo(403);
        assertThat(scorer.delete(study + "/characters/margin?baseRevision=0").status())
                .isEqualTo(403);
        assertThat(Visitor.anonymous().delete(study + "/rows/bb?baseRevision=0").status())
                .isEqualTo(404);
    }

    @Test
    void aStudyBegunFromNothingTakesTaxaCharactersAndScores() {
        Visitor owner = Visitor.author();
        assertThat(owner.post("/api/v1/studies", "{\"title\":\"  \"}").status()).isEqualTo(400);
        String slug = owner.post("/api/v1/studies", "{\"title\":\"Reeds of the mere\"}")
                .json()
                .path("slug")
                .asString();
        assertThat(slug).startsWith("reeds-of-the-mere");
        String begun = "/api/v1/studies/" + slug;
        for (String read : List.of("", "/findings", "/next-step", "/columns?character=x", "/export?format=csv")) {
            assertThat(owner.get(begun + read).status()).as(read).isEqualTo(200);
        }
        String again = owner.post("/api/v1/studies", "{\"title\":\"Reeds of the mere\"}")
                .json()
                .path("slug")
                .asString();
        assertThat(again).isNotEqualTo(slug);
        assertThat(Importing.of(owner, "x.csv", "taxon,margin\n#type,states\nAa,toothed\nBb,entire\n")
                        .into(begun)
                        .run()
                        .status())
                .isEqualTo(200);
        assertThat(owner.get(begun).json().path("progress").path("scored").asInt())
                .isEqualTo(2);
    }

    @Test
    void aStudyIsTakenFromAMemberButNotFromItsOnlyOwner() {
        Visitor owner = Visitor.author();
        String shared = "/api/v1/studies/" + owner.importTable("shared", "taxon,margin\nAa,toothed\nBb,entire\n");
        owner.put(shared + "/members", "{\"account\":\"petra\",\"role\":\"VIEWER\"}");
        Visitor reader = Visitor.signedIn("petra", "meadow-reader");
        assertThat(reader.get(shared).status()).isEqualTo(200);
        assertThat(reader.delete(shared + "/members/isolde").status()).isEqualTo(403);
        assertThat(owner.delete(shared + "/members/petra").status()).isEqualTo(200);
        assertThat(reader.get(shared).status()).isEqualTo(404);
        assertThat(owner.delete(shared + "/members/petra").status()).isEqualTo(404);
        assertThat(owner.delete(shared + "/members/isolde").status()).isEqualTo(422);
        assertThat(owner.put(shared + "/members", "{\"account\":\"isolde\",\"role\":\"VIEWER\"}")
                        .status())
                .as("the only owner cannot step down, either")
                .isEqualTo(422);
    }
}
