package org.polyclave.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;

/** Telling apart over HTTP: what is in the hand stands in the query. */
@ExtendWith(RunningApplication.class)
class ApartApiTest {
    private static final String DEMO = "/api/v1/studies/marrowmere-tussocks/apart";
    private static final String TWINS = "rows=tarnella-praecox&rows=tarnella-serotina";

    private static List<String> strings(JsonNode array) {
        List<String> strings = new ArrayList<>();
        array.forEach(n -> strings.add(n.asString()));
        return strings;
    }

    /** Standing of a pair on the map. */
    private static char sign(JsonNode map, String first, String second) {
        List<String> rows = strings(map.path("rows"));
        int a = rows.indexOf(first);
        int b = rows.indexOf(second);
        return map.path("verdicts").get(Math.max(a, b)).asString().charAt(Math.min(a, b));
    }

    @Test
    void theMapFollowsWhatIsInTheHand() {
        Visitor reader = Visitor.reader();
        JsonNode all = reader.get(DEMO + "/map").json();
        JsonNode january = reader.get(DEMO + "/map?months=1").json();
        assertThat(sign(all, "tarnella-praecox", "tarnella-serotina")).isEqualTo('3');
        assertThat(sign(january, "tarnella-praecox", "tarnella-serotina")).isEqualTo('0');
        assertThat(sign(all, "brimora-dioica-male", "brimora-dioica-female")).isEqualTo('-');
        assertThat(january.path("totals").path("none").asInt())
                .isGreaterThan(all.path("totals").path("none").asInt());
        assertThat(all.path("similar").size())
                .isEqualTo(22)
                .isEqualTo(all.path("rows").size());
        JsonNode females = reader.get(DEMO + "/map?stages=female").json();
        assertThat(strings(females.path("rows")))
                .contains("brimora-dioica-female", "tarnella-nana")
                .doesNotContain("brimora-dioica-male");
        assertThat(females.path("similar").size())
                .isEqualTo(females.path("rows").size());
    }

    @Test
    void aCardSaysWhatItTakesAndCanBePrinted() {
        Visitor reader = Visitor.reader();
        JsonNode card = reader.get(DEMO + "/card?months=1&" + TWINS).json();
        assertThat(card.path("pairs").get(0).path("verdict").asString()).isEqualTo("NONE");
        assertThat(card.path("pairs").get(0).path("settles").asString()).contains("Jul–Oct");
        assertThat(card.path("later").get(0).path("lack").asString()).isEqualTo("SEASON");
        Visitor.Answer plate = reader.get(DEMO + "/card/print?" + TWINS);
        assertThat(plate.response().headers().firstValue("content-type")).hasValue("application/pdf");
        assertThat(plate.body()).startsWith("%PDF");
        assertThat(reader.get(DEMO + "/card/print?wallet=true&" + TWINS).body()).startsWith("%PDF");
        String table = reader.get(DEMO + "/pairs?months=1").body();
        assertThat(table.lines().findFirst()).hasValue("first,second,verdict,separating");
        assertThat(table).contains("none").doesNotContain(",firm,");
        assertThat(reader.get(DEMO + "/pairs?months=1&all=true").body()).contains(",firm,");
    }

    @ParameterizedTest
    @CsvSource({
        "/map?months=13, 400",
        "/map?months=May, 400",
        "/map?observer=EXPERT, 400",
        "/card?rows=tarnella-nana, 400",
        "/card?rows=tarnella-nana&rows=nobody, 400",
        "/recognitions?rows=nobody, 400"
    })
    void whatCannotBeAskedIsRefused(String address, int status) {
        assertThat(Visitor.reader().get(DEMO + address).status()).isEqualTo(status);
    }

    @Test
    void toOthersTheStudyDoesNotExist() {
        String own =
                Visitor.author().importTable("apart of one", "taxon,#hazard,a\nAa,none known,x\nBb,none known,y\n");
        for (String path : List.of("/map", "/pairs", "/card?rows=aa&rows=bb", "/calendar", "/next-cells")) {
            assertThat(Visitor.scorer()
                            .get("/api/v1/studies/" + own + "/apart" + path)
                            .status())
                    .as(path)
                    .isEqualTo(404);
            assertThat(Visitor.author()
                            .get("/api/v1/studies/" + own + "/apart" + path)
                            .status())
                    .as(path)
                    .isEqualTo(200);
        }
    }

    @Test
    void theBestCellIsNamedAndWhatItsScoreDidIsCounted() {
        Visitor author = Visitor.author();
        String slug = author.importTable(
                "apart next",
                "taxon,#hazard,a,b,c\n#organ,,leaf,stem,root\nAa,none known,x,x,x\nBb,none known,x,?,x\nCc,none known,y,y,y\n");
        String apart = "/api/v1/studies/" + slug + "/apart";
        JsonNode before = author.get(apart + "/next-cells").json();
        assertThat(before.path("cells").size()).isEqualTo(1);
        JsonNode cell = before.path("cells").get(0);
        assertThat(cell.path("row").asString() + " " + cell.path("character").asString())
                .isEqualTo("bb b");
        // Of the two scores so far one would tell Bb from Aa.
        assertThat(cell.path("pairs").asDouble()).isEqualTo(0.5);
        assertThat(before.path("missing").path("bb").asInt()).isEqualTo(2);
        assertThat(author.get("/api/v1/studies/" + slug + "/next-step")
                        .json()
                        .path("rows")
                        .toString())
                .isEqualTo("[\"aa\",\"bb\"]");
        author.post(
                "/api/v1/studies/" + slug + "/scores",
                "{\"edits\":[{\"row\":\"bb\",\"character\":\"b\",\"text\":\"y\",\"baseRevision\":0}]}");
        JsonNode after = author.get(apart + "/next-cells").json();
        assertThat(after.path("cells").size()).isZero();
        assertThat(after.path("totals").path("thin").asInt()).isEqualTo(1);
        assertThat(after.path("totals").path("none").asInt()).isZero();
    }

    /** After edits only their rows are worked out again; conditions that were not asked for before are computed from the start. */
    @Test
    void theMapAfterEditsIsAsIfWorkedOutAnew() {
        Visitor author = Visitor.author();
        String slug = author.importTable(
                "apart edited",
                "taxon,a,b,c\n#organ,leaf,stem,root\nAa,x,x,x\nBb,x,y,x\nCc,y,y,y\nDd,y,x,y\nEe,x,y,y\n");
        String study = "/api/v1/studies/" + slug;
        JsonNode before = author.get(study + "/apart/map").json();
        List<String> edits = List.of("aa b y", "bb c ?", "dd a x", "dd b y", "cc a x");
        for (int i = 0; i < edits.size(); i++) {
            String[] edit = edits.get(i).split(" ");
            author.post(
                    study + "/scores",
                    "{\"edits\":[{\"row\":\"%s\",\"character\":\"%s\",\"text\":\"%s\",\"baseRevision\":0}]}"
                            .formatted((Object[]) edit));
            JsonNode kept = author.get(study + "/apart/map").json();
            JsonNode anew = author.get(study + "/apart/map?organs=leaf&organs=stem&organs=root&stages=s" + i)
                    .json();
            for (String part : List.of("rows", "verdicts", "totals", "groups")) {
                assertThat(kept.path(part)).as(edits.get(i) + ": " + part).isEqualTo(anew.path(part));
            }
        }
        assertThat(author.get(study + "/apart/map").json().path("verdicts")).isNotEqualTo(before.path("verdicts"));
    }

    @Test
    void aTaxonIsRecognisedInASentence() {
        JsonNode found = Visitor.reader()
                .get(DEMO + "/recognitions?rows=tarnella-nana&months=1&methods=eye")
                .json()
                .get(0);
        assertThat(found.path("sentence").asString())
                .startsWith("Recognise Tarnella nana in Jan with the naked eye by all of these together: ");
        assertThat(found.path("completion").asString()).isEqualTo("OPTIMAL");
        assertThat(found.path("cost").asDouble()).isEqualTo(found.path("bound").asDouble());
    }
}
