package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.StringReader;
import java.nio.charset.StandardCharsets;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Objects;
import java.util.zip.GZIPInputStream;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.polyclave.files.study.StudyFormat;
import org.postgresql.PGConnection;
import org.springframework.context.ConfigurableApplicationContext;
import tools.jackson.databind.JsonNode;

/**
 * A database of a former build goes on with this one. The dump is the demo installation of the build before the API had a
 * version, after some work in it; the insides of its photographs were taken out.
 */
final class UpgradeTest {
    private static final String STUDY = "/api/v1/studies/marrowmere-tussocks";
    private static ConfigurableApplicationContext application;
    private static Visitor author;

    @BeforeAll
    static void upgrade() throws SQLException, IOException {
        application = RunningApplication.start(databaseOfBefore("polyclave_upgrade_"), false);
        author = Visitor.signedInAt(RunningApplication.address(application), "isolde", "meadow-author");
    }

    /** A database as the former build left it; returns its address. */
    static String databaseOfBefore(String name) throws SQLException, IOException {
        String url =
                RunningApplication.emptyDatabase(name + ProcessHandle.current().pid());
        try (Connection database = DriverManager.getConnection(
                url,
                RunningApplication.environment("POLYCLAVE_DB_USER"),
                RunningApplication.environment("POLYCLAVE_DB_PASSWORD"))) {
            load(database, "/upgrade/v14.sql.gz");
            publishAsLongAgo(database);
        }
        return url;
    }

    @AfterAll
    static void stop() {
        application.close();
    }

    /** Runs a dump: statements, and between them the rows of tables. */
    private static void load(Connection database, String dump) throws SQLException, IOException {
        try (BufferedReader lines = new BufferedReader(new InputStreamReader(
                        new GZIPInputStream(Objects.requireNonNull(UpgradeTest.class.getResourceAsStream(dump))),
                        StandardCharsets.UTF_8));
                Statement statement = database.createStatement()) {
            StringBuilder sql = new StringBuilder();
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                if (!line.startsWith("COPY ")) {
                    sql.append(line).append('\n');
                    continue;
                }
                statement.execute(sql.toString());
                sql.setLength(0);
                StringBuilder rows = new StringBuilder();
                for (String row = lines.readLine(); !"\\.".equals(row); row = lines.readLine()) {
                    rows.append(row).append('\n');
                }
                database.unwrap(PGConnection.class).getCopyAPI().copyIn(line, new StringReader(rows.toString()));
            }
            statement.execute(sql.toString());
        }
    }

    /** An edition as the first builds wrote it: without a kit, without what is outside, declared by the row only. */
    private static void publishAsLongAgo(Connection database) throws SQLException {
        try (Statement statement = database.createStatement()) {
            statement.execute("set search_path to public");
            statement.execute("""
                    insert into edition (slug, number, study_id, hash, document, published_by)
                    select slug, 99, study_id, 'long-ago', (document::jsonb - 'kit' - 'outside')::text, published_by
                    from edition where number = 1
                    """);
            statement.execute("insert into edition_status (slug, number, status, reason) "
                    + "select slug, 99, 'SUPERSEDED', '' from edition where number = 99");
        }
    }

    @Test
    void studiesAreListedReadAndScored() {
        JsonNode page = author.get("/api/v1/studies").json();
        assertThat(page.path("total").asInt()).isEqualTo(3);
        JsonNode study = author.get(STUDY).json();
        assertThat(study.path("rows").size()).isEqualTo(26);
        assertThat(study.path("progress").path("scored").asInt()).isGreaterThan(500);
        assertThat(author.get(STUDY + "/next-step").json().path("kind").asString())
                .isNotEmpty();
        assertThat(author.get(STUDY + "/findings").status()).isEqualTo(200);
        assertThat(author.get(STUDY + "/dangers").json().path("dangers").size()).isPositive();
        assertThat(author.get(STUDY + "/comments").json().path(0).path("text").asString())
                .isEqualTo("Look at the voucher again.");
        assertThat(author.get(STUDY + "/export?format=json").status()).isEqualTo(200);
    }

    /** The changes of before are history, and the last of them can be undone. */
    @Test
    void whatWasChangedBeforeIsUndoneNow() {
        assertThat(author.get(STUDY + "/history?row=tarnella-argentea&character=growth-form")
                        .json()
                        .size())
                .isEqualTo(4);
        String described = author.get(STUDY)
                .json()
                .path("rows")
                .path(3)
                .path("description")
                .asString();
        assertThat(described).endsWith("Grows by the old weir.");
        assertThat(author.post(STUDY + "/undo", "{}").status()).isEqualTo(200);
        assertThat(author.get(STUDY)
                        .json()
                        .path("rows")
                        .path(3)
                        .path("description")
                        .asString())
                .doesNotContain("weir");
        assertThat(author.post(STUDY + "/redo", "{}").status()).isEqualTo(200);
        long snapshot =
                author.get(STUDY + "/snapshots").json().path(0).path("id").asLong();
        assertThat(author.get(STUDY + "/snapshots/difference?from=" + snapshot + "&to=0")
                        .json()
                        .path("total")
                        .asInt())
                .isPositive();
    }

    @Test
    void editionsOfBeforeAreRead() {
        for (int number : new int[] {1, 99}) {
            String edition = "/api/v1/editions/marrowmere-tussocks/" + number;
            assertThat(author.get(edition).json().path("format").isMissingNode())
                    .as("byte for byte as it was published")
                    .isTrue();
            JsonNode now =
                    author.get(edition + "?format=" + StudyFormat.VERSION).json();
            assertThat(now.path("format").asInt()).isEqualTo(StudyFormat.VERSION);
            assertThat(now.path("study").path("rows").size()).isPositive();
            Visitor.Answer asked = author.post(
                    edition + "/identify",
                    "{\"answers\":[],\"strikeOut\":false,\"tolerance\":0,\"month\":0,\"observer\":\"NOVICE\",\"unavailable\":[]}");
            assertThat(asked.status())
                    .as("edition %d: %s", number, asked.body())
                    .isEqualTo(200);
        }
    }

    @Test
    void aDatabaseOfANewerBuildIsRefused() throws SQLException, IOException {
        String url = databaseOfBefore("polyclave_newer_");
        RunningApplication.start(url, false).close();
        try (Connection database = DriverManager.getConnection(
                        url,
                        RunningApplication.environment("POLYCLAVE_DB_USER"),
                        RunningApplication.environment("POLYCLAVE_DB_PASSWORD"));
                Statement statement = database.createStatement()) {
            statement.execute("""
                    insert into public.flyway_schema_history
                    select installed_rank + 1, '9999', 'a newer shape', type, 'V9999__a_newer_shape.sql', checksum,
                        installed_by, installed_on, execution_time, success
                    from public.flyway_schema_history order by installed_rank desc limit 1
                    """);
        }
        assertThatThrownBy(() -> RunningApplication.start(url, false).close()).hasStackTraceContaining("9999");
    }

    @Test
    void secondScorersGoOnWhereTheyWere() {
        Visitor scorer = Visitor.signedInAt(RunningApplication.address(application), "oswin", "meadow-scorer");
        assertThat(scorer.get(STUDY).json().path("blind").asBoolean()).isTrue();
        long assignment =
                scorer.get(STUDY + "/assignments").json().path(0).path("id").asLong();
        JsonNode sheet = scorer.get(STUDY + "/assignments/" + assignment).json();
        assertThat(sheet.toString()).contains("dry");
    }
}
