package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

@ExtendWith(RunningApplication.class)
final class ScoringApiTest {
    private Visitor author = Visitor.anonymous();
    private Visitor scorer = Visitor.anonymous();
    private String study = "";

    @BeforeEach
    void giveCells() {
        author = Visitor.author();
        scorer = Visitor.scorer();
        study = "/api/v1/studies/" + author.importTable("second scorer", """
                        taxon,#hazard,margin,width
                        #type,,states,length
                        #states,,entire|toothed,
                        Aa,none known,toothed,5–9
                        Bb,none known,entire,3–4
                        Cc,none known,toothed,12–14
                        """);
        author.put(study + "/members", "{\"account\":\"oswin\",\"role\":\"SCORER\"}");
        assertThat(author.post(
                                study + "/assignments",
                                "{\"scorer\":\"oswin\",\"rows\":[],\"characters\":[\"margin\"],\"note\":\"Voucher drawer 3\"}")
                        .status())
                .isEqualTo(200);
    }

    private String sheet() {
        return study + "/assignments/"
                + scorer.get(study + "/assignments").json().path(0).path("id").asLong();
    }

    private Visitor.Answer score(String row, String character, String text) {
        return scorer.put(
                sheet() + "/score",
                "{\"row\":\"" + row + "\",\"character\":\"" + character + "\",\"text\":\"" + text
                        + "\",\"doubtful\":false,\"note\":\"\",\"baseRevision\":0}");
    }

    @Test
    void aBlindScorerSeesNothingOfWhatOthersScored() {
        author.put(
                study + "/specimens",
                "{\"specimen\":{\"id\":\"\",\"code\":\"V 1\",\"note\":\"\",\"determinations\":[]},\"baseRevision\":0}");
        assertThat(author.get(study).json().path("specimens").size()).isEqualTo(1);
        assertThat(scorer.get(study).json().path("specimens").size()).isZero();
        assertThat(scorer.get(study).json().path("blind").asBoolean()).isTrue();
        JsonNode told = scorer.get(study).json();
        assertThat(told.path("progress").path("scored").asInt()
                        + told.path("progress").path("cells").asInt())
                .as("not how much others scored, either")
                .isZero();
        assertThat(told.path("counts").path("rows").valueStream().mapToInt(JsonNode::asInt))
                .containsOnly(0);
        assertThat(told.path("counts").path("characters").valueStream().mapToInt(JsonNode::asInt))
                .containsOnly(0);
        JsonNode column = scorer.get(study + "/columns?character=margin").json().path(0);
        assertThat(column.path("faces").size()).isZero();
        for (String path : new String[] {
            "/export?format=csv",
            "/findings",
            "/snapshots",
            "/agreement",
            "/agreement/cell?row=aa&character=margin",
            "/history?row=aa&character=margin",
            "/next-step",
            "/gate",
            "/export/losses?format=csv"
        }) {
            Visitor.Answer answer = scorer.get(study + path);
            assertThat(answer.status()).as(path).isEqualTo(403);
            assertThat(answer.json().path("detail").asString()).contains("blind");
        }
        assertThat(scorer.post(study + "/identify", "{\"answers\":[]}").status())
                .isNotEqualTo(200);
        assertThat(scorer.post(
                                study + "/scores",
                                "{\"edits\":[{\"row\":\"aa\",\"character\":\"margin\",\"text\":\"entire\",\"baseRevision\":9}]}")
                        .body())
                .doesNotContain("toothed");
        assertThat(author.get(study + "/columns?character=margin")
                        .json()
                        .path(0)
                        .path("faces")
                        .size())
                .as("others see the matrix as before")
                .isEqualTo(2);
        assertThat(score("aa", "width", "4").json().path("detail").asString()).contains("not among those");
        assertThat(score("aa", "margin", "toothy").json().path("code").asString())
                .isEqualTo("notation");
    }

    @Test
    void agreementIsMeasuredAndADisagreementSettledKeepingBoth() {
        score("aa", "margin", "toothed");
        score("bb", "margin", "entire");
        score("cc", "margin", "entire");
        assertThat(scorer.get(sheet()).json().path("scores").size()).isEqualTo(3);
        assertThat(author.cell(study, "cc", "margin").path("text").asString())
                .as("the accepted score stays")
                .isEqualTo("toothed");
        scorer.post(sheet() + "/finish", "{}");
        assertThat(score("aa", "margin", "entire").json().path("detail").asString())
                .contains("handed in");
        assertThat(scorer.get(study + "/export?format=csv").status()).isEqualTo(200);

        JsonNode margin = author.get(study + "/agreement").json().path(0);
        assertThat(margin.path("percent").asDouble()).isEqualTo(2 / 3.0);
        // Both agree on two of three; by chance (2·1 + 1·2) / 9 = 4/9: (6/9 − 4/9) / (5/9).
        assertThat(margin.path("kappa").asDouble()).isEqualTo(0.4, org.assertj.core.api.Assertions.within(1e-12));
        assertThat(margin.path("toSettle").toString()).isEqualTo("[\"cc\"]");

        JsonNode dispute =
                author.get(study + "/agreement/cell?row=cc&character=margin").json();
        assertThat(dispute.path("held").findValuesAsString("text")).containsExactly("toothed", "entire");
        String settle =
                "{\"row\":\"cc\",\"character\":\"margin\",\"text\":\"usually toothed, sometimes entire\",\"note\":\"both seen\",\"baseRevision\":"
                        + dispute.path("revision").asLong() + "}";
        assertThat(author.post(study + "/agreement/settle", settle).status()).isEqualTo(200);
        assertThat(author.cell(study, "cc", "margin").path("text").asString())
                .isEqualTo("usually toothed, sometimes entire");
        JsonNode after = author.get(study + "/agreement").json().path(0);
        assertThat(after.path("toSettle").size()).isZero();
        assertThat(after.path("percent").asDouble())
                .as("what was held is still what agreement is measured on")
                .isEqualTo(2 / 3.0);
        assertThat(author.get(study + "/agreement/cell?row=cc&character=margin")
                        .json()
                        .path("held")
                        .findValuesAsString("text"))
                .containsExactlyInAnyOrder("usually toothed, sometimes entire", "toothed", "entire");

        author.post(study + "/undo", "{}");
        assertThat(author.get(study + "/agreement")
                        .json()
                        .path(0)
                        .path("toSettle")
                        .size())
                .isEqualTo(1);
        assertThat(author.cell(study, "cc", "margin").path("text").asString()).isEqualTo("toothed");
    }

    @Test
    void onlyMembersWhoScoreAreGivenCellsOnce() {
        String give = "{\"scorer\":\"%s\",\"rows\":[],\"characters\":[],\"note\":\"\"}";
        assertThat(author.post(study + "/assignments", give.formatted("isolde"))
                        .json()
                        .path("detail")
                        .asString())
                .contains("cannot score blind");
        assertThat(author.post(study + "/assignments", give.formatted("oswin")).status())
                .isEqualTo(409);
        author.put(study + "/members", "{\"account\":\"petra\",\"role\":\"VIEWER\"}");
        assertThat(author.post(study + "/assignments", give.formatted("petra")).status())
                .isEqualTo(422);
        assertThat(scorer.post(study + "/assignments", give.formatted("oswin")).status())
                .isEqualTo(403);
        assertThat(Visitor.reader().get(sheet()).status()).isEqualTo(403);
        assertThat(author.get(sheet()).status())
                .as("authors do not look over the scorer's shoulder")
                .isEqualTo(404);
        assertThat(author.post(sheet() + "/finish", "{}").status()).isEqualTo(200);
        assertThat(scorer.get(study).json().path("blind").asBoolean()).isFalse();
    }

    /** Names of people may be alike; what somebody scored is told by the account. */
    @Test
    void twoScorersOfOneNameDoNotSeeEachOthersScores() {
        Visitor warden = Visitor.signedIn("warden", "meadow-warden");
        String name = "double-" + study.replaceAll("\\D", "");
        warden.post(
                "/api/v1/accounts",
                "{\"name\":\"" + name
                        + "\",\"displayName\":\"Oswin Brandreth\",\"password\":\"another-oswin\",\"administrator\":false}");
        author.put(study + "/members", "{\"account\":\"" + name + "\",\"role\":\"SCORER\"}");
        author.post(
                study + "/assignments",
                "{\"scorer\":\"" + name + "\",\"rows\":[],\"characters\":[\"margin\"],\"note\":\"\"}");
        score("aa", "margin", "toothed");
        Visitor other = Visitor.signedIn(name, "another-oswin");
        long id = other.get(study + "/assignments").json().path(0).path("id").asLong();
        JsonNode sheet = other.get(study + "/assignments/" + id).json();
        assertThat(sheet.path("scores").size()).isZero();
        assertThat(sheet.path("assignment").path("scored").asInt()).isZero();
        assertThat(scorer.get(study).json().path("revisions").toString()).doesNotContain("opinion/");
    }
}
