package org.polyclave.files.nexus;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Comparator;
import java.util.List;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.files.source.CharacterSelection;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.table.TableReader;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.UnitHeading;
import org.polyclave.study.rules.Problem;

/** NEXUS as the standard of 1997 writes it, in its less usual forms too. */
class NexusTest {
    private static ImportedStudy read(String text) {
        return NexusReader.read(text.getBytes(StandardCharsets.UTF_8), "file.nex");
    }

    private static List<String> typed(String text) {
        ImportedStudy read = read(text);
        assertThat(read.problems()).isEmpty();
        List<String> rows = read.study().rows().stream().map(r -> r.id()).toList();
        return read.study().scores().stream()
                .sorted(Comparator.comparingInt(s -> rows.indexOf(s.row())))
                .map(StudyScore::typed)
                .toList();
    }

    private static String data(String format, String labels, String matrix) {
        return "#NEXUS\nBEGIN DATA;\nDIMENSIONS NTAX=2 NCHAR=2;\nFORMAT " + format + ";\n" + labels + "MATRIX\n"
                + matrix + "\n;\nEND;\n";
    }

    private static ImportedStudy some(String text, String characters) {
        return NexusReader.read(text.getBytes(StandardCharsets.UTF_8), "file.nex", characters, ReadingWatch.NONE);
    }

    /** Two blocks of 700 and 500 characters; the state of taxon t for character c is (c + t) % 3. */
    private static String large() {
        StringBuilder file = new StringBuilder("#NEXUS\nBEGIN TAXA;\nDIMENSIONS NTAX=3;\nTAXLABELS A B C;\nEND;\n");
        int before = 0;
        for (int count : new int[] {700, 500}) {
            file.append("BEGIN CHARACTERS;\nDIMENSIONS NCHAR=" + count + ";\nFORMAT MATCHCHAR=. INTERLEAVE;\nMATRIX\n");
            for (int half = 0; half < 2; half++) {
                for (int t = 0; t < 3; t++) {
                    file.append("ABC".charAt(t)).append(' ');
                    for (int c = before + half * count / 2; c < before + (half + 1) * count / 2; c++) {
                        // Now and then the second matches the first.
                        file.append(t == 1 && c % 5 == 0 ? '.' : (char) ('0' + (c + t) % 3));
                    }
                    file.append('\n');
                }
            }
            file.append(";\nEND;\n");
            before += count;
        }
        return file + "BEGIN SETS;\nCHARSET every_fifth = 1-.\\5;\nCHARSET 'wing-veins' = 11 700 - 702 every_fifth;\n"
                + "CHARSET broken = 5 9999;\nCHARSET mask (VECTOR) = 0101;\nEND;\n"
                + "BEGIN ASSUMPTIONS;\nTYPESET * t = unord: 1-700, ord: 701-1200;\nEND;\n";
    }

    static Stream<Arguments> selections() {
        IntPredicate fifth = c -> c % 5 == 1;
        return Stream.of(
                Arguments.of("7", (IntPredicate) c -> c == 7),
                Arguments.of("1-3, 1199-.", (IntPredicate) c -> c <= 3 || c >= 1199),
                Arguments.of("600 - 1200\\7", (IntPredicate) c -> c >= 600 && (c - 600) % 7 == 0),
                Arguments.of("EVERY_FIFTH", fifth),
                Arguments.of("'wing-veins'; 2", fifth.or(c -> c == 2 || c == 11 || (c >= 700 && c <= 702))));
    }

    /** The oracle works with numbers only, and knows nothing of blocks or lines. */
    @ParameterizedTest
    @MethodSource("selections")
    void someCharactersOfManyAreRead(String characters, IntPredicate wanted) {
        ImportedStudy read = some(large(), characters);
        assertThat(read.problems()).isEmpty();
        List<Integer> numbers =
                IntStream.rangeClosed(1, 1200).filter(wanted).boxed().toList();
        assertThat(read.columns()).extracting(ImportedStudy.Column::column).isEqualTo(numbers);
        assertThat(read.study().characters())
                .extracting(StudyCharacter::label)
                .isEqualTo(numbers.stream().map(n -> "character " + n).toList());
        for (int c = 0; c < numbers.size(); c++) {
            int number = numbers.get(c);
            StudyCharacter character = read.study().characters().get(c);
            assertThat(character.type()).isEqualTo(number > 700 ? CharacterType.ORDERED : CharacterType.STATES);
            List<String> typed = read.study().scores().stream()
                    .filter(s -> s.character().equals(character.id()))
                    .map(StudyScore::typed)
                    .toList();
            assertThat(typed)
                    .isEqualTo(IntStream.range(0, 3)
                            .mapToObj(t -> "state " + (number - 1 + (t == 1 && (number - 1) % 5 == 0 ? 0 : t)) % 3)
                            .toList());
        }
        assertThat(read.selection())
                .isEqualTo(new CharacterSelection(
                        1200,
                        numbers.size(),
                        List.of(
                                new CharacterSelection.CharacterSet("every_fifth", 240),
                                new CharacterSelection.CharacterSet("'wing-veins'", 242))));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "''       | has 1200 characters; at most 1000 can be read at once",
                "all      | These are 1200 characters",
                "5-3      | '5-3' ends before it begins",
                "1201     | Character 1201 does not exist: the file has 1200.",
                "0        | Character 0 does not exist",
                "wing     | 'wing' is neither a number",
                "broken   | Character 9999 does not exist",
                "1-9\\0  | After a backslash",
                "','      | No character is chosen",
                "'''open' | does not end with one"
            })
    void aChoiceThatCannotBeReadSaysWhy(String characters, String says) {
        assertThat(some(large(), characters).problems())
                .filteredOn(Problem::blocking)
                .singleElement()
                .extracting(Problem::sentence)
                .asString()
                .contains(says);
    }

    @Test
    void onlyBlocksOfCharactersCount() {
        String other = "BEGIN DISTANCES;;\nDIMENSIONS NCHAR=7;\nMATRIX A 0 B 1 0;\nEND;\n";
        String file = data("SYMBOLS=\"01\"", "", "A 01\nB 10").replace("BEGIN DATA;", other + "BEGIN DATA;;")
                + "BEGIN SETS;; TAXSET t = A; CHARSET plain (STANDARD) = ALL; END;";
        assertThat(some(file, "plain").selection())
                .isEqualTo(new CharacterSelection(2, 2, List.of(new CharacterSelection.CharacterSet("plain", 2))));
        String bare = data("SYMBOLS=\"01\"", "", "A 01\nB 10");
        assertThat(some(bare, "jaws").problems())
                .singleElement()
                .extracting(Problem::text)
                .asString()
                .contains("nor a set: the file names none.");
    }

    @Test
    void aSetThatHoldsItselfEnds() {
        String file = data("SYMBOLS=\"01\"", "", "A 01\nB 10") + "BEGIN SETS; CHARSET a = b 1; CHARSET b = a 2; END;";
        assertThat(some(file, "a").study().characters()).hasSize(2);
        assertThat(some(file, "").problems()).isEmpty();
    }

    @Test
    void tokensNameTheirStates() {
        assertThat(typed(data(
                        "DATATYPE=STANDARD TOKENS MISSING=? GAP=-",
                        "CHARSTATELABELS 1 margin / entire 'finely toothed', 2 awn / absent present;\n",
                        "A entire (absent present)\nB 'finely toothed' -")))
                .containsExactly("entire", "absent, present", "finely toothed", "n/a");
        assertThat(read(data(
                                "TOKENS",
                                "CHARSTATELABELS 1 margin / entire toothed, 2 awn / absent present;\n",
                                "A entyre absent\nB toothed absent"))
                        .problems())
                .singleElement()
                .extracting(Problem::sentence)
                .asString()
                .contains("'entyre' is not a state of character 1");
    }

    @Test
    void labelsOfStatesCharactersAndTaxaMayStandApart() {
        assertThat(typed(data(
                        "SYMBOLS=\"01\" NOLABELS",
                        "TAXLABELS A B;\nCHARLABELS margin awn;\nSTATELABELS 1 entire toothed, 2 absent present;\n",
                        "0 1\n1 0")))
                .containsExactly("entire", "present", "toothed", "absent");
    }

    @Test
    void rangesOfStatesAndCaseAreRead() {
        assertThat(typed(data("SYMBOLS=\"0123\"", "", "A (0~2)1\nB {0 3}2")))
                .containsExactly("state 0, state 1, state 2", "state 1", "state 0 / state 3", "state 2");
        assertThat(typed(data("SYMBOLS=\"Ab\"", "", "A aB\nB bA")))
                .containsExactly("state 0", "state 1", "state 1", "state 0");
        assertThat(read(data("SYMBOLS=\"Ab\" RESPECTCASE", "", "A aB\nB bA")).usable())
                .isFalse();
    }

    @Test
    void symbolsMayBeSpansOrLeftUnsaidAndOneSignForTwoMeaningsIsTold() {
        assertThat(typed(data("SYMBOLS=\"0~3 A-C\"", "", "A 3C\nB b0")))
                .containsExactly("state 3", "state 6", "state 5", "state 0");
        assertThat(read(data("SYMBOLS=\"3~0\"", "", "A 00\nB 11")).problems())
                .singleElement()
                .satisfies(p -> assertThat(p.text()).contains("'3~0', which runs backwards"));
        assertThat(typed(data("", "", "A 2A\nB 0a"))).containsExactly("state 2", "state 10", "state 0", "state 10");
        ImportedStudy both = read(data("SYMBOLS=\"01\" MISSING=- GAP=-", "", "A 0-\nB 11"));
        assertThat(both.usable()).isTrue();
        assertThat(both.study().scores()).hasSize(3);
        assertThat(both.problems())
                .singleElement()
                .satisfies(p -> assertThat(p.text()).contains("the same sign"));
        assertThat(read(data("SYMBOLS=\"01\" MISSING=? GAP=-", "", "A 0-\nB 11"))
                        .problems())
                .isEmpty();
    }

    @Test
    void taxaAreNamedByNumberTooAndBlocksThatAreNotKnownArePassedOver() {
        assertThat(typed("""
                        #nexus
                        BEGIN PRIVATE; anything [at all; END;] 'goes; END' here; END;
                        BEGIN TAXA; TITLE x; DIMENSIONS NTAX=2; TAXLABELS 'one; two' B; ENDBLOCK;
                        BEGIN CHARACTERS; DIMENSIONS NCHAR=1; FORMAT DATATYPE=STANDARD; MATRIX 2 1 1 0; END;
                        """)).containsExactly("state 0", "state 1");
    }

    static Stream<Arguments> broken() {
        return Stream.of(
                Arguments.of("BEGIN TAXA; DIMENSIONS NTAX=3; TAXLABELS A B; END;", "NTAX says 3 taxa, but 2"),
                Arguments.of("BEGIN TAXA; DIMENSIONS NTAX=x; END;", "'x' after NTAX= is not a number"),
                Arguments.of("BEGIN TAXA; TAXLABELS A a; END;", "'a' is named twice"),
                Arguments.of("BEGIN DATA; MATRIX A 0; END;", "NCHAR= must stand before MATRIX"),
                Arguments.of("BEGIN DATA; DIMENSIONS NTAX=1; END;", "NCHAR="),
                Arguments.of("BEGIN DATA; DIMENSIONS NCHAR=1; END;", "has no MATRIX"),
                Arguments.of("BEGIN DATA; DIMENSIONS NCHAR=1; FORMAT TRANSPOSE; MATRIX A 0; END;", "Transposed"),
                Arguments.of("BEGIN DATA; DIMENSIONS NCHAR=2; ELIMINATE 1; MATRIX A 00; END;", "ELIMINATE"),
                Arguments.of(
                        "BEGIN DATA; DIMENSIONS NCHAR=1; FORMAT MATCHCHAR=.; MATRIX A .; END;", "nothing to match"),
                Arguments.of("BEGIN DATA; DIMENSIONS NCHAR=1; MATRIX A (); END;", "nothing between"),
                Arguments.of("BEGIN DATA; DIMENSIONS NCHAR=1; MATRIX A (01; END;", "')' is missing"),
                Arguments.of("BEGIN DATA; DIMENSIONS NCHAR=1; CHARSTATELABELS 2 x; MATRIX A 0; END;", "from 1 to 1"),
                Arguments.of(
                        "BEGIN DATA; DIMENSIONS NCHAR=1; FORMAT DATATYPE=CONTINUOUS; MATRIX A -3; END;",
                        "'-3' is not a number of 0 or more"),
                Arguments.of("BEGIN TAXA; TAXLABELS 'A; END;", "begins with an apostrophe"),
                Arguments.of(
                        "BEGIN TAXA; DIMENSIONS NTAX=1; TAXLABELS A; END; BEGIN CHARACTERS; DIMENSIONS NCHAR=1; MATRIX B 0; END;",
                        "'B' is not a taxon of the TAXA block"),
                Arguments.of(
                        "BEGIN TAXA; DIMENSIONS NTAX=1; TAXLABELS A; END;", "neither a CHARACTERS nor a DATA block"),
                Arguments.of("nonsense", "where a block should begin"));
    }

    @ParameterizedTest(name = "{1}")
    @MethodSource("broken")
    void whatIsBrokenIsToldByItsLineAndNothingIsRead(String body, String sentence) {
        ImportedStudy read = read("#NEXUS\n" + body);
        assertThat(read.usable()).isFalse();
        assertThat(read.study().scores()).isEmpty();
        assertThat(read.problems()).singleElement().satisfies(p -> {
            assertThat(p.row()).isEqualTo(2);
            assertThat(p.text()).contains(sentence);
        });
    }

    @Test
    void whatAFileCannotSayIsWrittenSoThatNothingIsShutOut() {
        Study study =
                TableReader.read("""
                        taxon,colour,teeth,season
                        #type,states,count,months
                        #states,red|blue|grey,,
                        Aa,sometimes red,>=20,Nov–Feb
                        Bb,"blue, mistaken red",many,Jun
                        Cc,any,n/a,?
                        """.getBytes(StandardCharsets.UTF_8), "t.csv").study();
        String text = NexusWriter.write(study, "");
        assertThat(text).contains("(012)").contains("{012}");
        Study read =
                NexusReader.read(text.getBytes(StandardCharsets.UTF_8), "t.nex").study();
        assertThat(read.scores().stream().filter(s -> s.character().equals("teeth")))
                .isEmpty();
        assertThat(read.character("season")).get().extracting(c -> c.type()).isEqualTo(CharacterType.MONTHS);
        assertThat(read.scores().stream()
                        .filter(s -> s.character().equals("season"))
                        .map(StudyScore::typed))
                .containsExactly("Nov–Feb", "Jun");
    }

    @Test
    void headingsEndInTheirUnits() {
        assertThat(UnitHeading.parse("leaf width (mm)"))
                .contains(new UnitHeading("leaf width", CharacterType.LENGTH, "mm"));
        assertThat(UnitHeading.parse("spore length [µm]"))
                .contains(new UnitHeading("spore length", CharacterType.LENGTH, "µm"));
        assertThat(UnitHeading.parse("cover, %")).contains(new UnitHeading("cover", CharacterType.PERCENT, "%"));
        assertThat(UnitHeading.parse("cap weight (g)"))
                .contains(new UnitHeading("cap weight", CharacterType.MASS, "g"));
        for (String none : List.of("leaf width", "teeth (n)", "(mm)", "length, width")) {
            assertThat(UnitHeading.parse(none)).as(none).isEmpty();
        }
    }
}
