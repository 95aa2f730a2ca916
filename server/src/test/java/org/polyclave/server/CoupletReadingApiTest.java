package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** What was examined on the way through a published couplet key, and a name held against its description. */
@ExtendWith(RunningApplication.class)
class CoupletReadingApiTest {
    private static final String TABLE = """
            taxon,#hazard,stem colour,leaf width,flower colour
            #type,,states,length,states
            #unit,,,mm,
            #organ,,stem,leaf,flower
            Aa bane,none known,red,2–4,white
            Bb mild,none known,blue,8–12,blue
            Cc late,none known,blue,20–30,white
            """;

    private static String edition(Visitor author, String name) {
        String slug = author.importTable(name, TABLE);
        author.put("/api/v1/studies/" + slug + "/scope", """
                {"title":"Reading","baseRevision":1,"scope":{"group":"","covers":"Three plants","leavesOut":"All others","region":"",
                "stages":"","audience":"","equipment":"","months":[],"gatheredForFood":false,"cautions":[]}}
                """);
        Visitor.Answer published =
                author.post("/api/v1/studies/" + slug + "/editions", "{\"authors\":[\"Isolde\"],\"words\":{}}");
        assertThat(published.status()).as(published.body()).isEqualTo(201);
        return "/api/v1/editions/" + slug + "/1";
    }

    private static String request(String more) {
        return """
                {"answers":[],"strikeOut":false,"tolerance":0,"month":0,"unavailable":[]%s}
                """.formatted(more);
    }

    private static List<String> of(JsonNode array, String field) {
        return StreamSupport.stream(array.spliterator(), false)
                .map(n -> n.path(field).asString())
                .toList();
    }

    @Test
    void statementsOnTheWayAreEvidenceWhereTheyWereExamined() {
        Visitor author = Visitor.author();
        String edition = edition(author, "way");
        Visitor reader = Visitor.anonymous();
        JsonNode couplet =
                reader.get(edition).json().path("key").path("couplets").get(0);
        JsonNode leads = couplet.path("leads");
        JsonNode first = leads.get(0).path("statements");
        int widths = of(first, "character").indexOf("leaf-width");
        assertThat(first.get(widths).path("limits").has("min")
                        || first.get(widths).path("limits").has("max"))
                .as("%s", first)
                .isTrue();

        String taken = ",\"way\":{\"key\":0,\"steps\":[{\"couplet\":1,\"lead\":0,\"doubtful\":false}]}";
        JsonNode decided = reader.post(edition + "/identify", request(taken)).json();
        assertThat(of(decided.path("said"), "character"))
                .as("what confirms was not examined")
                .containsExactly(of(first, "character").get(0));

        String none = taken.replace("\"doubtful\":false", "\"doubtful\":true");
        assertThat(reader.post(edition + "/identify", request(none)).json().path("said"))
                .isEmpty();

        String points = StreamSupport.stream(first.spliterator(), false)
                .map(s -> s.path("character").asString().equals("leaf-width") ? "1" : "-2")
                .collect(Collectors.joining(",", "[", "]"));
        String oneByOne = taken.replace("\"doubtful\":false", "\"doubtful\":false,\"points\":" + points);
        JsonNode answered =
                reader.post(edition + "/identify", request(oneByOne)).json();
        assertThat(of(answered.path("said"), "character")).containsExactly("leaf-width");

        String twice = ",\"way\":{\"key\":0,\"steps\":["
                + "{\"couplet\":1,\"lead\":0,\"doubtful\":false},{\"couplet\":1,\"lead\":1,\"doubtful\":false}]}";
        JsonNode contradicted =
                reader.post(edition + "/identify", request(twice)).json();
        assertThat(contradicted.path("said")).isEmpty();
        assertThat(contradicted.path("contradicted")).hasSize(1);

        for (String nonsense : List.of("\"key\":7", "\"couplet\":99", "\"lead\":9", "\"lead\":-1")) {
            String field = nonsense.replaceAll(":.*", "");
            String wrong = taken.replaceAll(field + ":\\d+", nonsense);
            assertThat(reader.post(edition + "/identify", request(wrong))
                            .json()
                            .path("code")
                            .asString())
                    .as(nonsense)
                    .isEqualTo("no-such-step");
        }
    }

    @Test
    void aNameIsHeldAgainstItsDescriptionInTheUnitOfEachCharacter() {
        Visitor reader = Visitor.anonymous();
        String edition = edition(Visitor.author(), "check");
        String seen = request(",\"check\":\"bb-mild\"").replace("\"answers\":[]", """
                        "answers":[{"character":"stem-colour","states":["blue"],"certainty":"SURE"},
                        {"character":"leaf-width","states":[],"value":25,"certainty":"SURE"}]""");
        JsonNode check = reader.post(edition + "/identify", seen).json().path("check");
        JsonNode points = check.path("points");
        assertThat(points).hasSize(3);
        for (JsonNode point : points) {
            switch (point.path("character").asString()) {
                case "stem-colour" -> {
                    assertThat(point.path("verdict").asString()).isEqualTo("AGREES");
                    assertThat(point.path("states")).hasSize(1);
                    assertThat(of(points, "text")).contains("stem colour blue");
                    assertThat(point.path("separates").toString()).isEqualTo("[\"Aa bane\"]");
                }
                case "leaf-width" -> {
                    assertThat(point.path("verdict").asString()).isEqualTo("DISAGREES");
                    assertThat(point.path("value").asDouble()).isEqualTo(10);
                    assertThat(point.path("spread").asDouble()).isEqualTo(2);
                    assertThat(point.path("recognises").asBoolean()).isTrue();
                    assertThat(point.path("others").asInt()).isEqualTo(2);
                }
                default -> assertThat(point.path("verdict").asString()).isEqualTo("NOT_EXAMINED");
            }
        }
        assertThat(reader.post(edition + "/identify", request(",\"check\":\"nobody\""))
                        .json()
                        .path("code")
                        .asString())
                .isEqualTo("no-such-row");
    }

    @Test
    void whatIsNotAtHandIsNotAskedFor() {
        Visitor reader = Visitor.anonymous();
        String edition = edition(Visitor.author(), "hand");
        String limited = ",\"atHand\":{\"organs\":[\"Leaf\"],\"methods\":[],\"preserved\":[]}";
        JsonNode all = reader.post(edition + "/identify", request("")).json().path("questions");
        JsonNode leaves =
                reader.post(edition + "/identify", request(limited)).json().path("questions");
        assertThat(of(all, "character")).hasSizeGreaterThan(1);
        assertThat(of(leaves, "character")).containsExactly("leaf-width");
    }
}
