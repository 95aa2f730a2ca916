package org.polyclave.files.study;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.table.TableReader;
import org.polyclave.files.table.TableWriter;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.rules.Problem;
import org.polyclave.study.testkit.RandomScores;

class FilesTest {
    static LongStream seeds() {
        return LongStream.rangeClosed(1, 60);
    }

    private static ImportedStudy read(String text) {
        return TableReader.read(text.getBytes(StandardCharsets.UTF_8), "table.csv");
    }

    private static List<String> problems(String text) {
        return read(text).problems().stream()
                .filter(Problem::blocking)
                .map(Problem::sentence)
                .toList();
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void studyFilesLoseNothing(long seed) {
        Study study = RandomScores.study(seed);
        StudyJson.ReadStudy read = StudyJson.read(StudyJson.write(study).getBytes(StandardCharsets.UTF_8));
        assertThat(read.problems()).isEmpty();
        assertThat(read.study()).isEqualTo(study);
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void tablesKeepWhatTheirNotationCanSay(long seed) {
        Study study = RandomScores.study(seed);
        for (char separator : new char[] {',', '\t'}) {
            String text = TableWriter.write(study, separator);
            ImportedStudy read =
                    TableReader.read(text.getBytes(StandardCharsets.UTF_8), separator == ',' ? "t.csv" : "t.tsv");
            assertThat(read.problems()).isEmpty();
            assertThat(read.study().rows())
                    .usingRecursiveFieldByFieldElementComparatorIgnoringFields("hazards")
                    .isEqualTo(study.rows());
            assertThat(read.study().scores())
                    .usingRecursiveFieldByFieldElementComparatorOnFields("row", "character", "value")
                    .containsExactlyInAnyOrderElementsOf(study.scores());
            assertThat(read.study().characters())
                    .usingRecursiveFieldByFieldElementComparatorIgnoringFields(
                            "states", "plainQuestion", "trust", "looking")
                    .isEqualTo(study.characters());
            assertThat(text.lines()).allMatch(l -> !l.matches("^[=+@-].*"));
        }
    }

    @Test
    void everyProblemIsNamedWithItsPlace() {
        assertThat(problems("""
                        taxon,#hazard,#parent,leaf margin,leaf width
                        #type,,,states,length
                        #states,,,toothed|entire,
                        #colour,,,red,
                        #role,,,first,
                        #seen,,,,2
                        Aa one,deadly,,tothed,9-5
                        Aa one,,,toothed,5
                        Bb two,,Nobody,toothed,5 kg
                        """))
                .containsExactlyInAnyOrder(
                        "Row 4, column 1: '#colour' describes nothing known. Use one of #type, #unit, #organ, #method, #states, #applies, #months, #effort, #harm, #group, #uncertainty, #note, #question, #misreading, #role, #seen, #lead, #plain lead.",
                        "Row 5, column 4 (leaf margin): 'first' is not a part that a character may play. Use one of decides, confirms, never first, necessary.",
                        "Row 6, column 5 (leaf width): '2' is not a share of individuals. Write for example 0.2 for one in five.",
                        "Row 7, column 2 (#hazard): 'deadly' is not a severity. Use 'none known', 'caution', 'serious' or 'life-threatening', or leave it empty.",
                        "Row 8, column 1: 'Aa one' is already in row 7. Rename one, or distinguish them by #stage.",
                        "Row 9, column 3 (#parent): The parent 'Nobody' has no row. Add it, or correct its name.",
                        "Row 7, column 4 (leaf margin): 'tothed' is not a state of 'leaf margin'. Nearest: 'toothed', 'entire'.",
                        "Row 7, column 5 (leaf width): The numbers of '9-5' do not rise from left to right. Swap them, or check the unit.",
                        "Row 9, column 5 (leaf width): 'kg' is not a unit of this kind of character. Remove it or use a unit of length.");
    }

    @Test
    void typesAreProposedWhereNoneIsNamed() {
        ImportedStudy read = read("""
                taxon;petals;width;colour;season
                Aa;4–5;3,5 mm;red;May–Jul
                Bb;6;5–9 mm;usually blue, rarely red;Aug
                """);
        assertThat(read.problems()).isEmpty();
        assertThat(read.columns())
                .extracting(ImportedStudy.Column::type)
                .containsExactly(CharacterType.COUNT, CharacterType.LENGTH, CharacterType.STATES, CharacterType.MONTHS);
        assertThat(read.columns().get(2).states()).containsExactly("red", "blue");
        assertThat(read.columns()).allMatch(ImportedStudy.Column::guessed);
    }

    @Test
    void stagesBelongToTheirTaxonAndWhatIsImportedIsUnchecked() {
        Study study = read("""
                        taxon,#stage,colour
                        Aa one,,red
                        Aa one,male,blue
                        Bb two,male,red
                        """).study();
        assertThat(study.row("aa-one-male")).get().extracting(StudyRow::parent).isEqualTo("aa-one");
        assertThat(study.row("bb-two")).as("added for its stage").isPresent();
        assertThat(study.scores()).extracting(StudyScore::basis).containsOnly(StudyScore.Basis.IMPORT);
    }

    @Test
    void aTaxonAddedForItsStagesStandsAboveThemAndIsNoMoreHarmlessThanTheyAre() {
        Study study = read("""
                        taxon,#stage,#hazard,colour
                        Aa,male,none known,blue
                        Aa,female,serious,red
                        Bb,,,red
                        Cc,male,none known,red
                        Cc,female,,red
                        Cc,worker,none known,red
                        Dd,male,none known,red
                        Dd,female,none known,blue
                        Ee,male,,red
                        Ee,female,caution,red
                        """).study();
        assertThat(study.rows())
                .extracting(StudyRow::id)
                .containsExactly(
                        "aa",
                        "aa-male",
                        "aa-female",
                        "bb",
                        "cc",
                        "cc-male",
                        "cc-female",
                        "cc-worker",
                        "dd",
                        "dd-male",
                        "dd-female",
                        "ee",
                        "ee-male",
                        "ee-female");
        assertThat(Stream.of("aa", "cc", "dd", "ee")
                        .map(id -> study.row(id).orElseThrow().hazard()))
                .containsExactly(Hazard.SERIOUS, Hazard.NOT_ASSESSED, Hazard.NONE_KNOWN, Hazard.CAUTION);
    }

    @Test
    void encodingsAreDetectedAndSaid() {
        byte[] latin = "taxon,colour\nAa,gr\u00fcn\n".getBytes(StandardCharsets.ISO_8859_1);
        assertThat(TableReader.read(latin, "t.csv").problems())
                .first()
                .extracting(Problem::text)
                .asString()
                .contains("not UTF-8")
                .contains("line 2");
        byte[] utf16 = "\uFEFFtaxon,colour\nAa,gr\u00fcn\n".getBytes(StandardCharsets.UTF_16LE);
        ImportedStudy read = TableReader.read(utf16, "t.csv");
        assertThat(read.usable()).isTrue();
        assertThat(read.columns().get(0).states()).containsExactly("gr\u00fcn");
    }

    @Test
    void tooMuchIsRefusedByName() {
        String states = String.join(
                "|",
                java.util.stream.IntStream.range(0, 33).mapToObj(i -> "s" + i).toList());
        assertThat(problems("taxon,colour\n#states," + states + "\nAa,s1\n"))
                .anyMatch(p -> p.contains("33 states") && p.contains("32"));
        assertThat(problems("taxon" + ",c".repeat(1)
                        + java.util.stream.IntStream.range(0, 1001)
                                .mapToObj(i -> ",k" + i)
                                .reduce("", String::concat) + "\nAa\n"))
                .anyMatch(p -> p.contains("1002 characters") && p.contains("1000"));
        StringBuilder taxa = new StringBuilder("taxon,c\n");
        for (int i = 0; i < 5001; i++) {
            taxa.append("t").append(i).append(",x\n");
        }
        assertThat(problems(taxa.toString())).anyMatch(p -> p.contains("5001 taxa"));
        assertThat(problems("species,c\nAa,x\n"))
                .containsExactly("Row 1, column 1: The first column must be headed 'taxon', but says 'species'.");
        assertThat(problems(""))
                .containsExactly("The table is empty. Its first row must name the columns, beginning with 'taxon'.");
    }

    @Test
    void edibilityIsSetAside() {
        ImportedStudy read = read("taxon,colour,taste\nAa,red,bitter\n");
        assertThat(read.usable()).isTrue();
        assertThat(read.setAside()).containsExactly("taste");
        assertThat(read.study().characters()).hasSize(1);
    }

    @Test
    void dependenciesThatCircleAreRefused() {
        assertThat(problems("""
                        taxon,a,b
                        #states,x|y,x|y
                        #applies,b = x,a = x
                        Aa,x,y
                        """)).anyMatch(p -> p.contains("in a circle: a → b → a"));
    }

    @Test
    void studyFilesAreCheckedAgainstTheirSchemaAndThemselves() {
        String good = StudyJson.write(RandomScores.study(1));
        assertThat(StudyJson.read("{".getBytes(StandardCharsets.UTF_8)).problems())
                .hasSize(1);
        assertThat(StudyJson.read(good.replaceFirst("\"weight\":\\d", "\"weight\":-1")
                                .getBytes(StandardCharsets.UTF_8))
                        .problems())
                .anyMatch(p -> p.contains("/rows/0/weight"));
        assertThat(StudyJson.read(good.replace("\"row\":\"genus", "\"row\":\"nobody")
                                .getBytes(StandardCharsets.UTF_8))
                        .problems())
                .anyMatch(p -> p.contains("which does not exist"));
    }
}
