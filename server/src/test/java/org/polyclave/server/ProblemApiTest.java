package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.InputStreamReader;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** What is wrong with a request is told with its place; what is wrong with the server is told as that. */
@ExtendWith(RunningApplication.class)
class ProblemApiTest {
    private static String study() {
        return "/api/v1/studies/"
                + Visitor.author().importTable("problems", "taxon,#hazard,a\nAa,none known,x\nBb,none known,y\n");
    }

    @ParameterizedTest
    @CsvSource(delimiter = '|', quoteCharacter = '`', textBlock = """
            POST | /editions                 | {"authors":null,"words":{}}                                    | authors
            POST | /editions                 | {"authors":[null],"words":{}}                                  | authors[0]
            POST | /editions                 | {"authors":["I"],"words":{"aa":null}}                          | words.aa
            POST | /editions/1/withdraw      | {}                                                             | reason
            POST | /snapshots                | {"name":null}                                                  | name
            PUT  | /members                  | {"account":"oswin"}                                            | role
            PUT  | /members                  | {"account":"oswin","role":"KING"}                              | role
            POST | /rows                     | {"row":null,"baseRevision":0}                                  | row
            POST | /characters               | {"character":null,"baseRevision":0}                            | character
            POST | /scores                   | {"edits":[{"row":"aa","character":"a","baseRevision":0}]}      | edits[0].text
            POST | /comments                 | {"row":"aa","character":"a","text":null}                       | text
            POST | /scores                   | {"edits":[{"row":"aa","character":"a","text":"x","baseRevision":"soon"}]} | edits[0].baseRevision
            POST | /identify                 | {"answers":[{"character":"a","states":["x"]}],"strikeOut":false,"tolerance":0,"month":0,"unavailable":[]} | answers[0].certainty
            """)
    void whatIsMissingIsNamed(String method, String path, String body, String field) {
        Visitor.Outcome outcome = Visitor.author().touch(method, study() + path, body, false);
        assertThat(outcome.status()).as(outcome.toString()).isEqualTo(400);
        assertThat(outcome.field()).isEqualTo(field);
    }

    @Test
    void nobodySendsMuchBeforeAnybodyReadsIt() throws Exception {
        String large = "{\"name\":\"" + "x".repeat(100_000) + "\",\"password\":\"y\"}";
        Visitor nobody = Visitor.anonymous();
        Visitor.Answer announced = nobody.post("/api/v1/session", large);
        assertThat(announced.status()).isEqualTo(413);
        assertThat(announced.json().path("code").asString()).isEqualTo("too-large");
        assertThat(announced.json().path("detail").asString()).contains("at most 64 kB");
        assertThat(Visitor.author().post(study() + "/identify", large).status())
                .as("who is signed in may send more")
                .isEqualTo(400);

        // In pieces of unknown number, a whole request by hand: only so much of it is read.
        try (Socket socket = new Socket(
                InetAddress.getLoopbackAddress(),
                URI.create(RunningApplication.base()).getPort())) {
            OutputStream out = socket.getOutputStream();
            List<String> head = List.of(
                    "POST /api/v1/session HTTP/1.1",
                    "Host: x",
                    "Content-Type: application/json",
                    "Cookie: XSRF-TOKEN=t",
                    "X-XSRF-TOKEN: t",
                    "Transfer-Encoding: chunked",
                    "",
                    "1",
                    "{",
                    "");
            out.write(String.join("\r\n", head).getBytes(StandardCharsets.US_ASCII));
            byte[] piece = ("1000\r\n" + " ".repeat(0x1000) + "\r\n").getBytes(StandardCharsets.US_ASCII);
            for (int k = 0; k < 17; k++) {
                out.write(piece);
            }
            out.flush();
            BufferedReader in =
                    new BufferedReader(new InputStreamReader(socket.getInputStream(), StandardCharsets.UTF_8));
            assertThat(in.readLine()).startsWith("HTTP/1.1 413");
        }
    }

    @Test
    void whoGuessesPasswordsHasToWait() {
        Visitor nobody = Visitor.anonymous();
        String guess = "{\"name\":\"guessed-at\",\"password\":\"wrong\"}";
        for (int k = 0; k < 5; k++) {
            assertThat(nobody.post("/api/v1/session", guess).status()).isEqualTo(400);
        }
        Visitor.Answer next = nobody.post("/api/v1/session", guess);
        assertThat(next.status()).isEqualTo(429);
        assertThat(next.json().path("code").asString()).isEqualTo("too-many");
        assertThat(next.response().headers().firstValue("Retry-After")).isPresent();
        assertThat(Visitor.author().get("/api/v1/session").status()).isEqualTo(200);
    }

    @Test
    void parametersAndBodiesThatCannotBeReadAreToldAsThat() {
        Visitor author = Visitor.author();
        String study = study();
        JsonNode missing = author.get(study + "/changes").json();
        assertThat(missing.path("code").asString()).isEqualTo("missing");
        assertThat(missing.path("detail").asString()).isEqualTo("The request needs the field 'since'.");
        JsonNode wrong = author.get(study + "/changes?since=yesterday").json();
        assertThat(wrong.path("field").asString()).isEqualTo("since");
        Visitor.Answer broken = author.post(study + "/scores", "{\"edits\":[");
        assertThat(broken.status()).isEqualTo(400);
        assertThat(broken.json().path("detail").asString())
                .doesNotContain("Exception")
                .doesNotContain("jackson");
        Visitor.Answer tolerance = author.post(
                study + "/identify",
                "{\"answers\":[],\"strikeOut\":true,\"tolerance\":7,\"month\":0,\"observer\":\"NOVICE\",\"unavailable\":[]}");
        assertThat(tolerance.json().path("code").asString()).isEqualTo("tolerance");
    }

    /** A fault of the server is a 500 that says so, and tells nothing of its inside. */
    @Test
    void aFaultIsNotTheFaultOfWhoAsks() throws SQLException {
        Visitor author = Visitor.author();
        String study = study();
        String slug = study.substring(study.lastIndexOf('/') + 1);
        try (Connection database = RunningApplication.database();
                Statement statement = database.createStatement()) {
            statement.executeUpdate(
                    "update study_row set body = body - 'hazard' || '{\"hazard\":\"NO SUCH\"}' where study_id ="
                            + " (select id from study where slug = '" + slug + "')");
            statement.executeUpdate("update study set revision = revision + 1 where slug = '" + slug + "'");
        }
        Visitor.Answer answer = author.get(study);
        assertThat(answer.status()).isEqualTo(500);
        assertThat(answer.json().path("code").asString()).isEqualTo("failed");
        assertThat(answer.body()).doesNotContain("NO SUCH").doesNotContain("jackson");
    }
}
