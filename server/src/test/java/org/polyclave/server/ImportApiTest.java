package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Imports as jobs: they tell how far they are, stop when they are told to, and write once or not at all. */
@ExtendWith(RunningApplication.class)
class ImportApiTest {
    private static final String SMALL = "taxon,margin\nAa,entire\nBb,toothed\n";

    private final Visitor author = Visitor.author();

    private static String large(int taxa) {
        StringBuilder table = new StringBuilder("taxon");
        for (int c = 0; c < 500; c++) {
            table.append(",feature ").append(c);
        }
        for (int r = 0; r < taxa; r++) {
            table.append("\nTaxon ").append(r);
            for (int c = 0; c < 500; c++) {
                table.append(
                        c % 4 == 0
                                ? "," + (r * 7 + c) % 40 + "–" + ((r * 7 + c) % 40 + 3) + " mm"
                                : ",state " + (r + c) % 5);
            }
        }
        return table.append('\n').toString();
    }

    private int studies(String title) {
        return author.get("/api/v1/studies?find=" + title).json().path("total").asInt();
    }

    private JsonNode job(JsonNode begun) {
        return author.get("/api/v1/imports/" + begun.path("id").asString()).json();
    }

    @Test
    void aLargeFileTellsHowFarItsReadingIsAndCanBeStopped() throws InterruptedException {
        Importing file = Importing.of(author, "large.csv", large(1000)).titled("Stopped-import");
        JsonNode begun = file.begin("PREVIEW").json();
        List<Double> shares = new ArrayList<>(List.of(begun.path("progress").asDouble()));
        JsonNode now = begun;
        while (now.path("status").asString().matches("QUEUED|RUNNING") && shares.get(shares.size() - 1) < 0.3) {
            now = job(begun);
            shares.add(now.path("progress").asDouble());
        }
        assertThat(now.path("status").asString()).isEqualTo("RUNNING");
        assertThat(shares).isSorted();
        assertThat(Visitor.scorer()
                        .get("/api/v1/imports/" + begun.path("id").asString())
                        .status())
                .as("of somebody else")
                .isEqualTo(404);
        author.delete("/api/v1/imports/" + begun.path("id").asString());
        JsonNode ended = job(begun);
        while (ended.path("status").asString().equals("RUNNING")) {
            Thread.sleep(50);
            ended = job(begun);
        }
        assertThat(ended.path("status").asString()).isEqualTo("CANCELLED");
        assertThat(ended.path("answer").isObject()).isFalse();
    }

    /** The larger part of the work is the writing, which is heard of and stopped like the reading. */
    @Test
    void anImportIsStoppedWhileItWrites() {
        Importing file = Importing.of(author, "large.csv", large(1000)).titled("Half-written");
        JsonNode begun = file.begin("IMPORT").json();
        JsonNode now = begun;
        while (now.path("status").asString().matches("QUEUED|RUNNING")
                && now.path("progress").asDouble() < 0.35) {
            now = job(begun);
        }
        assertThat(now.path("status").asString()).isEqualTo("RUNNING");
        assertThat(now.path("progress").asDouble()).isLessThan(0.9);
        author.delete("/api/v1/imports/" + begun.path("id").asString());
        while (now.path("status").asString().equals("RUNNING")) {
            now = job(begun);
        }
        assertThat(now.path("status").asString()).isEqualTo("CANCELLED");
        assertThat(studies("Half-written")).isZero();
    }

    @Test
    void anImportThatIsStoppedWhileItWritesIsDoneOrLeavesNothing() {
        for (double share : new double[] {0.1, 0.6}) {
            String title = "Raced" + (int) (100 * share);
            JsonNode begun = Importing.of(author, "large.csv", large(200))
                    .titled(title)
                    .begin("IMPORT")
                    .json();
            JsonNode now = begun;
            while (now.path("status").asString().matches("QUEUED|RUNNING")
                    && now.path("progress").asDouble() < share) {
                now = job(begun);
            }
            author.delete("/api/v1/imports/" + begun.path("id").asString());
            while (now.path("status").asString().matches("QUEUED|RUNNING")) {
                now = job(begun);
            }
            boolean done = now.path("status").asString().equals("DONE");
            assertThat(done || now.path("status").asString().equals("CANCELLED"))
                    .as(now.toString())
                    .isTrue();
            assertThat(studies(title)).as("at %s: %s", share, now).isEqualTo(done ? 1 : 0);
        }
    }

    /** As after a kill: the job's row says that it runs, and nobody runs it. */
    @Test
    void aJobThatIsRunAgainAfterItWroteDoesNotWriteAgain() throws SQLException {
        Importing file = Importing.of(author, "small.csv", SMALL).titled("Twice-run");
        String id = file.ask("IMPORT").json().path("id").asString();
        try (Connection database = RunningApplication.database();
                Statement statement = database.createStatement()) {
            statement.execute(
                    "insert into scheduled_tasks (task_name, task_instance, execution_time, picked, version) values ('job', '"
                            + id + "', now(), false, 1)");
            long end = System.nanoTime() + 20_000_000_000L;
            while (statement
                            .executeQuery("select 1 from scheduled_tasks where task_instance = '" + id + "'")
                            .next()
                    && System.nanoTime() < end) {
                Thread.onSpinWait();
            }
        }
        assertThat(studies("Twice-run")).isEqualTo(1);
        assertThat(author.get("/api/v1/imports/" + id)
                        .json()
                        .path("answer")
                        .path("slug")
                        .asString())
                .startsWith("twice-run");
        assertThat(file.create()).as("asked for again, it is another").isNotEmpty();
        assertThat(studies("Twice-run")).isEqualTo(2);
    }

    @Test
    void filesAreOfThoseWhoSentThemAndAreNotKeptForEver() throws SQLException {
        Importing file = Importing.of(author, "small.csv", SMALL);
        String id = file.begin("PREVIEW").json().path("id").asString();
        Visitor.Answer foreign =
                Visitor.scorer().post("/api/v1/imports", "{\"step\":\"PREVIEW\",\"upload\":\"" + file.upload() + "\"}");
        assertThat(foreign.status()).isEqualTo(422);
        assertThat(foreign.json().path("code").asString()).isEqualTo("upload-gone");
        assertThat(Visitor.scorer().delete("/api/v1/imports/" + id).status()).isEqualTo(404);
        for (int i = 0; i < 4; i++) {
            Importing.of(author, "next.csv", SMALL);
        }
        assertThat(file.begin("IMPORT").json().path("code").asString()).isEqualTo("upload-gone");
    }

    @Test
    void whatADatabaseCannotHoldIsToldAndNotTriedForEver() {
        Visitor.Answer nul = Importing.of(author, "nul.csv", "taxon,mar\0gin\nAa,entire\0\nBb,toothed\n")
                .titled("Nul")
                .run();
        assertThat(nul.body()).contains("\"code\"").doesNotContain("\"code\":\"failed\"");
    }

    @Test
    void someCharactersOfALargeNexusFileAreRead() {
        StringBuilder nexus = new StringBuilder("#NEXUS\nBEGIN DATA;\nDIMENSIONS NTAX=2 NCHAR=3000;\nMATRIX\n");
        nexus.append("A ").append("01".repeat(1500)).append("\nB ").append("10".repeat(1500));
        nexus.append("\n;\nEND;\nBEGIN SETS;\nCHARSET jaws = 2990-.;\nEND;\n");
        Importing file = Importing.of(author, "jaws.nex", nexus.toString());
        JsonNode asked = file.preview();
        assertThat(asked.path("usable").asBoolean(true)).isFalse();
        assertThat(asked.path("selection").toString())
                .isEqualTo("{\"total\":3000,\"read\":0,\"sets\":[{\"name\":\"jaws\",\"characters\":11}]}");
        JsonNode chosen = file.with("characters", "\"jaws, 1\"").preview();
        assertThat(chosen.path("usable").asBoolean()).isTrue();
        assertThat(chosen.path("characters").asInt()).isEqualTo(12);
        String study = "/api/v1/studies/" + file.titled("Jaws").create();
        assertThat(author.get(study)
                        .json()
                        .path("characters")
                        .path(11)
                        .path("label")
                        .asString())
                .isEqualTo("character 3000");
    }
}
