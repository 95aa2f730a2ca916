package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.IOException;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.polyclave.files.study.StudyFormat;
import org.polyclave.files.study.StudyUpgrades;
import org.polyclave.files.study.StudyUpgrades.Part;
import org.polyclave.files.study.StudyUpgrades.Step;
import org.polyclave.server.store.BodyUpgrade;
import org.polyclave.server.store.persistence.BodyMapper;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.transaction.PlatformTransactionManager;
import tools.jackson.databind.json.JsonMapper;

/** What is kept in an older shape is brought up to date with its history, whole or not at all: as if version 2 were there. */
final class BodyUpgradeTest {
    private static final List<Step> STEPS = List.of(
            new Step(
                    StudyFormat.VERSION,
                    Part.ROW,
                    r -> r.put("plain", r.path("plain").asString() + " (2)")),
            new Step(StudyFormat.VERSION, Part.CHARACTER, c -> c.put("note", "2")),
            new Step(StudyFormat.VERSION, Part.CELL, c -> c.put("note", "2")),
            new Step(StudyFormat.VERSION, Part.SPECIMEN, s -> s.put("note", "2")),
            new Step(StudyFormat.VERSION, Part.SCOPE, s -> s.put("audience", "2")),
            new Step(StudyFormat.VERSION, Part.OUTSIDE, o -> o.put("why", "2")));

    private static void upgrade(ConfigurableApplicationContext application, List<Step> steps) {
        new BodyUpgrade(
                        application.getBean(BodyMapper.class),
                        application.getBean(JsonMapper.class),
                        application.getBean(PlatformTransactionManager.class),
                        new StudyUpgrades(StudyFormat.VERSION + 1, steps))
                .afterSingletonsInstantiated();
    }

    private static long count(Connection database, String sql) throws SQLException {
        try (Statement statement = database.createStatement();
                ResultSet result = statement.executeQuery("select count(*) from " + sql)) {
            result.next();
            return result.getLong(1);
        }
    }

    private static List<Long> counts(Connection database) throws SQLException {
        List<Long> counts = new ArrayList<>();
        for (String sql : List.of(
                "study where body_version = " + (StudyFormat.VERSION + 1) + " and scope ->> 'audience' = '2'",
                "study where jsonb_array_length(near_but_outside) > 0 and near_but_outside -> 0 ->> 'why' <> '2'",
                "study_row where body ->> 'plain' not like '%(2)' or body ->> 'plain' like '%(2) (2)'",
                "study_character where body ->> 'note' <> '2'",
                "score where body ->> 'note' <> '2'",
                "study_entry where kind = 'specimen' and body ->> 'note' <> '2'",
                "change where object like 'cell/%' and (before ->> 'note' <> '2' or after ->> 'note' <> '2')",
                "change where object like 'row/%' and (before -> 'body' ->> 'plain' not like '%(2)'"
                        + " or after -> 'body' ->> 'plain' not like '%(2)')")) {
            counts.add(count(database, sql));
        }
        return counts;
    }

    @Test
    void everyObjectAndWhatItsChangesSayAreUpgradedOnceAndWholeOrNotAtAll() throws SQLException, IOException {
        String url = UpgradeTest.databaseOfBefore("polyclave_bodies_");
        try (ConfigurableApplicationContext application = RunningApplication.start(url, false);
                Connection database = DriverManager.getConnection(
                        url,
                        RunningApplication.environment("POLYCLAVE_DB_USER"),
                        RunningApplication.environment("POLYCLAVE_DB_PASSWORD"))) {
            database.createStatement().execute("set search_path to public");
            long studies = count(database, "study");
            assertThat(count(database, "change where object like 'row/%'")).isPositive();
            assertThat(count(database, "study_entry where kind = 'specimen'")).isPositive();
            List<Long> before = counts(database);

            List<Step> failing = new ArrayList<>(STEPS);
            failing.add(new Step(StudyFormat.VERSION, Part.OUTSIDE, o -> {
                throw new IllegalStateException("a fault in a step");
            }));
            assertThatThrownBy(() -> upgrade(application, failing)).hasMessageContaining("a fault in a step");
            assertThat(counts(database)).as("nothing is half upgraded").isEqualTo(before);

            upgrade(application, STEPS);
            upgrade(application, STEPS);
            assertThat(counts(database)).containsExactly(studies, 0L, 0L, 0L, 0L, 0L, 0L, 0L);

            Visitor author = Visitor.signedInAt(RunningApplication.address(application), "isolde", "meadow-author");
            assertThat(author.post("/api/v1/studies/marrowmere-tussocks/undo", "{}")
                            .status())
                    .isEqualTo(200);
            assertThat(counts(database))
                    .as("what was before the last change")
                    .containsExactly(studies, 0L, 0L, 0L, 0L, 0L, 0L, 0L);
        }
    }
}
