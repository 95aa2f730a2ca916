package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.net.http.HttpHeaders;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.polyclave.files.study.StudyFormat;
import tools.jackson.databind.JsonNode;

/** Publishing, its gate, and what readers get. */
@ExtendWith(RunningApplication.class)
class EditionApiTest {
    private static final String TABLE = """
            taxon,#hazard,stem colour,leaf margin,flower colour
            #type,,states,states,states
            #organ,,stem,leaf,flower
            #months,,,,Jun
            Aa bane,serious,red,toothed,white
            Bb mild,none known,red,entire,blue
            """;

    private static final String SCOPE = """
            {"title":"Gate","baseRevision":1,"scope":{"group":"","covers":"Two plants","leavesOut":"All others","region":"","stages":"",
            "audience":"","equipment":"","months":[],"gatheredForFood":true,"cautions":["Wear gloves"]}}
            """;

    private static JsonNode finding(Visitor author, String slug, String kind) {
        JsonNode findings =
                author.get("/api/v1/studies/" + slug + "/gate").json().path("findings");
        for (JsonNode finding : findings) {
            if (finding.path("kind").asString().equals(kind)) {
                return finding;
            }
        }
        throw new AssertionError("No " + kind + " in " + findings);
    }

    /** Somebody vouches for every cell that the screen of dangers lists, naming the book. */
    private static void confirm(Visitor author, String slug) {
        JsonNode cells = author.get("/api/v1/studies/" + slug + "/dangers")
                .json()
                .path("dangers")
                .get(0)
                .path("cells");
        assertThat(cells).hasSize(4);
        String confirmed = StreamSupport.stream(cells.spliterator(), false)
                .map(c -> "{\"row\":%s,\"character\":%s,\"text\":%s}"
                        .formatted(c.path("row"), c.path("character"), c.path("text")))
                .collect(Collectors.joining(","));
        String confirmations = "/api/v1/studies/" + slug + "/confirmations";
        assertThat(author.post(confirmations, "{\"cells\":[" + confirmed + "],\"source\":\" \"}")
                        .status())
                .as("without a source")
                .isBetween(400, 422);
        Visitor.Answer done =
                author.post(confirmations, "{\"cells\":[" + confirmed + "],\"source\":\"Plants of the weir, 2031\"}");
        assertThat(done.status()).as(done.body()).isEqualTo(200);
    }

    @Test
    void aSeedlingIsAsDangerousAsItsTaxonAndReadersAreToldOfWhatNoKeyNames() {
        Visitor author = Visitor.author();
        String slug = author.importTable("seedling", """
                taxon,#stage,#rank,#hazard,stem colour,leaf margin
                #type,,,,states,states
                #method,,,,eye,cut across
                Aa bane,,species,serious,,
                Aa bane,seedling,species,not assessed,red,toothed
                Bb mild,,species,none known,blue,entire
                """);
        JsonNode view = author.get("/api/v1/studies/" + slug).json();
        assertThat(view.path("rows").get(1).path("hazard").asString())
                .as("what is recorded")
                .isEqualTo("NOT_ASSESSED");
        assertThat(view.path("standing")).hasSize(1);
        assertThat(view.path("standing").get(0).path("hazard").asString()).isEqualTo("SERIOUS");
        author.put("/api/v1/studies/" + slug + "/scope", SCOPE);
        JsonNode dangers =
                author.get("/api/v1/studies/" + slug + "/dangers").json().path("dangers");
        String words = StreamSupport.stream(dangers.spliterator(), false)
                .map(d -> "%s:\"Leave it alone.\"".formatted(d.path("row")))
                .collect(Collectors.joining(","));
        Visitor.Answer published = author.post(
                "/api/v1/studies/" + slug + "/editions", "{\"authors\":[\"Isolde\"],\"words\":{" + words + "}}");
        assertThat(published.status()).as(published.body()).isEqualTo(201);
        JsonNode edition =
                Visitor.anonymous().get("/api/v1/editions/" + slug + "/1").json();
        assertThat(edition.path("study").path("rows").get(1).path("hazard").asString())
                .isEqualTo("SERIOUS");
        JsonNode outside = edition.path("study").path("nearButOutside").get(0);
        assertThat(outside.path("name").asString()).isEqualTo("Aa bane, other than seedling");
        assertThat(outside.path("hazard").asString()).isEqualTo("SERIOUS");
        assertThat(edition.path("kit").toString()).contains("knife or snips").contains("gloves");
        assertThat(author.get("/api/v1/studies/" + slug + "/kit").json().path("things"))
                .isEqualTo(edition.path("kit"));
    }

    @Test
    void dangerThatIsNotToldApartMustBeDeclared() {
        Visitor author = Visitor.author();
        String slug = author.importTable("gate", TABLE);
        String publish = "/api/v1/studies/" + slug + "/editions";
        assertThat(author.post(publish, "{\"authors\":[\"Isolde\"],\"words\":{}}")
                        .json()
                        .path("code")
                        .asString())
                .isEqualTo("scope");
        assertThat(author.put("/api/v1/studies/" + slug + "/scope", SCOPE).status())
                .isEqualTo(200);

        JsonNode imported = finding(author, slug, "TOO_FEW");
        assertThat(imported.path("danger").asString()).isEqualTo("aa-bane");
        assertThat(imported.path("others").get(0).asString()).isEqualTo("bb-mild");
        assertThat(imported.path("months").size())
                .as("nobody vouches for what was imported")
                .isEqualTo(12);
        confirm(author, slug);
        assertThat(finding(author, slug, "TOO_FEW").path("months").size())
                .as("in June leaf and flower both part them")
                .isEqualTo(11);
        assertThat(finding(author, slug, "HARD").path("blocking").asBoolean())
                .as("two characters are enough, with nothing to spare")
                .isFalse();

        Visitor.Answer refused = author.post(publish, "{\"authors\":[\"Isolde\"],\"words\":{}}");
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.json().path("detail").asString())
                .contains("'Aa bane'")
                .contains("'Bb mild'");
        assertThat(Visitor.anonymous().get("/api/v1/editions/" + slug).status()).isEqualTo(404);

        author.put(
                "/api/v1/studies/" + slug + "/specimens",
                "{\"specimen\":{\"id\":\"\",\"code\":\"V 1\",\"note\":\"at the old weir\",\"determinations\":[]},\"baseRevision\":0}");
        Visitor.Answer published = author.post(
                publish, "{\"authors\":[\"Isolde\"],\"words\":{\"aa-bane\":\"Out of flower leave both alone.\"}}");
        assertThat(published.status()).isEqualTo(201);
        JsonNode edition =
                Visitor.anonymous().get("/api/v1/editions/" + slug + "/1").json();
        assertThat(edition.path("declarations").get(0).path("text").asString())
                .isEqualTo("Out of flower leave both alone.");
        assertThat(edition.path("study").path("specimens").size()).isZero();
        assertThat(edition.toString()).doesNotContain("old weir");
        assertThat(edition.path("cautions").toString()).contains("Wear gloves").contains("not enough to eat anything");
        assertThat(edition.path("key").path("figures").path("proven").asBoolean())
                .isTrue();
    }

    @Test
    void anEditionNeverChanges() throws SQLException {
        Visitor author = Visitor.author();
        String slug = author.importTable("still", TABLE.replace("serious", "none known"));
        author.put("/api/v1/studies/" + slug + "/scope", SCOPE);
        String publish = "/api/v1/studies/" + slug + "/editions";
        assertThat(author.post(publish, "{\"authors\":[\"Isolde\"],\"words\":{}}")
                        .status())
                .isEqualTo(201);
        Visitor reader = Visitor.anonymous();
        Visitor.Answer first = reader.get("/api/v1/editions/" + slug + "/1");

        author.post(
                "/api/v1/studies/" + slug + "/scores",
                "{\"edits\":[{\"row\":\"aa-bane\",\"character\":\"stem-colour\",\"text\":\"?\",\"baseRevision\":0}]}");
        assertThat(author.post(publish, "{\"authors\":[\"Isolde\"],\"words\":{}}")
                        .json()
                        .path("number")
                        .asInt())
                .isEqualTo(2);

        Visitor.Answer again = reader.get("/api/v1/editions/" + slug + "/1");
        assertThat(again.body())
                .as("its format is what a reader of it sees first")
                .startsWith("{\"format\":" + StudyFormat.VERSION + ",")
                .isEqualTo(first.body());
        assertThat(again.response().headers().firstValue("ETag"))
                .isPresent()
                .isEqualTo(first.response().headers().firstValue("ETag"));
        assertThat(reader.get("/api/v1/editions/" + slug + "/1", "Accept-Encoding", "gzip")
                        .response()
                        .headers()
                        .firstValue("Content-Encoding"))
                .as("a phone on a slow line gets it compressed")
                .hasValue("gzip");
        assertThat(again.response().headers().firstValue("Cache-Control"))
                .hasValueSatisfying(c -> assertThat(c).contains("immutable"));
        assertThat(reader.get("/api/v1/editions/" + slug).json().path("number").asInt())
                .isEqualTo(2);
        assertThat(reader.get("/api/v1/editions/" + slug).json().toString()).contains("SUPERSEDED");

        try (Connection database = RunningApplication.database();
                Statement statement = database.createStatement()) {
            assertThatThrownBy(
                            () -> statement.execute("update edition set document = '{}' where slug = '" + slug + "'"))
                    .hasMessageContaining("immutable");
        }
        author.post("/api/v1/studies/" + slug + "/editions/1/withdraw", "{\"reason\":\"Colour was wrong\"}");
        assertThat(reader.get("/api/v1/editions/" + slug).json().toString())
                .contains("WITHDRAWN")
                .contains("Colour was wrong");
        assertThat(reader.get("/k/" + slug + "/1").body()).contains("This edition was withdrawn: Colour was wrong");
        assertThat(reader.get("/k/" + slug).body()).doesNotContain("withdrawn");
    }

    @Test
    void theCoverIsThereBeforeAnyScriptAndTheDocumentIsSentAsItWasPackedOnce() throws SQLException {
        Visitor author = Visitor.author();
        String slug = author.importTable("cover", TABLE.replace("serious", "none known"));
        author.put("/api/v1/studies/" + slug + "/scope", SCOPE.replace("All others", "<script>alert(1)</script>"));
        assertThat(author.post("/api/v1/studies/" + slug + "/editions", "{\"authors\":[\"Isolde\"],\"words\":{}}")
                        .status())
                .isEqualTo(201);
        Visitor reader = Visitor.anonymous();
        String study = "/api/v1/studies/" + slug;
        assertThat(author.get(study + "/editions/changes")
                        .json()
                        .path("changes")
                        .path("total")
                        .asInt())
                .isZero();
        author.post(
                study + "/scores",
                "{\"edits\":[{\"row\":\"aa-bane\",\"character\":\"stem-colour\",\"text\":\"?\",\"baseRevision\":0}]}");
        assertThat(author.get(study + "/editions/changes")
                        .json()
                        .path("changes")
                        .path("changes"))
                .singleElement()
                .satisfies(c -> assertThat(c.path("id").asString()).isEqualTo("aa-bane"));
        assertThat(author.post(study + "/cover", "{\"authors\":[\"I. <Q>\"],\"words\":{}}")
                        .json()
                        .path("html")
                        .asString())
                .contains("Edition 2, ", "I. &lt;Q&gt;", "Wear gloves");

        Visitor.Answer page = reader.get("/k/" + slug);
        assertThat(page.status()).isEqualTo(200);
        assertThat(page.body())
                .contains("Wear gloves", "&lt;script&gt;alert(1)")
                .doesNotContain("<script>alert")
                .hasSizeLessThan(30_000);
        assertThat(reader.get("/k/" + slug + "/1").body()).contains("Wear gloves");
        for (String nothing : List.of("/k/" + slug + "/2", "/k/nothing-here", "/k/" + slug + "/1/2", "/k")) {
            assertThat(reader.get(nothing).status()).as(nothing).isEqualTo(404);
        }

        String present = "/api/v1/editions/" + slug + "/1?format=" + StudyFormat.VERSION;
        String plain = reader.get(present).body();
        assertThat(plain)
                .isEqualTo(reader.get("/api/v1/editions/" + slug + "/1").body());
        try (Connection database = RunningApplication.database();
                Statement statement = database.createStatement()) {
            for (String when : List.of("packed when published", "packed when first read")) {
                HttpHeaders sent = reader.get(present, "Accept-Encoding", "gzip, br")
                        .response()
                        .headers();
                assertThat(sent.firstValue("Content-Encoding")).as(when).hasValue("gzip");
                assertThat(sent.firstValue("Vary")).hasValue("Accept-Encoding");
                assertThat(sent.firstValueAsLong("Content-Length").orElseThrow())
                        .as("known before, because nothing is compressed on the way")
                        .isLessThan(plain.length() / 2);
                String where = " from edition_packed where slug = '" + slug + "'";
                assertThat(statement.executeUpdate("delete" + where)).as(when).isEqualTo(1);
            }
        }
        assertThat(reader.get(present).body()).isEqualTo(plain);
    }

    @Test
    void readersIdentifyWithoutAnAccountAndDangerStaysNamed() {
        Visitor reader = Visitor.anonymous();
        String path = "/api/v1/editions/marrowmere-tussocks/1/identify";
        String start = "{\"answers\":[%s],\"strikeOut\":%s,\"tolerance\":0,\"month\":0,\"unavailable\":[]}";
        JsonNode open = reader.post(path, start.formatted("", "false")).json();
        assertThat(open.path("conclusion").asString()).isEqualTo("OPEN");
        assertThat(ruledOut(open)).containsOnly(false);

        String sure = "{\"character\":\"%s\",\"states\":[\"%s\"],\"certainty\":\"SURE\"}";
        String silver = String.join(
                ",",
                sure.formatted("leaf-colour", "grey-green"),
                sure.formatted("flower-head", "single-spike"),
                sure.formatted("ligule-shape", "pointed"),
                sure.formatted("leaf-underside", "shining"));
        JsonNode found = reader.post(path, start.formatted(silver, "false")).json();
        assertThat(found.path("standings").get(0).path("name").path("row").asString())
                .isEqualTo("tarnella-argentea");
        assertThat(ruledOut(found))
                .as("the spring shoot has no flower head to look at")
                .contains(false);

        JsonNode struck = reader.post(path, start.formatted(silver, "true")).json();
        assertThat(struck.path("standings").get(0).path("mismatches").asInt()).isZero();
        assertThat(struck.toString()).contains("\"struckOut\":true");
        assertThat(reader.post(path, start.formatted(sure.formatted("leaf-colour", "blue"), "false"))
                        .status())
                .isEqualTo(400);
    }

    private static List<Boolean> ruledOut(JsonNode response) {
        List<Boolean> all = new ArrayList<>();
        response.path("margins").forEach(m -> all.add(m.path("ruledOut").asBoolean()));
        return all;
    }
}
