package org.polyclave.study.compile;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.identify.AnyOrderIdentifier;
import org.polyclave.core.identify.IdentifyOptions;
import org.polyclave.core.key.KeyGenerator;
import org.polyclave.core.key.KeyOptions;
import org.polyclave.core.key.KeyOutcome;
import org.polyclave.core.key.KeyResult;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.run.CancelSignal;
import org.polyclave.files.convert.MatrixFiles;
import org.polyclave.files.table.TableReader;
import org.polyclave.files.table.TableWriter;
import org.polyclave.print.key.KeyRenderer;
import org.polyclave.study.checks.StudyCheck;
import org.polyclave.study.checks.StudyFinding;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.wording.key.KeyWording;

/** Which rows are named, and what they are called: nothing that is scored vanishes. */
class TargetsTest {
    private static Study study(String lines) {
        String table = "taxon,#rank,#parent,#stage,#hazard,#covers,edge,stem\n"
                + "#states,,,,,,smooth|toothed|lobed,hollow|solid\n"
                + lines;
        return TableReader.read(table.getBytes(StandardCharsets.UTF_8), "t.csv").study();
    }

    private static CompiledStudy compiled(String lines) {
        return StudyCompiler.compile(study(lines));
    }

    private static KeyResult key(CompiledStudy compiled) {
        return ((KeyOutcome.Generated) new KeyGenerator()
                        .generate(compiled.matrix(), KeyOptions.DEFAULT.withNodeBudget(400), CancelSignal.NEVER))
                .result();
    }

    /** Lines of a table; the names of its targets. */
    static Stream<Arguments> families() {
        return Stream.of(
                Arguments.of(
                        "a variety beside its species",
                        """
                        Helica dumosa,species,,,,,smooth,hollow
                        Helica dumosa var. alta,variety,Helica dumosa,,,,toothed,
                        """,
                        List.of("Helica dumosa var. dumosa", "Helica dumosa var. alta")),
                Arguments.of(
                        "its autonym covers it", """
                        Helica dumosa,species,,,,,smooth,hollow
                        Helica dumosa var. alta,variety,Helica dumosa,,,,toothed,
                        Helica dumosa var. dumosa,variety,Helica dumosa,,,,,
                        """, List.of("Helica dumosa var. alta", "Helica dumosa var. dumosa")),
                Arguments.of(
                        "zoologists write no word of rank",
                        """
                        Novus involutus,species,,,,,smooth,hollow
                        Novus involutus maior,subspecies,Novus involutus,,,,toothed,
                        """,
                        List.of("Novus involutus involutus", "Novus involutus maior")),
                Arguments.of(
                        "a nominotypical subspecies",
                        """
                        Novus involutus,species,,,,,smooth,hollow
                        Novus involutus maior,subspecies,Novus involutus,,,,toothed,
                        Novus involutus involutus,subspecies,Novus involutus,,,,,solid
                        """,
                        List.of("Novus involutus maior", "Novus involutus involutus")),
                Arguments.of(
                        "a cultivar has no autonym",
                        """
                        Helica dumosa,species,,,,,smooth,hollow
                        Helica dumosa 'Goldie',cultivar,Helica dumosa,,,,toothed,
                        """,
                        List.of("Helica dumosa, other than 'Goldie'", "Helica dumosa 'Goldie'")),
                Arguments.of(
                        "one juvenile", """
                        Helica dumosa,species,,,,,smooth,hollow
                        Helica dumosa,,,juvenile,,,toothed,
                        """, List.of("Helica dumosa, other than juvenile", "Helica dumosa, juvenile")),
                Arguments.of(
                        "one seedling", """
                        Helica dumosa,species,,,,,smooth,hollow
                        Helica dumosa,,,seedling,,,toothed,
                        """, List.of("Helica dumosa, other than seedling", "Helica dumosa, seedling")),
                Arguments.of(
                        "both sexes, where there are no life stages",
                        """
                        Helica dumosa,species,,,,,smooth,hollow
                        Helica dumosa,,,male,,,toothed,
                        Helica dumosa,,,female,,,,solid
                        """,
                        List.of("Helica dumosa, male", "Helica dumosa, female")),
                Arguments.of(
                        "both sexes are not juveniles",
                        """
                        Helica dumosa,species,,,,,smooth,hollow
                        Helica dumosa,,,male,,,toothed,
                        Helica dumosa,,,female,,,,solid
                        Helica alta,,,juvenile,,,lobed,
                        """,
                        List.of(
                                "Helica dumosa, other than male and female",
                                "Helica dumosa, male",
                                "Helica dumosa, female",
                                "Helica alta, juvenile")),
                Arguments.of(
                        "sexes and juveniles are all there is",
                        """
                        Helica dumosa,species,,,,,smooth,hollow
                        Helica dumosa,,,♂,,,toothed,
                        Helica dumosa,,,females,,,,solid
                        Helica dumosa,,,young,,,lobed,
                        """.replace("♂", "males"),
                        List.of("Helica dumosa, males", "Helica dumosa, females", "Helica dumosa, young")),
                Arguments.of("a genus passes its scores on", """
                        Helica,genus,,,,,smooth,
                        Helica dumosa,species,Helica,,,,,hollow
                        """, List.of("Helica dumosa")),
                Arguments.of(
                        "unless it stands for other species, too",
                        """
                        Helica,genus,,,,not all,smooth,
                        Helica dumosa,species,Helica,,,,,hollow
                        """,
                        List.of("Helica, other species", "Helica dumosa")),
                Arguments.of("an aggregate is covered, too", """
                        Helica dumosa agg.,aggregate,,,,,smooth,
                        Helica dumosa,species,Helica dumosa agg.,,,,,hollow
                        """, List.of("Helica dumosa")),
                Arguments.of(
                        "these are all there is", """
                        Helica dumosa,species,,,,all,smooth,hollow
                        Helica dumosa var. alta,variety,Helica dumosa,,,,toothed,
                        Helica dumosa var. parva,variety,Helica dumosa,,,,lobed,
                        """, List.of("Helica dumosa var. alta", "Helica dumosa var. parva")),
                Arguments.of("a child that shows nothing of its own is folded in", """
                        Helica dumosa,species,,,,,smooth,hollow
                        Helica dumosa,,,juvenile,,,smooth,?
                        """, List.of("Helica dumosa")),
                Arguments.of(
                        "a species without scores, one stage of which is scored",
                        """
                        Helica dumosa,species,,,,,,
                        Helica dumosa,,,juvenile,,,smooth,
                        """,
                        List.of("Helica dumosa, juvenile")),
                Arguments.of(
                        "children of a child",
                        """
                        Helica dumosa,species,,,,,smooth,hollow
                        Helica dumosa var. alta,variety,Helica dumosa,,,,toothed,
                        Helica dumosa var. alta,,,seedling,,,,solid
                        """,
                        List.of(
                                "Helica dumosa var. dumosa",
                                "Helica dumosa var. alta, other than seedling",
                                "Helica dumosa var. alta, seedling")),
                Arguments.of("a typed unknown is not a score", """
                        Helica dumosa,species,,,,,smooth,hollow
                        Helica alta,species,,,,,?,?
                        """, List.of("Helica dumosa", "Helica alta")));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("families")
    void whatIsNamedAndHow(String what, String lines, List<String> names) {
        CompiledStudy compiled = compiled(lines);
        assertThat(compiled.rows()).extracting(StudyRow::name).containsExactlyElementsOf(names);
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("families")
    void everyTargetStandsInTheKeyAndOfferedFilesKeepThem(String what, String lines, List<String> names) {
        Study study = study(lines + "Other one,species,,,,,smooth,solid\n");
        CompiledStudy keyed = KeyContext.EVERYTHING.apply(StudyCompiler.compile(study));
        KeyResult result = key(keyed);
        assertThat(result.proof().failures()).isEmpty();
        String text = KeyRenderer.text(KeyWording.word(keyed, result), study).replaceAll("\\s+", " ");
        for (StudyRow row : keyed.rows()) {
            assertThat(text).contains(row.stage().isEmpty() ? row.label() : row.stage());
        }
        for (MatrixFiles.Format format :
                List.of(MatrixFiles.Format.CSV, MatrixFiles.Format.XLSX, MatrixFiles.Format.STUDY)) {
            byte[] file = MatrixFiles.write(study, format, TableWriter.Layout.WIDE);
            Study back = MatrixFiles.read(file, "x." + format.ending()).study();
            assertThat(Targets.of(back.rows(), back.scoresByRow()))
                    .as(format.name())
                    .extracting(t -> t.row().name())
                    .containsExactlyElementsOf(StudyCompiler.compile(study).rows().stream()
                            .map(StudyRow::name)
                            .toList());
        }
    }

    /** A deadly species with one form and a harmless double: what it shows itself is not the harmless one. */
    @Test
    void aDeadlySpeciesWithOneChildDoesNotVanish() {
        CompiledStudy compiled = compiled("""
                Ostria mortis,species,,,life-threatening,,smooth,hollow
                Ostria mortis,,,button,,,lobed,
                Ostria mitis,species,,,none known,,toothed,hollow
                """);
        int species = compiled.rowIndex("ostria-mortis");
        assertThat(compiled.matrix().row(species).hazard()).isEqualTo(Hazard.LIFE_THREATENING);
        assertThat(compiled.matrix()
                        .row(compiled.rowIndex("ostria-mortis-button"))
                        .hazard())
                .as("goes down to a stage that nobody assessed")
                .isEqualTo(Hazard.LIFE_THREATENING);
        var after = new AnyOrderIdentifier(compiled.matrix())
                .identify(List.of(new Answer(0, new Observation.Seen(0b001), Certainty.SURE)), IdentifyOptions.WEIGH);
        assertThat(after.standings().get(0).row()).isEqualTo(species);
        assertThat(after.conclusion().notRuledOut()).contains(species);
    }

    @Test
    void weightsBelongToNames() {
        CompiledStudy compiled = compiled("""
                Helica dumosa,species,,,,,smooth,hollow
                Helica dumosa,,,male,,,toothed,
                Helica dumosa,,,female,,,,solid
                Helica alta,species,,,,,lobed,hollow
                """);
        assertThat(compiled.matrix().shares(true)).containsExactly(new double[] {0.25, 0.25, 0.5}, within(1e-12));
        assertThat(compiled.matrix().shares(false)).containsExactly(new double[] {0.25, 0.25, 0.5}, within(1e-12));
        assertThat(compiled.names()).extracting(StudyRow::id).containsExactly("helica-dumosa", "helica-alta");
    }

    @Test
    void aGroupAtWhichAKeyStopsIsCalledByItsOwnName() {
        CompiledStudy compiled = compiled("""
                Delmorini,tribe,,,,,,
                Perlessa una,species,Delmorini,,,,smooth,hollow
                Tolvanna una,species,Delmorini,,,,toothed,hollow
                Alia una,species,,,,,toothed,solid
                """);
        Study study = compiled.study();
        List<StudyRow> rows = new ArrayList<>(study.rows());
        rows.set(0, stopping(rows.get(0)));
        CompiledStudy stops = StudyCompiler.compile(study.withRows(rows));
        String text = KeyRenderer.text(KeyWording.word(stops, key(stops)), study);
        assertThat(text)
                .contains("tribe Delmorini: Perlessa una, Tolvanna una")
                .contains("the key stops at this group")
                .doesNotContain("sexes");
    }

    private static StudyRow stopping(StudyRow row) {
        return new StudyRow(
                row.id(),
                row.label(),
                row.plain(),
                row.rank(),
                row.parent(),
                row.stage(),
                row.hazard(),
                row.hazards(),
                row.status(),
                row.weight(),
                true,
                row.hybridOf(),
                row.description());
    }

    @Test
    void threeSpeciesWithTwoKindsOfCanesTakeTwoCouplets() {
        CompiledStudy canes = compiled("""
                Bramble aa,species,,first-year,,,smooth,hollow
                Bramble aa,species,,second-year,,,smooth,solid
                Bramble bb,species,,first-year,,,toothed,hollow
                Bramble bb,species,,second-year,,,toothed,solid
                Bramble cc,species,,first-year,,,lobed,hollow
                Bramble cc,species,,second-year,,,lobed,solid
                """);
        for (boolean exact : new boolean[] {true, false}) {
            KeyOptions options = KeyOptions.DEFAULT.withNodeBudget(exact ? 10_000 : 0);
            KeyResult result = ((KeyOutcome.Generated)
                            new KeyGenerator().generate(canes.matrix(), options, CancelSignal.NEVER))
                    .result();
            assertThat(result.key().couplets()).hasSize(2);
        }
    }

    @Test
    void authorsAreToldAndAskedOnce() {
        String lines = """
                Helica dumosa,species,,,none known,%s,"smooth, toothed",hollow
                Helica dumosa var. alta,variety,Helica dumosa,,none known,,toothed,
                Helica alta,species,,,none known,,,
                Helica alta,,,juvenile,none known,,lobed,
                """;
        assertThat(findings(lines.formatted("")))
                .contains(
                        tuple("rest-not-confirmed", "helica-dumosa"),
                        tuple("whole-or-rest", "helica-dumosa"),
                        tuple("rest-not-scored", "helica-alta"));
        assertThat(findings(lines.formatted("not all"))).doesNotContain(tuple("rest-not-confirmed", "helica-dumosa"));
        assertThat(findings(lines.formatted("all")))
                .doesNotContain(tuple("rest-not-confirmed", "helica-dumosa"), tuple("whole-or-rest", "helica-dumosa"));
    }

    private static List<org.assertj.core.groups.Tuple> findings(String lines) {
        List<org.assertj.core.groups.Tuple> found = new ArrayList<>();
        for (StudyFinding finding : StudyCheck.of(compiled(lines)).findings()) {
            found.add(tuple(finding.kind().code(), finding.row()));
        }
        return found;
    }

    /** Individuals one by one: each has a sex and a life stage; a child that tells no life stage is adult. */
    @Test
    void facetsCoverWhatTheirIndividualsDo() {
        Random random = new Random(15);
        List<String> sexes = List.of("", "male", "female");
        List<String> stages = List.of("", "adult", "juvenile", "larva");
        int covered = 0;
        for (int k = 0; k < 2_000; k++) {
            List<StudyRow> rows = new ArrayList<>(List.of(StudyRow.of("Aa bb")));
            for (String sex : sexes) {
                for (String stage : stages) {
                    String both = (stage + " " + sex).strip();
                    if (!both.isEmpty() && random.nextInt(3) == 0) {
                        rows.add(StudyRow.of("Aa bb")
                                .withStage(both)
                                .withParent("aa-bb")
                                .withId("aa-bb-" + rows.size()));
                    }
                }
            }
            List<StudyRow> children = rows.subList(1, rows.size());
            boolean hasStages = children.stream().anyMatch(c -> c.stage().matches(".*(adult|juvenile|larva).*"));
            boolean hasSexes = children.stream().anyMatch(c -> c.stage().matches(".*male.*"));
            boolean all = !children.isEmpty();
            List<String> lives = new ArrayList<>(List.of("adult"));
            for (String life : List.of("juvenile", "larva")) {
                if (children.stream().anyMatch(c -> c.stage().contains(life))) {
                    lives.add(life);
                }
            }
            if (lives.size() == 1 && hasStages) {
                // Somebody named the adults, so there are others.
                lives.add("another");
            }
            for (String sex : hasSexes ? List.of("male", "female") : List.of("any")) {
                for (String life : hasStages ? lives : List.of("any")) {
                    all &= children.stream().anyMatch(c -> is(c.stage(), sex, life));
                }
            }
            covered += all ? 1 : 0;
            assertThat(new Facets(rows).cover(rows.get(0), children))
                    .as("%s", children.stream().map(StudyRow::stage).toList())
                    .isEqualTo(all);
        }
        assertThat(covered).isBetween(100, 1_900);
    }

    private static boolean is(String stage, String sex, String life) {
        List<String> words = List.of(stage.split(" "));
        boolean sexTold = words.contains("male") || words.contains("female");
        boolean lifeTold = words.contains("adult") || words.contains("juvenile") || words.contains("larva");
        boolean sexFits = !sexTold || words.contains(sex);
        boolean lifeFits = lifeTold ? words.contains(life) : life.equals("adult") || life.equals("any");
        return sexFits && lifeFits;
    }
}
