package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;

/** Keys of the demo study over HTTP: wishes in the address, reasons, files. */
@ExtendWith(RunningApplication.class)
class KeyApiTest {
    private static final String KEY = "/api/studies/marrowmere-tussocks/key";

    private static List<String> asked(JsonNode key) {
        List<String> asked = new ArrayList<>();
        key.path("couplets").forEach(c -> asked.add(c.path("character").asString()));
        return asked;
    }

    @Test
    void everyObjectiveGivesAProvenKeyOfAllTaxa() {
        Visitor reader = Visitor.reader();
        for (String objective : List.of("FEWEST", "CAUTIOUS", "RELATIVES", "EQUIPMENT", "BEGINNER")) {
            JsonNode figures =
                    reader.get(KEY + "?objective=" + objective).json().path("figures");
            assertThat(figures.path("proven").asBoolean()).as(objective).isTrue();
            assertThat(figures.path("rows").asInt()).isEqualTo(22);
            assertThat(figures.path("expectedSteps").asDouble())
                    .isGreaterThanOrEqualTo(figures.path("entropyBound").asDouble());
        }
    }

    @Test
    void aForbiddenCharacterIsNotAskedAndACoupletTellsItsReasons() {
        Visitor reader = Visitor.reader();
        JsonNode key = reader.get(KEY).json();
        String first = asked(key).get(0);
        JsonNode couplet = key.path("couplets").get(0);
        assertThat(couplet.path("rows").size()).isEqualTo(22);
        assertThat(couplet.path("gain").asDouble()).isBetween(0.3, 1.0);
        assertThat(couplet.path("alternatives").size()).isPositive();
        assertThat(couplet.path("alternatives").toString()).doesNotContain("\"character\":\"" + first + "\"");
        assertThat(asked(reader.get(KEY + "?forbidden=" + first).json())).doesNotContain(first);
    }

    @Test
    void aWinterKeyAsksNothingThatIsGoneInWinter() {
        JsonNode winter = Visitor.reader().get(KEY + "?months=1").json();
        assertThat(asked(winter)).doesNotContain("flower-head", "fruit-colour", "leaf-colour", "plant-height");
        assertThat(winter.path("figures").path("proven").asBoolean()).isTrue();
        JsonNode leaves =
                Visitor.reader().get(KEY + "?organs=leaf,sheath&methods=ruler").json();
        assertThat(asked(leaves))
                .allMatch(c -> c.startsWith("leaf-") || c.startsWith("sheath-"))
                .doesNotContain("leaf-margin");
    }

    @Test
    void keysAreSavedInEachForm() {
        Visitor reader = Visitor.reader();
        for (String format : List.of("text", "markdown", "json", "html")) {
            Visitor.Answer file = reader.get(KEY + "/file?format=" + format);
            assertThat(file.status()).isEqualTo(200);
            assertThat(file.response()
                            .headers()
                            .firstValue("Content-Disposition")
                            .orElse(""))
                    .contains("marrowmere-tussocks-key.");
            assertThat(file.body()).contains(format.equals("json") ? "ostrivia-fallax-flowering" : "Ostrivia fallax");
        }
        assertThat(reader.get(KEY + "/file?format=pdf").status()).isEqualTo(400);
    }

    @Test
    void theNextBestStepIsComputed() {
        Visitor author = Visitor.author();
        JsonNode demo = author.get("/api/studies/marrowmere-tussocks").json().path("nextStep");
        assertThat(demo.path("code").asString()).isEqualTo("assess-hazards");
        assertThat(demo.path("subject").asString()).isEqualTo("Tarnella obscura");
        String alike = author.importTable(
                "alike", "taxon,#hazard,a,b\nAa,none known,x,x\nBb,none known,x,x\nCc,none known,y,y\n");
        JsonNode parting = author.get("/api/studies/" + alike).json().path("nextStep");
        assertThat(parting.path("code").asString()).isEqualTo("part-pairs");
        assertThat(parting.path("subject").asString()).isEqualTo("Aa / Bb");
        String ready = author.importTable("ready", "taxon,#hazard,a,b\nAa,none known,x,x\nBb,none known,y,y\n");
        assertThat(author.get("/api/studies/" + ready)
                        .json()
                        .path("nextStep")
                        .path("code")
                        .asString())
                .isEqualTo("publish");
    }
}
