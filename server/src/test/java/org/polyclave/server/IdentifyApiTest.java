package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** The any-order key of a study over HTTP, on a matrix small enough to reason about. */
@ExtendWith(RunningApplication.class)
class IdentifyApiTest {
    private static final String TABLE = """
            taxon,#hazard,stem,leaf width,petals,fruit
            #type,,states,length,count,states
            #unit,,,cm,,
            #organ,,stem,leaf,flower,fruit
            #states,,red|green,,,black|white
            #months,,,,Jun,Sep–Oct
            Bane,serious,red,2–3,5,black
            Mild,none known,red,5–6,4,black
            Calm,none known,green,2–3,5,white
            """;

    private Visitor author = Visitor.anonymous();
    private String identify = "";

    @BeforeEach
    void importStudy() {
        author = Visitor.author();
        identify = "/api/v1/studies/" + author.importTable("any order", TABLE) + "/identify";
    }

    private static String state(String character, String state, String certainty) {
        return "{\"character\":\"%s\",\"states\":[\"%s\"],\"certainty\":\"%s\"}".formatted(character, state, certainty);
    }

    private static String value(String character, double value, double... again) {
        String further = Arrays.stream(again)
                .mapToObj("{\"states\":[],\"value\":%s,\"certainty\":\"SURE\"}"::formatted)
                .collect(Collectors.joining(","));
        return "{\"character\":\"%s\",\"states\":[],\"value\":%s,\"certainty\":\"SURE\",\"further\":[%s]}"
                .formatted(character, value, further);
    }

    private static String request(int month, String more, String... answers) {
        return "{\"answers\":[" + String.join(",", answers) + "],\"strikeOut\":false,\"tolerance\":0,\"month\":" + month
                + ",\"unavailable\":[" + more + "]}";
    }

    private JsonNode ask(String request) {
        Visitor.Answer answer = author.post(identify, request);
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return answer.json();
    }

    private static double posterior(JsonNode response, String row) {
        for (JsonNode standing : response.path("standings")) {
            if (standing.path("name").path("row").asString().equals(row)) {
                return standing.path("posterior").asDouble();
            }
        }
        throw new AssertionError("No " + row);
    }

    private static List<String> questions(JsonNode response) {
        List<String> questions = new ArrayList<>();
        response.path("questions")
                .forEach(q -> questions.add(q.path("character").asString()));
        return questions;
    }

    @Test
    void beforeAnyAnswerAllAreAlikeAndTheWholeIsOne() {
        JsonNode open = ask(request(0, ""));
        assertThat(posterior(open, "bane")).isCloseTo(posterior(open, "calm"), within(1e-9));
        double sum = open.path("outside").asDouble();
        for (String row : List.of("bane", "mild", "calm")) {
            sum += posterior(open, row);
        }
        assertThat(sum).isCloseTo(1, within(1e-6));
    }

    @Test
    void aReadingIsTakenInTheUnitOfItsCharacter() {
        JsonNode wide = ask(request(0, "", value("leaf-width", 5.5)));
        assertThat(wide.path("standings").get(0).path("name").path("row").asString())
                .isEqualTo("mild");
        assertThat(posterior(wide, "mild")).isGreaterThan(0.8);
    }

    @Test
    void anUnsureAnswerMovesLessAndAWithdrawnOneNotAtAll() {
        double sure = posterior(ask(request(0, "", state("stem", "green", "SURE"))), "calm");
        double unsure = posterior(ask(request(0, "", state("stem", "green", "UNSURE"))), "calm");
        double none = posterior(ask(request(0, "")), "calm");
        assertThat(sure).isGreaterThan(unsure);
        assertThat(unsure).isGreaterThan(none);
    }

    @Test
    void questionsLeaveOutWhatTheMonthOrTheReaderCannotShow() {
        assertThat(questions(ask(request(0, "")))).contains("stem", "petals", "fruit", "leaf-width");
        assertThat(questions(ask(request(6, "")))).doesNotContain("fruit").contains("petals");
        assertThat(questions(ask(request(1, "")))).doesNotContain("fruit", "petals");
        assertThat(questions(ask(request(0, "\"stem\",\"no-such\"")))).doesNotContain("stem");
        assertThat(questions(ask(request(0, "", state("stem", "red", "SURE"))))).doesNotContain("stem");
    }

    /** Bane is apart from what was seen in width and in the number of petals. */
    @Test
    void importedScoresSpeakAgainstNoDangerUntilSomebodyHasCheckedThem() {
        String seen = request(0, "", value("leaf-width", 5.5), value("petals", 4));
        JsonNode margin = ask(seen).path("margins").get(0);
        assertThat(margin.path("name").path("row").asString()).isEqualTo("bane");
        assertThat(margin.path("ruledOut").asBoolean()).isFalse();
        assertThat(margin.path("agreeing").asInt()).isZero();
        assertThat(margin.path("features").asInt()).isZero();

        String study = identify.replace("/identify", "/scores");
        for (String[] cell : new String[][] {
            {"bane", "leaf-width", "2–3"},
            {"bane", "petals", "5"},
            {"mild", "leaf-width", "5–6"},
            {"mild", "petals", "4"}
        }) {
            String edit = "{\"edits\":[{\"row\":\"" + cell[0] + "\",\"character\":\"" + cell[1] + "\",\"text\":\""
                    + cell[2] + "\",\"baseRevision\":0}]}";
            assertThat(author.post(study, edit).status()).isEqualTo(200);
        }
        JsonNode checked = ask(seen).path("margins").get(0);
        assertThat(checked.path("agreeing").asInt()).isEqualTo(2);
        assertThat(checked.path("features").asInt()).isEqualTo(2);
        assertThat(checked.path("ruledOut").asBoolean())
                .as("one look at each: a novice may have misread both")
                .isFalse();
        assertThat(checked.path("looks")).isNotEmpty();
        JsonNode again = ask(request(0, "", value("leaf-width", 5.5, 5.4, 5.6), value("petals", 4, 4, 4)));
        assertThat(again.path("margins").get(0).path("ruledOut").asBoolean())
                .as("three looks at each")
                .isTrue();
    }

    @Test
    void nonsenseIsNamed() {
        for (String answer : List.of(
                state("no-such", "red", "SURE"),
                state("stem", "blue", "SURE"),
                value("leaf-width", -1),
                "{\"character\":\"stem\",\"states\":[],\"certainty\":\"SURE\"}",
                "{\"character\":\"leaf-width\",\"states\":[],\"certainty\":\"SURE\"}")) {
            Visitor.Answer refused = author.post(identify, request(0, "", answer));
            assertThat(refused.status()).as(answer).isEqualTo(400);
            assertThat(refused.json().path("detail").asString()).isNotBlank();
        }
        assertThat(author.post(identify, request(13, "")).json().path("detail").asString())
                .contains("1 to 12");
        assertThat(Visitor.reader().post(identify, request(0, "")).status()).isEqualTo(404);
    }

    private static String rough(double times, String measured) {
        return "{\"character\":\"leaf-width\",\"states\":[],\"value\":" + times
                + ",\"rule\":\"FINGER_WIDTH\",\"measured\":" + measured + ",\"certainty\":\"SURE\"}";
    }

    @Test
    void aLengthToldInFingersIsWeighedByTheirSpreadAndClearsNoDanger() {
        JsonNode found = ask(request(0, "", rough(3, "[]")));
        // Three of 17 ± 2 mm, told to the half: 5.1 cm, give or take 2 · hypot(6, 17 / 2 / √12) mm.
        JsonNode told = found.path("rough").path(0);
        assertThat(told.path("value").asDouble()).isCloseTo(5.1, within(1e-9));
        assertThat(told.path("uncertainty").asDouble())
                .isCloseTo(0.2 * Math.hypot(6, 8.5 / Math.sqrt(12)), within(1e-9));
        assertThat(posterior(found, "mild")).isGreaterThan(posterior(found, "bane"));

        JsonNode own = ask(request(0, "", rough(3, "[18,18.5,17.5]")));
        assertThat(own.path("rough").path(0).path("value").asDouble()).isCloseTo(5.4, within(1e-9));
        assertThat(own.path("margins").path(0).path("ruledOut").asBoolean()).isFalse();
        assertThat(own.path("margins").path(0).path("agreeing").asInt()).isZero();

        assertThat(author.post(identify, request(0, "", rough(0, "[]"))).status())
                .isEqualTo(400);
        String petals = rough(2, "[]").replace("leaf-width", "petals");
        assertThat(author.post(identify, request(0, "", petals)).body()).contains("can only answer a length");
    }

    @Test
    void aRangeIsReadAsItIsTypedAndSaidAsARange() {
        JsonNode read = author.get("/api/v1/typed-answers?type=LENGTH&unit=cm&typed=" + "20-30%20mm")
                .json();
        assertThat(read.path("value").asDouble()).isEqualTo(2.5);
        assertThat(read.path("spread").asDouble()).isEqualTo(0.5);
        assertThat(author.get("/api/v1/typed-answers?type=LENGTH&unit=cm&typed=broad")
                        .json()
                        .path("reason")
                        .asString())
                .contains("not a number or range");
        assertThat(author.get("/api/v1/typed-answers?type=STATES&typed=broad").status())
                .isEqualTo(400);
        String range =
                "{\"character\":\"leaf-width\",\"states\":[],\"value\":2.5,\"uncertainty\":0.5,\"certainty\":\"SURE\"}";
        JsonNode answered = ask(request(0, "", range));
        assertThat(answered.path("said").get(0).toString()).contains("2–3 cm");
        assertThat(posterior(answered, "bane")).isGreaterThan(5 * posterior(answered, "mild"));
    }
}
