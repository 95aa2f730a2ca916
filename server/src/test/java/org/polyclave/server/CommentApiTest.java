package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Comments on cells: who may write them, who sees them, how they are settled. */
@ExtendWith(RunningApplication.class)
class CommentApiTest {
    private static final String TABLE = "taxon,margin\n#type,states\nAa,toothed\nBb,entire\n";

    private static String comment(String row, String text) {
        return "{\"row\":\"" + row + "\",\"character\":\"margin\",\"text\":\"" + text + "\"}";
    }

    @Test
    void membersTalkAboutACellAndSettleIt() {
        Visitor author = Visitor.author();
        String study = "/api/v1/studies/" + author.importTable("talk", TABLE);
        String comments = study + "/comments";
        author.put(study + "/members", "{\"account\":\"oswin\",\"role\":\"SCORER\"}");
        author.put(study + "/members", "{\"account\":\"petra\",\"role\":\"VIEWER\"}");
        Visitor scorer = Visitor.signedIn("oswin", "meadow-scorer");
        Visitor reader = Visitor.signedIn("petra", "meadow-reader");
        Visitor stranger = Visitor.signedIn("lark", "meadow-learner");

        assertThat(scorer.post(comments, comment("aa", "Is this the upper leaf?"))
                        .status())
                .isEqualTo(200);
        JsonNode all = author.post(comments, comment("aa", "The middle one.")).json();
        assertThat(all.size()).isEqualTo(2);
        assertThat(all.get(0).path("who").asString()).isEqualTo("Oswin Brandreth");
        assertThat(all.get(0).path("settledBy").asString("")).isEmpty();

        String settled = comments + "/" + all.get(0).path("id").asLong() + "/settled";
        assertThat(author.put(settled, "{\"settled\":true}")
                        .json()
                        .get(0)
                        .path("settledBy")
                        .asString())
                .isEqualTo("Isolde Quillane");
        assertThat(author.put(settled, "{\"settled\":false}")
                        .json()
                        .get(0)
                        .path("settledBy")
                        .asString(""))
                .isEmpty();

        assertThat(reader.get(comments).json().size()).isEqualTo(2);
        assertThat(reader.post(comments, comment("aa", "me too")).status()).isEqualTo(403);
        assertThat(stranger.get(comments).status()).isEqualTo(404);
        assertThat(author.post(comments, comment("aa", " ")).status()).isEqualTo(400);
        assertThat(author.post(comments, comment("zz", "where?")).status()).isEqualTo(400);
        assertThat(author.put(comments + "/999999/settled", "{\"settled\":true}")
                        .status())
                .isEqualTo(404);
    }

    @Test
    void whoScoresBlindSeesNoComment() {
        Visitor author = Visitor.author();
        String study = "/api/v1/studies/" + author.importTable("blind talk", TABLE);
        author.put(study + "/members", "{\"account\":\"oswin\",\"role\":\"SCORER\"}");
        author.post(study + "/comments", comment("aa", "toothed, surely"));
        author.post(study + "/assignments", "{\"scorer\":\"oswin\",\"rows\":[],\"characters\":[],\"note\":\"\"}");
        Visitor scorer = Visitor.signedIn("oswin", "meadow-scorer");
        assertThat(scorer.get(study + "/comments").status()).isEqualTo(403);
    }
}
