package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.sql.Connection;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;

/** A study large enough to be kept packed says the same however it is read: packed, packed with changes, cell by cell. */
@ExtendWith(RunningApplication.class)
class LargeStudyApiTest {
    private static final int ROWS = 280;
    private static final int CHARACTERS = 200;

    private static String table() {
        Random random = new Random(5);
        StringBuilder text = new StringBuilder("taxon");
        StringBuilder types = new StringBuilder("#type");
        for (int c = 0; c < CHARACTERS; c++) {
            text.append(",c").append(c);
            types.append(c % 3 == 0 ? ",length" : ",states");
        }
        text.append('\n').append(types).append('\n');
        for (int r = 0; r < ROWS; r++) {
            text.append("Row ").append(r);
            for (int c = 0; c < CHARACTERS; c++) {
                int at = random.nextInt(9);
                String score = c % 3 == 0 ? at + "-" + (at + 4) : at % 2 == 0 ? "red" : "usually blue, rarely red";
                text.append(',').append(random.nextInt(40) == 0 ? "" : '"' + score + '"');
            }
            text.append('\n');
        }
        return text.toString();
    }

    /** How many packs there are, before a statement is carried out on them. */
    private static int packs(String slug, String then) throws SQLException {
        try (Connection database = RunningApplication.database();
                Statement statement = database.createStatement()) {
            String of = " study_id = (select id from study where slug = '" + slug + "')";
            try (ResultSet result = statement.executeQuery("select count(*) from score_pack where" + of)) {
                result.next();
                int count = result.getInt(1);
                if (!then.isEmpty()) {
                    statement.execute(then + of);
                }
                return count;
            }
        }
    }

    @Test
    void aPackedStudySaysWhatItsCellsSay() throws SQLException {
        Visitor author = Visitor.author();
        String slug = author.importTable("large", table());
        String study = "/api/v1/studies/" + slug;
        String export = study + "/export?format=json";
        String imported = author.get(export).body();
        assertThat(packs(slug, "")).isEqualTo(1);

        String edit = "{\"edits\":[{\"row\":\"row-7\",\"character\":\"c1\",\"text\":\"%s\",\"baseRevision\":0}]}";
        assertThat(author.post(study + "/scores", edit.formatted("red / blue")).status())
                .isEqualTo(200);
        assertThat(author.get(study + "/findings").status()).isEqualTo(200);
        assertThat(author.delete(study + "/characters/c4?baseRevision=0").status())
                .isEqualTo(200);
        assertThat(author.post(study + "/rows/row-9/move", "{\"before\":\"row-2\",\"baseRevision\":0}")
                        .status())
                .isEqualTo(200);
        String changed = author.get(export).body();
        assertThat(changed).contains("red / blue").doesNotContain("\"c4\"").isNotEqualTo(imported);

        // Without its pack the study is read cell by cell, and packed again.
        assertThat(packs(slug, "delete from score_pack where")).isEqualTo(1);
        assertThat(author.post(study + "/undo", "{}").status()).isEqualTo(200);
        author.get(study);
        assertThat(author.post(study + "/redo", "{}").status()).isEqualTo(200);
        assertThat(author.get(export).body()).isEqualTo(changed);
        assertThat(packs(slug, "")).isEqualTo(1);

        // A pack of another version is left alone.
        packs(slug, "update score_pack set body = '\\x789c636060486680020003870064' where");
        for (int n = 0; n < 3; n++) {
            assertThat(author.post(study + "/undo", "{}").status()).isEqualTo(200);
        }
        assertThat(author.get(export).body()).isEqualTo(imported);
    }

    /** What keys of the database did before scores were checked by the statement: nothing refers to what is not there. */
    @Test
    void noScoreIsOfWhatItsStudyDoesNotHave() throws SQLException {
        String slug = Visitor.author().importTable("kept whole", "taxon,hue\n#type,states\nOne,red\nTwo,blue\n");
        String of = "(select id from study where slug = '" + slug + "')";
        try (Connection database = RunningApplication.database();
                Statement statement = database.createStatement()) {
            for (String broken :
                    List.of("row_id = row_id || '?'", "character_id = character_id || '?'", "scorer_id = -1")) {
                assertThatThrownBy(() -> statement.execute("update score set " + broken + " where study_id = " + of))
                        .isInstanceOf(SQLException.class)
                        .hasMessageContaining("A score is");
            }
            statement.execute("delete from study_row where id = 'one' and study_id = " + of);
            assertThat(scores(statement, of)).isEqualTo(1);
            statement.execute("delete from study where id = " + of);
            assertThat(statement
                            .executeQuery("select from score where study_id not in (select id from study)")
                            .next())
                    .isFalse();
        }
    }

    private static int scores(Statement statement, String study) throws SQLException {
        try (ResultSet result = statement.executeQuery("select count(*) from score where study_id = " + study)) {
            result.next();
            return result.getInt(1);
        }
    }
}
