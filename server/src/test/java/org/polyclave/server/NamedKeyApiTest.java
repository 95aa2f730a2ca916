package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Keys that a study keeps under a name: as they were made, held against the study as it is, in editions if that is wished. */
@ExtendWith(RunningApplication.class)
class NamedKeyApiTest {
    private static final String TABLE = """
            taxon,#hazard,stem colour,leaf margin,flower colour,fruit
            #type,,states,states,states,states
            #organ,,stem,leaf,flower,fruit
            #months,,,,Jun,Aug
            Aa bane,none known,red,toothed,white,round
            Bb mild,none known,red,entire,blue,round
            Cc tall,none known,green,entire,white,long
            """;
    private static final String WINTER = "{\"evenWeights\":true,\"objective\":\"FEWEST\",\"months\":[1]}";

    private final Visitor author = Visitor.author();

    private static String job(Visitor author, String slug, String wish) {
        String keys = "/api/v1/studies/" + slug + "/keys";
        JsonNode job = author.post(keys, wish).json();
        while (job.path("status").asString().matches("QUEUED|RUNNING")) {
            job = author.get(keys + "/" + job.path("id").asString()).json();
        }
        return job.path("id").asString();
    }

    private static String keep(String name, String job) {
        return "{\"name\":\"" + name + "\",\"job\":\"" + job + "\"}";
    }

    private JsonNode kept(String slug, String name, String wish) {
        Visitor.Answer answer =
                author.post("/api/v1/studies/" + slug + "/named-keys", keep(name, job(author, slug, wish)));
        assertThat(answer.status()).as(answer.body()).isEqualTo(201);
        return answer.json();
    }

    private void score(String slug, String row, String character, String text) {
        String study = "/api/v1/studies/" + slug;
        long base = author.cell(study, row, character).path("revision").asLong();
        Visitor.Answer done = author.post(
                study + "/scores",
                "{\"edits\":[{\"row\":\"%s\",\"character\":\"%s\",\"text\":\"%s\",\"baseRevision\":%d}]}"
                        .formatted(row, character, text, base));
        assertThat(done.status()).as(done.body()).isEqualTo(200);
    }

    private JsonNode found(String slug, JsonNode line) {
        return author.get("/api/v1/studies/" + slug + "/named-keys/"
                        + line.path("id").asLong())
                .json();
    }

    private static void assertStanding(JsonNode key, boolean current, boolean proven, int changes) {
        JsonNode standing = key.path("line").path("standing");
        assertThat(standing.path("current").asBoolean()).as(key.toString()).isEqualTo(current);
        assertThat(standing.path("proven").asBoolean()).as(key.toString()).isEqualTo(proven);
        assertThat(key.path("changes").path("changes")).hasSize(changes);
        assertThat(standing.path("changes").asInt()).isEqualTo(changes);
    }

    @Test
    void aKeyStaysAsItWasMadeAndTellsWhatChangedSince() {
        String slug = author.importTable("named keys", TABLE);
        JsonNode line = kept(slug, " Winter key ", WINTER);
        assertThat(line.path("name").asString()).isEqualTo("Winter key");
        assertThat(line.path("request").path("months").get(0).asInt()).isEqualTo(1);
        assertThat(line.path("figures").path("couplets").asInt()).isEqualTo(2);
        JsonNode made = found(slug, line);
        assertStanding(made, true, true, 0);

        score(slug, "aa-bane", "fruit", "long");
        assertStanding(found(slug, line), true, true, 0);

        score(slug, "aa-bane", "stem-colour", "red, green");
        JsonNode varied = found(slug, line);
        assertStanding(varied, false, false, 1);
        JsonNode change = varied.path("changes").path("changes").get(0);
        assertThat(change.path("name").asString()).isEqualTo("Aa bane × stem colour");
        assertThat(change.path("fields").get(0).path("before").asString()).isEqualTo("red");
        assertThat(varied.path("failures").toString()).contains("Aa bane");
        assertThat(varied.path("key")).as("as it was made").isEqualTo(made.path("key"));

        String file = author.get("/api/v1/studies/" + slug + "/named-keys/"
                        + line.path("id").asLong() + "/file?format=text")
                .body();
        assertThat(file).contains("Aa bane").contains("Cc tall");

        Visitor.Answer updated = author.put(
                "/api/v1/studies/" + slug + "/named-keys/" + line.path("id").asLong() + "/key",
                "{\"job\":\"" + job(author, slug, WINTER) + "\"}");
        assertThat(updated.status()).as(updated.body()).isEqualTo(200);
        assertStanding(found(slug, line), true, true, 0);
        assertThat(author.get("/api/v1/studies/" + slug + "/named-keys").json()).hasSize(1);
    }

    /** Studies with everything in them: specimens, readings, opinions, pictures, terms. */
    @Test
    void aKeyThatWasKeptJustNowIsUpToDate() {
        for (String slug : List.of("marrowmere-tussocks", "marrowmere-browncaps", "marrowmere-crabs")) {
            JsonNode line = kept(slug, "Just now", "{\"evenWeights\":true,\"objective\":\"FEWEST\"}");
            assertStanding(found(slug, line), true, true, 0);
            author.delete(
                    "/api/v1/studies/" + slug + "/named-keys/" + line.path("id").asLong());
        }
    }

    @Test
    void aKeyForSomeTaxaMindsTheseAndWhatItLeavesOut() {
        String slug = author.importTable("some named", TABLE);
        JsonNode line = kept(slug, "Two of them", "{\"evenWeights\":true,\"taxa\":[\"aa-bane\",\"bb-mild\"]}");
        score(slug, "cc-tall", "leaf-margin", "toothed");
        assertStanding(found(slug, line), true, true, 0);
        JsonNode row = author.get("/api/v1/studies/" + slug).json().path("rows").get(2);
        Visitor.Answer assessed = author.put(
                "/api/v1/studies/" + slug + "/rows/cc-tall",
                "{\"baseRevision\":0,\"row\":" + row.toString().replace("NONE_KNOWN", "SERIOUS") + "}");
        assertThat(assessed.status()).as(assessed.body()).isEqualTo(200);
        assertStanding(found(slug, line), false, true, 1);
    }

    @Test
    void namesAreKeptApartAndAKeyIsKeptOnlyOfTheStudyAsItIs() {
        String slug = author.importTable("names of keys", TABLE);
        String keys = "/api/v1/studies/" + slug + "/named-keys";
        JsonNode line = kept(slug, "Winter key", WINTER);
        String job = job(author, slug, WINTER);
        for (String name : new String[] {"winter KEY", "  ", "x".repeat(81)}) {
            Visitor.Answer refused = author.post(keys, keep(name, job));
            assertThat(refused.status()).as(name).isEqualTo(422);
            assertThat(refused.json().path("code").asString()).isEqualTo("name");
        }
        assertThat(author.post(keys, keep("Other", "no-such-job")).status()).isEqualTo(404);
        score(slug, "aa-bane", "stem-colour", "green");
        assertThat(author.post(keys, keep("Late", job)).json().path("code").asString())
                .isEqualTo("study-changed");
        String other = author.importTable("other study", TABLE);
        assertThat(author.post("/api/v1/studies/" + other + "/named-keys", keep("Of others", job))
                        .status())
                .isEqualTo(404);
        String address = keys + "/" + line.path("id").asLong();
        assertThat(author.get(address.replace(slug, other)).status()).isEqualTo(404);
        assertThat(author.delete(address).status()).isEqualTo(200);
        assertThat(author.get(address).status()).isEqualTo(404);
    }

    @Test
    void anEditionHoldsTheKeysThatItsAuthorChoosesAndNoneThatIsOutOfDate() {
        String slug = author.importTable("edition of keys", TABLE);
        JsonNode winter = kept(slug, "Winter key", WINTER);
        kept(slug, "Not for readers", "{\"evenWeights\":true,\"months\":[6]}");
        String address =
                "/api/v1/studies/" + slug + "/named-keys/" + winter.path("id").asLong();
        assertThat(author.put(address, "{\"name\":\"Winter key\",\"published\":true}")
                        .json()
                        .path("published")
                        .asBoolean())
                .isTrue();
        author.put("/api/v1/studies/" + slug + "/scope", """
                {"title":"Keys","baseRevision":%d,"scope":{"group":"","covers":"Three plants","leavesOut":"All others","region":"","stages":"",
                "audience":"","equipment":"","months":[],"gatheredForFood":false,"cautions":[]}}
                """.formatted(
                author.get("/api/v1/studies/" + slug).json().path("revision").asLong()));
        String publish = "/api/v1/studies/" + slug + "/editions";
        String wish = "{\"authors\":[\"Isolde\"],\"words\":{}}";
        Visitor.Answer published = author.post(publish, wish);
        assertThat(published.status()).as(published.body()).isEqualTo(201);
        JsonNode edition =
                Visitor.anonymous().get("/api/v1/editions/" + slug + "/1").json();
        assertThat(edition.path("keys")).hasSize(1);
        assertThat(edition.path("keys").get(0).path("name").asString()).isEqualTo("Winter key");
        assertThat(edition.path("keys").get(0).path("key").toString())
                .isEqualTo(author.get(address).json().path("key").toString());
        assertThat(Visitor.anonymous().get("/k/" + slug).body())
                .contains("<a href=\"?view=key&amp;key=1\">Winter key</a>")
                .doesNotContain("Not for readers");

        score(slug, "bb-mild", "stem-colour", "green");
        Visitor.Answer refused = author.post(publish, wish);
        assertThat(refused.status()).isEqualTo(422);
        assertThat(refused.json().path("code").asString()).isEqualTo("key-out-of-date");
        assertThat(refused.json().path("detail").asString()).contains("'Winter key'");
        author.put(address, "{\"name\":\"Winter key\",\"published\":false}");
        assertThat(author.post(publish, wish).status()).isEqualTo(201);
        assertThat(Visitor.anonymous().get("/api/v1/editions/" + slug + "/1").json())
                .as("never changes")
                .isEqualTo(edition);
    }
}
