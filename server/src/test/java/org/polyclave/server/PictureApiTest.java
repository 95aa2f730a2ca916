package org.polyclave.server;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningApplication.class)
final class PictureApiTest {
    private static final byte[] DRAWING =
            "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 9 9'><script>x()</script><circle r='3'/></svg>"
                    .getBytes(UTF_8);
    private static Visitor author;
    private static String study;

    @BeforeAll
    static void prepare() {
        author = Visitor.author();
        study = "/api/v1/studies/"
                + author.importTable(
                        "pictures",
                        "taxon,#hazard,margin\n#type,,states\nAa,none known,toothed\nBb,none known,entire\n");
    }

    private JsonNode view() {
        return author.get(study).json();
    }

    private static Visitor.Answer add(Visitor who, String shows) {
        return who.upload(study + "/pictures", "x.png", DRAWING, Map.of("shows", shows, "credit", "Isolde"));
    }

    @Test
    void aPictureIsCleanedShownAndComesThroughAStudyFile() {
        String id = add(author, "A circle").json().path("id").asString();
        JsonNode picture = view().path("pictures").path(0);
        assertThat(picture.path("id").asString()).isEqualTo(id);
        assertThat(picture.path("mediaType").asString())
                .as("by content, not by name")
                .isEqualTo("image/svg+xml");
        Visitor.Answer content =
                author.get(study + "/pictures/" + picture.path("content").asString());
        assertThat(content.body()).contains("<circle").doesNotContain("script");
        assertThat(content.response()
                        .headers()
                        .firstValue("Content-Security-Policy")
                        .orElse(""))
                .contains("sandbox");

        String file = author.get(study + "/export?format=json").body();
        String copy = Importing.of(author, "copy.polyclave.json", file).create();
        assertThat(author.get("/api/v1/studies/" + copy + "/pictures/"
                                + picture.path("content").asString())
                        .body())
                .isEqualTo(content.body());
        Visitor.Answer forged = Importing.of(
                        author, "copy.polyclave.json", file.replaceFirst("\"data\":\"[^\"]{9}", "\"data\":\"!!!!!!!!!"))
                .run();
        assertThat(forged.status()).isEqualTo(422);
        assertThat(forged.json().path("detail").asString()).contains("A circle");
    }

    @Test
    void aPictureInUseStaysAndNobodyElseSeesIt() {
        String id = add(author, "In use").json().path("id").asString();
        JsonNode view = view();
        JsonNode character = view.path("characters").path(0);
        String body = character.toString().replaceFirst("\"picture\":\"\"", "\"picture\":\"" + id + "\"");
        long baseRevision = view.path("revisions").path("character/margin").asLong();
        assertThat(author.put(
                                study + "/characters/margin",
                                "{\"character\":" + body + ",\"baseRevision\":" + baseRevision + "}")
                        .status())
                .isEqualTo(200);
        long now = view().path("revisions").path("picture/" + id).asLong();
        Visitor.Answer refused = author.delete(study + "/pictures/" + id + "?baseRevision=" + now);
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.json().path("detail").asString()).contains("margin").contains(id);

        String content = view().path("pictures").path(0).path("content").asString();
        assertThat(Visitor.reader().get(study + "/pictures/" + content).status())
                .isEqualTo(404);
        assertThat(Visitor.anonymous().get(study + "/pictures/" + content).status())
                .isEqualTo(404);
        assertThat(add(Visitor.reader(), "Not mine").status()).isEqualTo(404);
        assertThat(add(author, "  ").json().path("detail").asString()).contains("cannot see it");
        Visitor.Answer table = author.upload(study + "/pictures", "x.png", "a,b".getBytes(UTF_8), Map.of("shows", "x"));
        assertThat(table.status()).isEqualTo(422);
        assertThat(table.json().path("detail").asString()).contains("not a PNG");
    }

    @Test
    void readyCharactersAreCopiedWithTheirDrawingsAsOneChange() {
        JsonNode library = author.get("/api/v1/library").json();
        assertThat(library.path("characters").size()).isGreaterThan(25);
        int before = view().path("characters").size();
        String wish = "{\"characters\":[\"gill-attachment\",\"spore-quotient\"],\"baseRevision\":"
                + view().path("revision") + "}";
        assertThat(author.post(study + "/library", wish).status()).isEqualTo(200);
        JsonNode after = view();
        assertThat(after.path("characters").size())
                .as("a ratio brings its parts")
                .isEqualTo(before + 4);
        assertThat(after.path("pictures").findValuesAsString("id")).contains("gill-attachment-free");
        author.post(study + "/undo", "{}");
        assertThat(view().path("characters").size()).isEqualTo(before);
    }

    @Test
    void aPictureThatCannotBeKeptIsToldInThePreviewAlready() {
        String file = author.get(study + "/export?format=json").body();
        String picture = "\"pictures\":[{\"id\":\"p\",\"content\":\"" + "0".repeat(64)
                + "\",\"mediaType\":\"image/png\",\"width\":1,\"height\":1,\"shows\":\"A leaf\",\"credit\":\"\",\"licence\":\"\"%s}],";
        String bare = file.replaceFirst("(?s)\"pictures\": \\[.*?\\n  \\],", "")
                .replaceAll("\"picture\":\"[^\"]+\"", "\"picture\":\"\"");
        String missing = bare.replaceFirst("\"scores\":", picture.formatted("") + "\"scores\":");
        String broken = bare.replaceFirst("\"scores\":", picture.formatted(",\"data\":\"AAAA\"") + "\"scores\":");
        for (String wrong : new String[] {missing, broken}) {
            JsonNode preview = Importing.of(author, "s.polyclave.json", wrong).preview();
            assertThat(preview.path("usable").asBoolean(true)).isFalse();
            assertThat(preview.path("problems").toString()).contains("A leaf");
            JsonNode into =
                    Importing.of(author, "s.polyclave.json", wrong).into(study).preview();
            assertThat(into.path("usable").asBoolean(true)).isFalse();
        }
    }

    /** What a picture of a protected taxon tells of its place stays in the installation; members see it there. */
    @Test
    void placesOfProtectedTaxaAreInNoExport() throws Exception {
        String place = "51.50000, -2.10000";
        JsonNode view = view();
        String row =
                view.path("rows").path(0).toString().replaceFirst("\"status\":\\[\\]", "\"status\":[\"protected\"]");
        long baseRevision = view.path("revisions").path("row/aa").asLong();
        assertThat(author.put(study + "/rows/aa", "{\"row\":" + row + ",\"baseRevision\":" + baseRevision + "}")
                        .status())
                .isEqualTo(200);
        byte[] photograph;
        try (var in = PictureApiTest.class.getResourceAsStream("/photograph.jpg")) {
            photograph = java.util.Objects.requireNonNull(in).readAllBytes();
        }
        author.upload(
                study + "/pictures",
                "x.jpg",
                photograph,
                Map.of("shows", "In place", "row", "aa", "keepPlace", "true"));
        author.upload(study + "/pictures", "x.jpg", photograph, Map.of("shows", "Without", "row", "bb"));
        assertThat(view().path("pictures").findValuesAsString("place")).contains(place);
        assertThat(view().path("pictures").toString().split(place, -1))
                .as("kept only by choice")
                .hasSize(2);
        assertThat(author.get(study + "/export?format=json").body())
                .contains("In place")
                .doesNotContain(place);
    }
}
