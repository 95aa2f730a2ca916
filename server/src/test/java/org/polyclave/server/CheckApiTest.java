package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Findings over HTTP: they follow the matrix, are accepted with a reason, and are opened again. */
@ExtendWith(RunningApplication.class)
class CheckApiTest {
    private static final String TABLE = """
            taxon,#hazard,margin,hairs
            #type,,states,states
            #states,,toothed|entire|lobed,present|absent
            Aa,none known,toothed,present
            Bb,none known,entire,present
            Cc,none known,entire,absent
            """;

    private static final String UNUSED = "unused-state//margin/lobed";

    private static JsonNode finding(Visitor visitor, String findings, String key) {
        for (JsonNode finding : visitor.get(findings).json()) {
            if (finding.path("key").asString().equals(key)) {
                return finding;
            }
        }
        return tools.jackson.databind.node.MissingNode.getInstance();
    }

    private static List<String> kinds(Visitor visitor, String findings) {
        List<String> kinds = new ArrayList<>();
        visitor.get(findings).json().forEach(f -> kinds.add(f.path("kind").asString()));
        return kinds;
    }

    @Test
    void findingsFollowTheMatrixAndAreAcceptedWithAReason() {
        Visitor author = Visitor.author();
        String study = "/api/v1/studies/" + author.importTable("slips", TABLE);
        String findings = study + "/findings";
        assertThat(finding(author, findings, UNUSED).path("reason").asString()).contains("'lobed'");

        String accept = "{\"key\":\"" + UNUSED + "\",\"reason\":\"%s\"}";
        assertThat(author.put(findings + "/accepted", accept.formatted(" ")).status())
                .isEqualTo(400);
        assertThat(author.put(findings + "/accepted", accept.formatted("Kept for the next region"))
                        .status())
                .isEqualTo(200);
        assertThat(finding(author, findings, UNUSED)
                        .path("acceptance")
                        .path("reason")
                        .asString())
                .isEqualTo("Kept for the next region");
        assertThat(finding(author, findings, UNUSED)
                        .path("acceptance")
                        .path("who")
                        .asString())
                .isEqualTo("Isolde Quillane");
        author.delete(findings + "/accepted?key=" + UNUSED);
        assertThat(finding(author, findings, UNUSED).has("acceptance")).isFalse();

        author.post(
                study + "/scores",
                "{\"edits\":[{\"row\":\"cc\",\"character\":\"margin\",\"text\":\"lobed\",\"baseRevision\":0}]}");
        assertThat(kinds(author, findings)).doesNotContain("UNUSED_STATE");
        assertThat(author.put(findings + "/accepted", accept.formatted("late")).status())
                .isEqualTo(409);
    }

    @Test
    void whatIsNotKnownOfHarmIsNeverAccepted() {
        Visitor author = Visitor.author();
        String findings =
                "/api/v1/studies/" + author.importTable("harm", TABLE.replace("Bb,none known", "Bb,")) + "/findings";
        String key = "hazard-not-assessed/bb//";
        assertThat(finding(author, findings, key).path("acceptable").asBoolean())
                .isFalse();
        assertThat(author.put(findings + "/accepted", "{\"key\":\"" + key + "\",\"reason\":\"surely harmless\"}")
                        .status())
                .isEqualTo(422);
    }

    @Test
    void theDemoHasThePlantedSlipsAndStrangersSeeNothing() {
        String findings = "/api/v1/studies/marrowmere-tussocks/findings";
        assertThat(kinds(Visitor.reader(), findings))
                .contains("HAZARD_NOT_ASSESSED", "SAME_ROWS", "UNKNOWN_CHARACTER", "CHILD_OUTSIDE_PARENT");
        assertThat(Visitor.reader()
                        .put(findings + "/accepted", "{\"key\":\"x\",\"reason\":\"y\"}")
                        .status())
                .isEqualTo(403);
        assertThat(Visitor.anonymous().get(findings).status()).isEqualTo(404);
    }

    @Test
    void aCertainFindingIsCorrectedByOneRequestAndTakenBack() {
        Visitor author = Visitor.author();
        String study = "/api/v1/studies/" + author.importTable("spelt", TABLE.replace("margin", "leaf margn"));
        author.put(
                study + "/terms",
                "{\"term\":{\"id\":\"\",\"term\":\"margin\",\"definition\":\"the edge\",\"plain\":\"\",\"synonyms\":[],"
                        + "\"misspellings\":[\"margn\"],\"picture\":\"\"},\"baseRevision\":0}");
        String findings = study + "/findings";
        String key = "near-term//leaf-margn/margn";
        assertThat(finding(author, findings, key).path("correction").asString()).isEqualTo("Write 'margin'");
        String correction = "{\"key\":\"%s\"}";
        assertThat(author.post(findings + "/corrections", correction.formatted(UNUSED))
                        .status())
                .isEqualTo(409);
        assertThat(author.post(findings + "/corrections", correction.formatted(key))
                        .status())
                .isEqualTo(200);
        assertThat(finding(author, findings, key).isMissingNode()).isTrue();
        assertThat(author.get(study)
                        .json()
                        .path("characters")
                        .get(0)
                        .path("label")
                        .asString())
                .isEqualTo("leaf margin");
        assertThat(author.post(study + "/undo", "{}").status()).isEqualTo(200);
        assertThat(finding(author, findings, key).isMissingNode()).isFalse();
    }
}
