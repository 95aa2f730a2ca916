package org.polyclave.files.study;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.files.study.StudyUpgrades.Part;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** The study file as a contract: files of every earlier version still read, and what is written is what was written. */
class StudyFormatTest {
    private static final JsonMapper JSON = JsonMapper.shared();

    private static byte[] file(String name) throws IOException {
        try (InputStream in = StudyFormatTest.class.getResourceAsStream("/" + name + ".polyclave.json")) {
            return Objects.requireNonNull(in).readAllBytes();
        }
    }

    private static Study read(String name) throws IOException {
        StudyJson.ReadStudy read = StudyJson.read(file(name));
        assertThat(read.problems()).as(name).isEmpty();
        return Objects.requireNonNull(read.study());
    }

    @ParameterizedTest
    @CsvSource({
        "study-v1/first, 26, 38, 694",
        "study-v1/with-pictures, 29, 30, 423",
        "study-v1/everything, 7, 9, 48",
        "study-v2/everything, 7, 9, 48"
    })
    void filesOfEveryTimeRead(String name, int rows, int characters, int scores) throws IOException {
        Study study = read(name);
        assertThat(study.rows()).hasSize(rows);
        assertThat(study.characters()).hasSize(characters);
        assertThat(study.scores()).hasSize(scores);
        assertThat(StudyJson.read(StudyJson.write(study).getBytes(StandardCharsets.UTF_8))
                        .study())
                .isEqualTo(study);
    }

    /** An editor may leave a study in a state that a file from elsewhere must not have; what was kept of it is read all the same. */
    @Test
    void whatWasKeptOfAStudyIsReadWhateverItSays() throws IOException {
        Study study = read("study-v1/first");
        List<StudyRow> twice = new ArrayList<>(study.rows());
        twice.add(study.rows().get(0));
        Study odd = study.withRows(twice);
        String document = StudyJson.write(odd);
        assertThat(StudyJson.read(document.getBytes(StandardCharsets.UTF_8)).problems())
                .isNotEmpty();
        assertThat(StudyJson.readOwn(document)).isEqualTo(odd);
        String older = new String(file("study-v1/everything"), StandardCharsets.UTF_8);
        assertThat(StudyJson.readOwn(older)).isEqualTo(read("study-v1/everything"));
    }

    @Test
    void whatIsWrittenIsWhatWasWritten() throws IOException {
        String before = new String(file("study-v2/everything"), StandardCharsets.UTF_8);
        assertThat(StudyJson.write(read("study-v2/everything")))
                .as("a new name or a missing part is a new version of the format, with a step that upgrades to it")
                .isEqualTo(before);
    }

    @Test
    void aFileOfANewerProgramIsRefusedByItsVersion() throws IOException {
        String newer = new String(file("study-v1/first"), StandardCharsets.UTF_8)
                .replaceFirst("\"version\": 1", "\"version\": 7");
        assertThat(StudyJson.read(newer.getBytes(StandardCharsets.UTF_8)).problems())
                .singleElement()
                .asString()
                .contains("version 7")
                .contains("up to 2");
    }

    @Test
    void whereAFeatureWasNamedForItsOrganEachCharacterIsItsOwnSinceVersion2() {
        for (String of : List.of("leaf", "Leaf ", "organ leaf")) {
            ObjectNode character = JSON.createObjectNode().put("organ", "leaf").put("group", of);
            assertThat(StudyUpgrades.ALL
                            .upgraded(Part.CHARACTER, 1, character.deepCopy())
                            .path("group")
                            .asString())
                    .as(of)
                    .isEmpty();
            assertThat(StudyUpgrades.ALL.upgraded(Part.CHARACTER, 2, character.deepCopy()))
                    .isEqualTo(character);
        }
        ObjectNode chosen = JSON.createObjectNode().put("organ", "leaf").put("group", "leaf shape");
        assertThat(StudyUpgrades.ALL.upgraded(Part.CHARACTER, 1, chosen.deepCopy()))
                .isEqualTo(chosen);
        assertThat(StudyUpgrades.ALL.upgraded(
                        Part.CHARACTER, 1, JSON.createObjectNode().put("id", "a")))
                .as("nothing of either said")
                .isEqualTo(JSON.createObjectNode().put("id", "a").put("group", ""));
    }

    /** As if version 3 were the current one: organs became parts, and states lost a field. */
    private static final StudyUpgrades LATER = new StudyUpgrades(
            3,
            List.of(
                    new StudyUpgrades.Step(
                            1,
                            Part.CHARACTER,
                            c -> c.put("part", c.remove("organ").asString())),
                    new StudyUpgrades.Step(
                            2,
                            Part.CHARACTER,
                            c -> c.put("part", "the " + c.path("part").asString())),
                    new StudyUpgrades.Step(2, Part.OUTSIDE, o -> o.put("why", "unknown"))));

    @Test
    void stepsAreTakenInTheirOrderFromTheVersionOnAndOnlyWhereTheyBelong() {
        ObjectNode character = JSON.createObjectNode().put("id", "margin").put("organ", "leaf");
        assertThat(LATER.upgraded(Part.CHARACTER, 1, character.deepCopy()))
                .isEqualTo(JSON.createObjectNode().put("id", "margin").put("part", "the leaf"));
        ObjectNode second = JSON.createObjectNode().put("part", "leaf");
        assertThat(LATER.upgraded(Part.CHARACTER, 2, second.deepCopy()))
                .isEqualTo(JSON.createObjectNode().put("part", "the leaf"));
        assertThat(LATER.upgraded(Part.CHARACTER, 3, second.deepCopy())).isEqualTo(second);
        assertThat(LATER.upgraded(Part.ROW, 1, character.deepCopy())).isEqualTo(character);
        assertThat(LATER.isChanged(Part.CHARACTER, 1)).isTrue();
        assertThat(LATER.isChanged(Part.CHARACTER, 3)).isFalse();
        assertThat(LATER.isChanged(Part.CELL, 1)).isFalse();
    }

    @Test
    void aWholeStudyIsUpgradedPartByPart() {
        ObjectNode study = JSON.createObjectNode();
        study.putArray("characters").addObject().put("organ", "leaf");
        study.putArray("nearButOutside").addObject().put("name", "Oxbane");
        study.putArray("rows").addObject().put("organ", "stays");
        JsonNode now = LATER.study(1, study);
        assertThat(now.at("/characters/0/part").asString()).isEqualTo("the leaf");
        assertThat(now.at("/nearButOutside/0/why").asString()).isEqualTo("unknown");
        assertThat(now.at("/rows/0/organ").asString()).isEqualTo("stays");
    }
}
