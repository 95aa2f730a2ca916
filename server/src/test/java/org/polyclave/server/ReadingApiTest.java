package org.polyclave.server;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.extension.ExtendWith;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ObjectNode;

@ExtendWith(RunningApplication.class)
final class ReadingApiTest {
    private static final byte[] DRAWING =
            "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 400 300' width='400' height='300'><circle r='3'/></svg>"
                    .getBytes(UTF_8);
    private static Visitor author;
    private static String study;

    @BeforeAll
    static void prepare() {
        author = Visitor.author();
        study = "/api/v1/studies/" + author.importTable("readings", """
                                taxon,#hazard,width,edge
                                #type,,length,states
                                #unit,,mm,
                                #states,,,toothed|entire
                                Aa,none known,,
                                Bb,none known,1–2,
                                """);
        IntStream.rangeClosed(1, 12).forEach(i -> specimen("V " + i, i <= 6 ? "aa" : "bb"));
    }

    private static void specimen(String code, String row) {
        Visitor.Answer answer = author.put(study + "/specimens", specimen("", code, row, "2021-05-04", 0));
        assertThat(answer.status()).as(answer.body()).isEqualTo(200);
    }

    private static String specimen(String id, String code, String row, String date, long baseRevision) {
        return "{\"specimen\":{\"id\":\"" + id + "\",\"code\":\"" + code + "\",\"note\":\"\",\"event\":{\"date\":\""
                + date
                + "\",\"place\":\"weir\"},\"determinations\":[{\"row\":\"" + row
                + "\",\"qualifier\":\"\",\"kind\":\"DETERMINED\",\"by\":\"Isolde\",\"date\":\"2021\",\"how\":\"\",\"characters\":[]}]},"
                + "\"baseRevision\":" + baseRevision + "}";
    }

    private static String typed(String specimen, String character, String typed) {
        return "{\"specimen\":\"" + specimen + "\",\"character\":\"" + character + "\",\"typed\":\"" + typed + "\"}";
    }

    private static Visitor.Answer add(String... readings) {
        return author.post(study + "/readings", "{\"readings\":[" + String.join(",", readings) + "]}");
    }

    private static JsonNode cell(String row, String character) {
        return author.get(study + "/readings/cells")
                .json()
                .valueStream()
                .filter(c -> c.path("row").asString().equals(row)
                        && c.path("character").asString().equals(character))
                .findFirst()
                .orElseThrow();
    }

    private static Visitor.Answer accept(String row, String character, String notation) {
        return author.post(
                study + "/readings/cells",
                "{\"cells\":[{\"row\":\"" + row + "\",\"character\":\"" + character + "\",\"notation\":\"" + notation
                        + "\"}]}");
    }

    private static void undo() {
        assertThat(author.post(study + "/undo", "{}").status()).isEqualTo(200);
    }

    @Test
    void readingsBecomeACellThatIsOutOfDateWithTheNextNameOrReading() {
        String six = IntStream.rangeClosed(1, 6)
                .mapToObj(i -> typed("v-" + i, "width", i == 6 ? "1/4 in" : "5." + i))
                .collect(Collectors.joining(","));
        assertThat(add(six).status()).isEqualTo(200);
        JsonNode cell = cell("aa", "width");
        assertThat(cell.path("proposed").asString()).isEqualTo("5.1–6.4");
        assertThat(cell.path("standing").asString()).isEqualTo("EMPTY");
        assertThat(accept("aa", "width", "4–9").status())
                .as("not what was shown")
                .isEqualTo(409);
        assertThat(accept("aa", "width", "5.1–6.4").status()).isEqualTo(200);
        JsonNode score = author.cell(study, "aa", "width");
        assertThat(score.path("text").asString()).isEqualTo("5.1–6.4");
        assertThat(score.path("basis").asString()).isEqualTo("SPECIMENS");
        assertThat(score.path("sample").path("specimens").size()).isEqualTo(6);
        assertThat(cell("aa", "width").path("standing").asString()).isEqualTo("MADE_OF_THESE");

        assertThat(add(typed("v-1", "width", "4.8")).status()).isEqualTo(200);
        assertThat(cell("aa", "width").path("standing").asString()).isEqualTo("OUT_OF_DATE");
        undo();
        assertThat(cell("aa", "width").path("standing").asString()).isEqualTo("MADE_OF_THESE");
        long baseRevision =
                author.get(study).json().path("revisions").path("specimen/v-6").asLong();
        assertThat(author.put(study + "/specimens", specimen("v-6", "V 6", "bb", "2021-05-04", baseRevision))
                        .status())
                .isEqualTo(200);
        assertThat(cell("aa", "width").path("standing").asString()).isEqualTo("OUT_OF_DATE");
        assertThat(author.get(study + "/readings/of-specimen/v-6")
                        .json()
                        .path("row")
                        .asString())
                .as("the readings go along")
                .isEqualTo("bb");
        undo();

        // All of it comes through a study file, and what was made of readings still is.
        String file = author.get(study + "/export?format=json").body();
        String copy = Importing.of(author, "copy.polyclave.json", file).create();
        JsonNode cells =
                author.get("/api/v1/studies/" + copy + "/readings/cells").json();
        assertThat(cells.valueStream().filter(c -> c.path("row").asString().equals("aa")))
                .allSatisfy(c -> assertThat(c.path("standing").asString()).isEqualTo("MADE_OF_THESE"));
        assertThat(cells.size()).isPositive();
    }

    @Test
    void ofManyReadingsAllAreTakenOrNoneAndEachSaysWhy() {
        Visitor.Answer answer = add(
                typed("v-7", "width", "3"),
                typed("v-7", "width", "wide"),
                typed("gone", "width", "3"),
                typed("v-7", "width", "-2 mm"),
                typed("v-7", "width", "3 g"),
                typed("v-7", "edge", "lobed"),
                typed("v-7", "gone", "3"));
        assertThat(answer.status()).isEqualTo(422);
        List<Integer> places = answer.json()
                .path("rejections")
                .valueStream()
                .map(r -> r.path("index").asInt())
                .toList();
        assertThat(places).containsExactly(1, 2, 3, 4, 5, 6);
        assertThat(author.get(study + "/readings/of-specimen/v-7")
                        .json()
                        .path("readings")
                        .size())
                .isZero();
        assertThat(author.put(study + "/specimens", specimen("", "V 99", "aa", "2999-01-01", 0))
                        .json()
                        .path("detail")
                        .asString())
                .contains("still to come");
        Visitor.Answer table = Importing.of(author, "s.csv", "specimen,taxon,place,date\nV 98,Aa,weir,2999\n")
                .into(study)
                .ask("PREVIEW");
        assertThat(table.body()).contains("still to come");
        assertThat(Visitor.reader().get(study + "/readings/cells").status()).isEqualTo(404);
    }

    @Test
    void aMarkFollowsTheScaleOfItsPicture() {
        String id = author.upload(study + "/pictures", "x.svg", DRAWING, Map.of("shows", "V 8", "specimen", "v-8"))
                .json()
                .path("id")
                .asString();
        String mark = "{\"specimen\":\"v-8\",\"character\":\"width\",\"mark\":{\"picture\":\"" + id
                + "\",\"shape\":\"LINE\",\"parts\":[[{\"x\":10,\"y\":10},{\"x\":110,\"y\":10}]]}}";
        assertThat(add(mark).json().path("detail").asString()).contains("no scale yet");
        assertThat(scale(id, "1").json().path("detail").asString()).contains("with its unit");
        assertThat(scale(id, "2 mm").status()).isEqualTo(200);
        String reading = add(mark).json().path("id").asString();
        assertThat(reading(reading).path("value").asDouble()).isEqualTo(1.0);
        assertThat(scale(id, "4 mm").status()).isEqualTo(200);
        JsonNode now = reading(reading);
        assertThat(now.path("value").asDouble()).isEqualTo(2.0);
        // 200 pixels are 4 mm to a relative 1.4 pixels of 200, and 1.4 pixels of 0.02 mm; the tilt of 5 degrees is
        // small.
        assertThat(now.path("uncertainty").asDouble()).isBetween(0.031, 0.033);
        undo();
        assertThat(reading(reading).path("value").asDouble()).isEqualTo(1.0);
        long baseRevision =
                author.get(study).json().path("revisions").path("specimen/v-8").asLong();
        assertThat(author.delete(study + "/specimens/v-8?baseRevision=" + baseRevision)
                        .json()
                        .path("detail")
                        .asString())
                .contains("v-8");
    }

    private static JsonNode reading(String id) {
        return author.get(study + "/readings/of-specimen/v-8")
                .json()
                .path("readings")
                .valueStream()
                .map(k -> k.path("reading"))
                .filter(r -> r.path("id").asString().equals(id))
                .findFirst()
                .orElseThrow();
    }

    private static Visitor.Answer scale(String id, String length) {
        JsonNode view = author.get(study).json();
        ObjectNode picture = view.path("pictures")
                .valueStream()
                .filter(p -> p.path("id").asString().equals(id))
                .map(p -> (ObjectNode) p.deepCopy())
                .findFirst()
                .orElseThrow();
        ObjectNode scale = picture.putObject("scale");
        scale.putObject("from").put("x", 0).put("y", 0);
        scale.putObject("to").put("x", 200).put("y", 0);
        scale.put("length", length).put("tilt", 5);
        long baseRevision = view.path("revisions").path("picture/" + id).asLong();
        return author.put(study + "/pictures", "{\"picture\":" + picture + ",\"baseRevision\":" + baseRevision + "}");
    }

    @Test
    void aTableOfReadingsIsPreviewedAndTakenAsOneChange() {
        String table = """
                specimen,item,width (cm),edge,colour
                V 11,leaf 1,0.31,toothed,red
                V 11,leaf 2,0.29,,red
                V 12,,1/8 in,entire,
                V 77,,0.3,,
                """;
        JsonNode preview =
                author.upload(study + "/readings/table/preview", "r.csv", table).json();
        assertThat(preview.path("readings").asInt()).isEqualTo(5);
        assertThat(preview.path("specimens").asInt()).isEqualTo(2);
        assertThat(preview.path("unknownSpecimens").path(0).asString()).isEqualTo("V 77");
        assertThat(preview.path("unknownCharacters").path(0).asString()).isEqualTo("colour");
        Visitor.Answer wrong = author.upload(study + "/readings/table", "r.csv", table.replace("0.29", "narrow"));
        assertThat(wrong.status()).isEqualTo(422);
        assertThat(wrong.json().path("detail").asString()).contains("Row 3").contains("narrow");
        assertThat(author.upload(study + "/readings/table", "r.csv", table).status())
                .isEqualTo(200);
        JsonNode taken = author.get(study + "/readings/of-specimen/v-11").json().path("readings");
        assertThat(taken.valueStream().map(k -> k.path("reading").path("typed").asString()))
                .containsExactlyInAnyOrder("0.31 cm", "0.29 cm", "toothed");
        undo();
        assertThat(author.get(study + "/readings/of-specimen/v-11")
                        .json()
                        .path("readings")
                        .size())
                .isZero();
    }

    @Test
    void aThresholdSaysWhereNotToDecide() {
        add(typed("v-9", "edge", "entire"), typed("v-10", "edge", "toothed"));
        String slug = "/api/v1/studies/" + author.importTable("cut", """
                                taxon,width
                                #type,length
                                #unit,cm
                                Aa,
                                Bb,
                                """);
        for (int i = 1; i <= 12; i++) {
            author.put(slug + "/specimens", specimen("", "V " + i, i <= 6 ? "aa" : "bb", "2021-05-0" + (i % 3 + 1), 0));
        }
        String all = IntStream.rangeClosed(1, 12)
                .mapToObj(i -> typed("v-" + i, "width", (i <= 6 ? 1 + i / 10.0 : 1.4 + i / 10.0) + " cm"))
                .collect(Collectors.joining(","));
        assertThat(author.post(slug + "/readings", "{\"readings\":[" + all + "]}")
                        .status())
                .isEqualTo(200);
        JsonNode threshold = author.get(slug + "/readings/of-character/width/threshold?first=bb&second=aa")
                .json();
        assertThat(threshold.path("lower").asString()).isEqualTo("aa");
        assertThat(threshold.path("cut").asDouble()).isBetween(1.6, 2.1);
        assertThat(threshold.path("doubtLow").asDouble())
                .isLessThan(threshold.path("cut").asDouble());
        assertThat(threshold.path("n").asInt()).isEqualTo(12);
        assertThat(author.get(slug + "/readings/of-character/width/threshold?first=bb&second=gone")
                        .status())
                .isEqualTo(204);
    }

    @Test
    void simulatedInstrumentsSendReadingsAndFrames() {
        assertThat(author.get("/api/v1/instruments").body()).contains("caliper", "camera");
        String reading = author.firstEvent("/api/v1/instruments/caliper?around=40");
        assertThat(Double.parseDouble(reading.replace(" mm", ""))).isBetween(25.0, 60.0);
        byte[] frame =
                Base64.getDecoder().decode(author.firstEvent("/api/v1/instruments/camera?magnification=40&slide=3"));
        assertThat(frame).startsWith(0xff, 0xd8);
        assertThat(author.get("/api/v1/instruments/camera?magnification=7").status())
                .isEqualTo(400);
    }

    /** A member sees on the map where a protected plant was found; a label does not tell it. */
    @Test
    void labelsDoNotTellThePlaceOfAProtectedTaxon() {
        String slug = "/api/v1/studies/" + author.importTable("guarded", "taxon,edge\nAa,toothed\nBb,toothed\n");
        ObjectNode row =
                (ObjectNode) author.get(slug).json().path("rows").path(0).deepCopy();
        row.putArray("status").add("protected");
        assertThat(author.put(slug + "/rows/aa", "{\"row\":" + row + ",\"baseRevision\":0}")
                        .status())
                .isEqualTo(200);
        for (String of : List.of("aa", "bb")) {
            author.put(
                    slug + "/specimens",
                    specimen("", "V " + of, of, "2021-05-04", 0)
                            .replace("\"place\":\"weir\"", "\"place\":\"weir\",\"coordinates\":\"47.31, -33.2\""));
        }
        JsonNode labels = author.get(slug + "/specimens/labels").json();
        assertThat(labels.valueStream()
                        .map(s -> s.path("specimen").path("event").path("place").asString()))
                .containsExactly("", "weir");
        assertThat(labels.path(0).path("collecting").toString())
                .doesNotContain("weir")
                .doesNotContain("47.31");
        assertThat(labels.path(1).path("collecting").path("lines").path(1).asString())
                .isEqualTo("47.31, -33.2");
        Visitor.Answer sheet = author.post(
                slug + "/specimens/labels/sheet",
                "{\"specimens\":[\"v-bb\",\"v-aa\",\"gone\"],\"collecting\":true,\"size\":\"BOX\"}");
        assertThat(sheet.status()).isEqualTo(200);
        assertThat(sheet.body()).startsWith("%PDF-");
        JsonNode places = author.get(slug + "/specimens/places").json();
        assertThat(places.size()).isEqualTo(2);
        assertThat(places.path(0).path("longitude").asDouble()).isEqualTo(-33.2);
    }
}
