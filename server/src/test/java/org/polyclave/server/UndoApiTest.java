package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

/** Undo over HTTP, while others work on the same study. */
@ExtendWith(RunningApplication.class)
final class UndoApiTest {
    private Visitor author = Visitor.anonymous();
    private Visitor scorer = Visitor.anonymous();
    private String study = "";

    @BeforeEach
    void giveCells() {
        author = Visitor.author();
        scorer = Visitor.scorer();
        study = "/api/v1/studies/" + author.importTable("undone", """
                        taxon,#hazard,margin,width
                        #type,,states,length
                        #states,,entire|toothed,
                        Aa,none known,toothed,5–9
                        Bb,none known,entire,3–4
                        """);
        author.put(study + "/members", "{\"account\":\"oswin\",\"role\":\"SCORER\"}");
    }

    /** Writes cells, each as row, character and text, as one change. */
    private Visitor.Answer write(Visitor who, String... cells) {
        StringBuilder edits = new StringBuilder();
        for (int k = 0; k < cells.length; k += 3) {
            long base = who.cell(study, cells[k], cells[k + 1]).path("revision").asLong();
            edits.append(edits.isEmpty() ? "" : ",")
                    .append("{\"row\":\"%s\",\"character\":\"%s\",\"text\":\"%s\",\"baseRevision\":%d}"
                            .formatted(cells[k], cells[k + 1], cells[k + 2], base));
        }
        Visitor.Answer answer = who.post(study + "/scores", "{\"edits\":[" + edits + "]}");
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
        return answer;
    }

    private String text(String row, String character) {
        return author.cell(study, row, character).path("text").asString();
    }

    @Test
    void whatOthersChangedSinceIsSteppedOverAndNamedAndNobodyIsStuck() {
        write(author, "aa", "width", "6–8");
        write(author, "bb", "margin", "toothed", "bb", "width", "2–3");
        write(scorer, "bb", "margin", "entire");

        JsonNode first = author.post(study + "/undo", "{}").json();
        assertThat(text("bb", "width")).isEqualTo("3–4");
        assertThat(text("bb", "margin")).as("somebody else's").isEqualTo("entire");
        assertThat(first.path("passed").path(0).path("name").asString()).isEqualTo("Bb × margin");
        assertThat(first.path("passed").path(0).path("who").asString()).startsWith("Oswin");
        assertThat(first.path("done").path(0).path("name").asString()).isEqualTo("Bb × width");

        write(author, "aa", "margin", "entire");
        write(scorer, "aa", "margin", "toothed");
        JsonNode second = author.post(study + "/undo", "{}").json();
        assertThat(second.path("passed").path(0).path("name").asString()).isEqualTo("Aa × margin");
        assertThat(text("aa", "width")).as("the change before it").isEqualTo("5–9");
        assertThat(text("aa", "margin")).isEqualTo("toothed");

        JsonNode again = author.post(study + "/redo", "{}").json();
        assertThat(again.path("done").path(0).path("name").asString()).isEqualTo("Aa × width");
        assertThat(text("aa", "width")).isEqualTo("6–8");
    }

    @Test
    void aTaxonInWhichOthersScoredStays() {
        ObjectNode row = (ObjectNode) author.get(study).json().path("rows").path(1);
        row.put("id", "").put("label", "Cc");
        assertThat(author.post(study + "/rows", "{\"row\":" + row + ",\"baseRevision\":0}")
                        .status())
                .isEqualTo(201);
        write(scorer, "cc", "margin", "toothed");
        JsonNode undone = author.post(study + "/undo", "{}").json();
        assertThat(undone.path("done").size()).isZero();
        assertThat(undone.path("passed").path(0).path("name").asString()).isEqualTo("Cc");
        assertThat(text("cc", "margin")).as("what somebody scored").isEqualTo("toothed");
        assertThat(author.post(study + "/undo", "{}").json().path("code").asString())
                .isEqualTo("nothing-to-undo");
        assertThat(scorer.post(study + "/undo", "{}").status()).isEqualTo(200);
        assertThat(text("cc", "margin")).isEmpty();
    }

    @Test
    void whatCanBeUndoneIsListedInWords() {
        assertThat(author.get(study + "/undo").json().path("undo").size()).isZero();
        write(author, "aa", "width", "6–8", "bb", "width", "2–3");
        write(author, "aa", "margin", "");
        JsonNode undo = author.get(study + "/undo").json().path("undo");
        assertThat(undo.size()).isEqualTo(2);
        assertThat(undo.path(0).path("done").toString())
                .isEqualTo("[{\"kind\":\"CELL\",\"how\":\"REMOVED\",\"count\":1,\"name\":\"Aa × margin\"}]");
        assertThat(undo.path(1).path("done").path(0).path("count").asInt()).isEqualTo(2);
        author.post(study + "/undo", "{}");
        JsonNode lists = author.get(study + "/undo").json();
        assertThat(lists.path("undo").size()).isEqualTo(1);
        assertThat(lists.path("redo").path(0).path("done").path(0).path("name").asString())
                .isEqualTo("Aa × margin");
        assertThat(scorer.get(study + "/undo").json().path("undo").size())
                .as("each undoes their own")
                .isZero();
    }
}
