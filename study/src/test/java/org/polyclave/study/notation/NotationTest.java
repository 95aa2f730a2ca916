package org.polyclave.study.notation;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.ScoreValue.Combination;
import org.polyclave.study.model.ScoreValue.Count;
import org.polyclave.study.model.ScoreValue.Frequency;
import org.polyclave.study.model.ScoreValue.Shown;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.testkit.RandomScores;

class NotationTest {
    private static final StudyCharacter MARGIN = StudyCharacter.of(
            "leaf margin",
            CharacterType.STATES,
            List.of(StudyState.of("toothed"), StudyState.of("entire"), StudyState.of("lobed, deeply")));
    private static final StudyCharacter WIDTH = StudyCharacter.of("leaf width", CharacterType.LENGTH, List.of());
    private static final StudyCharacter PETALS = StudyCharacter.of("petals", CharacterType.COUNT, List.of());
    private static final StudyCharacter SEASON = StudyCharacter.of("season", CharacterType.MONTHS, List.of());

    private static ScoreValue read(String text, StudyCharacter character) {
        CellNotation.ParseResult reading = CellNotation.parse(text, character);
        assertThat(reading).as(text).isInstanceOf(CellNotation.Parsed.class);
        return ((CellNotation.Parsed) reading).value();
    }

    private static String refused(String text, StudyCharacter character) {
        CellNotation.ParseResult reading = CellNotation.parse(text, character);
        assertThat(reading).as(text).isInstanceOf(CellNotation.Rejected.class);
        return ((CellNotation.Rejected) reading).reason();
    }

    /** Whatever sign a cell holds, it is read or refused with a reason: never an exception. */
    @ParameterizedTest
    @ValueSource(
            strings = {
                "-", "--", "–", "—", "−", "?", "??", "(", ")", "()", "[", "]", "+", "/", "|", ",", ";", ".", "*", "~",
                "±", "<", ">", "=", "≥", "&", "%", "'", "\"", "0", "-0", "1-", "-1", "–1", "1–", "(1–)", "1e9", "n/a",
                "x"
            })
    void bareSignsAreReadOrRefusedWithAReason(String sign) {
        for (StudyCharacter character : List.of(MARGIN, WIDTH, PETALS, SEASON)) {
            CellNotation.ParseResult reading = CellNotation.parse(sign, character);
            if (reading instanceof CellNotation.Rejected rejected) {
                assertThat(rejected.reason())
                        .as("%s in %s", sign, character.label())
                        .isNotBlank();
            }
        }
    }

    @ParameterizedTest
    @ValueSource(strings = {"-", "--", "–", "—", "−"})
    void aDashIsNotApplicableInEveryColumn(String dash) {
        for (StudyCharacter character : List.of(MARGIN, WIDTH, PETALS, SEASON)) {
            assertThat(read(dash, character)).as(character.label()).isInstanceOf(ScoreValue.NotApplicable.class);
        }
    }

    @Test
    void statesCarryWordsAndWaysOfHavingSeveral() {
        assertThat(read("usually toothed, rarely entire", MARGIN))
                .isEqualTo(new ScoreValue.States(
                        List.of(new Shown("toothed", Frequency.USUALLY), new Shown("entire", Frequency.RARELY)),
                        Combination.VARY));
        assertThat(((ScoreValue.States) read("toothed + entire", MARGIN)).combination())
                .isEqualTo(Combination.BOTH);
        assertThat(((ScoreValue.States) read("TOOTHED / ent", MARGIN)).combination())
                .isEqualTo(Combination.EITHER);
        assertThat(read("toothed, mistaken for entire", MARGIN))
                .isEqualTo(new ScoreValue.States(
                        List.of(new Shown("toothed", Frequency.PLAIN), new Shown("entire", Frequency.MISTAKEN)),
                        Combination.VARY));
        assertThat(read("lobed, deeply", MARGIN))
                .as("a label that holds a comma")
                .isEqualTo(
                        new ScoreValue.States(List.of(new Shown("lobed-deeply", Frequency.PLAIN)), Combination.VARY));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "5–9; 5; 5; 9; 9",
                "5-9 mm; 5; 5; 9; 9",
                "(3–)5–9(–12) mm; 3; 5; 9; 12",
                "4,5; 4.5; 4.5; 4.5; 4.5",
                "0.3 cm; 3; 3; 3; 3",
                "2 in; 50.8; 50.8; 50.8; 50.8",
                "5–9(–12); 5; 5; 9; 12",
                "2(-3); 2; 2; 2; 3",
                "(4)5-6(7); 4; 5; 6; 7",
                "5 to 8 cm; 50; 50; 80; 80",
                "5 mm – 1.2 cm; 5; 5; 12; 12",
                "1 1/4 - 2 in; 31.75; 31.75; 50.8; 50.8",
                "1½″; 38.1; 38.1; 38.1; 38.1",
                "1/2–3/4 inches; 12.7; 12.7; 19.05; 19.05",
                "2–8\"; 50.8; 50.8; 203.2; 203.2",
                "5 ft 6 in; 1676.4; 1676.4; 1676.4; 1676.4",
                "c. 6; 5.4; 6; 6; 6.6",
                "~9 mm; 8.1; 9; 9; 9.9",
                "about 5-8; 4.5; 5; 8; 8.8",
                "usually 5 mm; 4.5; 5; 5; 5.5",
                "<5; 0; 0; 5; 5",
                "up to 6; 0; 0; 6; 6"
            })
    void lengths(String text, double min, double low, double high, double max) {
        assertThat(read(text, WIDTH)).isEqualTo(new ScoreValue.Range(min, low, high, max));
    }

    @Test
    void countsTakeListsAndOpenEnds() {
        assertThat(read("4, 8", PETALS))
                .isEqualTo(new ScoreValue.Range(
                        4, 4, 8.0, 8.0, List.of(new Count(4, 4, Frequency.PLAIN), new Count(8, 8, Frequency.PLAIN))));
        assertThat(read("4 or 8", PETALS)).isEqualTo(read("4, 8", PETALS));
        assertThat(read(">=20", PETALS)).isEqualTo(new ScoreValue.Range(20, 20, null, null));
        assertThat(read("many", PETALS)).isEqualTo(new ScoreValue.Range(12, 12, null, null));
        assertThat(read(">10", PETALS)).as("eleven or more").isEqualTo(new ScoreValue.Range(11, 11, null, null));
        assertThat(read("20+", PETALS)).isEqualTo(new ScoreValue.Range(20, 20, null, null));
        assertThat(read("less than 5", PETALS)).isEqualTo(new ScoreValue.Range(0, 0, 4.0, 4.0));
        assertThat(read("about 5", PETALS)).as("one more or less").isEqualTo(new ScoreValue.Range(4, 5, 5.0, 6.0));
        assertThat(read("c. 40", PETALS)).isEqualTo(new ScoreValue.Range(36, 40, 40.0, 44.0));
    }

    @Test
    void countsSayHowOften() {
        ScoreValue usually = new ScoreValue.Range(
                3,
                5,
                5.0,
                9.0,
                List.of(
                        new Count(5, 5, Frequency.USUALLY),
                        new Count(3, 4, Frequency.SOMETIMES),
                        new Count(9, 9, Frequency.RARELY)));
        assertThat(read("Mostly 5, occasionally 3-4; rarely 9", PETALS)).isEqualTo(usually);
        assertThat(NotationPrinter.print(usually, PETALS)).isEqualTo("usually 5, sometimes 3–4, rarely 9");
        assertThat(read("usually 5", PETALS))
                .as("one more or less is open")
                .isEqualTo(new ScoreValue.Range(4, 5, 5.0, 6.0, List.of(new Count(5, 5, Frequency.USUALLY))));
        assertThat(refused("sometimes 3", PETALS)).contains("'usually 5, sometimes 3'");
        assertThat(refused("usually 5, rarely 4-3", PETALS)).contains("'rarely 4-3' do not rise");
        assertThat(refused("mistaken 5, 4", PETALS)).contains("not a number or range");
    }

    @Test
    void monthsPassTheTurnOfTheYear() {
        assertThat(read("May–Jul, Sep", SEASON)).isEqualTo(new ScoreValue.Months(List.of(5, 6, 7, 9)));
        assertThat(read("Nov-Feb", SEASON)).isEqualTo(new ScoreValue.Months(List.of(1, 2, 11, 12)));
        assertThat(MonthNotation.print(List.of(1, 2, 6, 11, 12))).isEqualTo("Nov–Feb, Jun");
        assertThat(MonthNotation.print(List.of(1, 12))).isEqualTo("Dec–Jan");
        assertThat(MonthNotation.print(List.of(1, 2, 11))).isEqualTo("Jan–Feb, Nov");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "5-7; May–Jul",
                "IX-X; Sep–Oct",
                "May-July; May–Jul",
                "Sept. to Nov.; Sep–Nov",
                "mid-June to early July; Jun–Jul",
                "III & V; Mar, May",
                "11–2; Nov–Feb",
                "all year; Jan–Dec",
                "year-round; Jan–Dec"
            })
    void monthsAsPeopleWriteThem(String text, String printed) {
        assertThat(MonthNotation.print(((ScoreValue.Months) read(text, SEASON)).months()))
                .isEqualTo(printed);
    }

    @Test
    void massesAreTakenInWhatPeopleWeighIn() {
        StudyCharacter weight = StudyCharacter.of("weight", CharacterType.MASS, List.of());
        assertThat(read("10-20 lb", weight))
                .isEqualTo(new ScoreValue.Range(4535.9237, 4535.9237, 9071.8474, 9071.8474));
        assertThat(read("2 lbs 8 oz", weight)).isEqualTo(read("2.5 pounds", weight));
        assertThat(read("8 oz - 2 lb", weight)).isEqualTo(read("0.5-2 lb", weight));
        assertThat(refused("10 in", weight)).contains("'in' is not a unit");
    }

    /** "white/cream" is one state, wherever it stands among others. */
    @Test
    void declaredLabelsAreMatchedWhole() {
        StudyCharacter colour = StudyCharacter.of(
                "colour",
                CharacterType.STATES,
                List.of(
                        StudyState.of("white/cream"),
                        StudyState.of("white/cream, spotted"),
                        StudyState.of("red + gold"),
                        StudyState.of("white")));
        assertThat(printed("white/cream", colour)).isEqualTo("white/cream");
        assertThat(printed("usually WHITE/cream, spotted; rarely red + gold", colour))
                .isEqualTo("usually white/cream, spotted, rarely red + gold");
        assertThat(printed("white / red + gold", colour)).isEqualTo("white / red + gold");
        assertThat(printed("white, mistaken for white/cream", colour)).isEqualTo("white, mistaken white/cream");
        assertThat(((ScoreValue.States) read("white, white/cream", colour)).shown())
                .extracting(Shown::state)
                .containsExactly("white", "white-cream");
    }

    private static String printed(String text, StudyCharacter character) {
        return NotationPrinter.print(read(text, character), character);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "1 1/2 in; 3.81; 0",
                "35-40; 37.5; 2.5",
                "4,5; 4.5; 0",
                "(3–)5–9(–13) mm; 0.8; 0.5",
                "c. 10; 10; 1",
                "up to 6; 3; 3"
            })
    void readersAnswerInTheNotationOfCells(String typed, double value, double spread) {
        assertThat(TypedAnswer.of(typed, CharacterType.LENGTH, "cm")).isEqualTo(new TypedAnswer(value, spread, ""));
    }

    @Test
    void anAnswerThatCannotBeReadSaysWhy() {
        assertThat(TypedAnswer.of("broad", CharacterType.LENGTH, "cm").reason()).contains("not a number or range");
        assertThat(TypedAnswer.of(">20", CharacterType.COUNT, "").reason()).contains("has no end");
        assertThat(TypedAnswer.of(" ", CharacterType.LENGTH, "cm").value()).isNull();
        assertThat(TypedAnswer.of("9-5", CharacterType.LENGTH, "cm").reason()).contains("do not rise");
    }

    @Test
    void aDateIsNoScoreAndSaysWhatItMayHaveBeen() {
        for (StudyCharacter character : List.of(MARGIN, WIDTH, PETALS, SEASON)) {
            CellNotation.Rejected date = (CellNotation.Rejected) CellNotation.parse("2024-08-10", character);
            assertThat(date.reason()).contains("is a date");
            assertThat(date.nearest()).containsExactly("8–10");
        }
    }

    @Test
    void theTypeOfAColumnIsToldByItsHeadingToo() {
        assertThat(guess("leaf length", "5", "6-7", "9")).isEqualTo(new TypeGuess.Guess(CharacterType.LENGTH, true));
        assertThat(guess("scape", "1½ ft", "2 ft", "6 in")).isEqualTo(new TypeGuess.Guess(CharacterType.LENGTH, false));
        assertThat(guess("leaf length / width", "5", "6-7", "9").type()).isEqualTo(CharacterType.RATIO);
        assertThat(guess("number of long hairs", "5", "6-7", "9"))
                .isEqualTo(new TypeGuess.Guess(CharacterType.COUNT, false));
        assertThat(guess("weight", "10-20 lb", "3 lb 2 oz", "400 g"))
                .isEqualTo(new TypeGuess.Guess(CharacterType.MASS, false));
        assertThat(guess("scape", "5 cm", "60", "8-9 mm"))
                .as("a bare number beside units")
                .isEqualTo(new TypeGuess.Guess(CharacterType.LENGTH, true));
        assertThat(guess("flowering", "5-7", "IX-X", "2024-06-08").type()).isEqualTo(CharacterType.MONTHS);
        assertThat(guess("whorls", "5-7", "6", "2024-06-08").type()).isEqualTo(CharacterType.COUNT);
        assertThat(guess("petals", "5-7", "6", "4", "5", "x").type())
                .as("one slip does not make states of numbers")
                .isEqualTo(CharacterType.COUNT);
        assertThat(guess("margin", "toothed", "entire").type()).isEqualTo(CharacterType.STATES);
        assertThat(TypeGuess.unit(List.of("5 inches", "3\"", "2 cm"), CharacterType.LENGTH))
                .isEqualTo("in");
    }

    @ParameterizedTest
    @CsvSource({
        "♂, male",
        "♂ with horns, male-with-horns",
        ">10, over-10",
        "< 10, under-10",
        "≥10, at-least-10",
        "10, 10",
        "+, plus",
        "−, minus",
        "±, plus-minus",
        "a + b, a-b",
        "Tarnella × nana, tarnella-nana"
    })
    void signsThatSaySomethingAreSpelledOut(String label, String slug) {
        assertThat(Slug.of(label)).isEqualTo(slug);
    }

    private static TypeGuess.Guess guess(String heading, String... texts) {
        return TypeGuess.of(heading, List.of(texts));
    }

    @Test
    void whatDoesNotParseSaysWhyAndNamesTheNearest() {
        assertThat(refused("tothed", MARGIN))
                .contains("'tothed' is not a state of 'leaf margin'")
                .contains("'toothed'");
        assertThat(refused("toothed + entire / lobed", MARGIN)).contains("'+' and '/'");
        assertThat(refused("mistaken entire", MARGIN)).contains("Nothing says");
        assertThat(refused("toothed, toothed", MARGIN)).contains("named twice");
        assertThat(refused("12–9 mm", WIDTH)).contains("do not rise").contains("Swap them");
        assertThat(refused("5 kg", WIDTH)).contains("'kg' is not a unit");
        assertThat(refused("broad", WIDTH)).contains("not a number or range");
        assertThat(refused("-3", WIDTH)).contains("below zero");
        assertThat(refused("4.5", PETALS)).contains("not a whole number");
        assertThat(refused("Mai", SEASON)).contains("not a month");
    }

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 300);
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void whatIsPrintedReadsBackTheSame(long seed) {
        Random random = new Random(seed);
        StudyCharacter character = List.of(MARGIN, WIDTH, PETALS, SEASON).get(random.nextInt(4));
        ScoreValue value = RandomScores.of(character, random);
        assertThat(read(NotationPrinter.print(value, character), character)).isEqualTo(value);
    }
}
