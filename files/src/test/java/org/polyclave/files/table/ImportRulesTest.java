package org.polyclave.files.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportAccount.Fate;
import org.polyclave.files.source.ImportAccount.Reason;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.source.UnreadCell;
import org.polyclave.study.model.StudyCharacter.StudyState;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.TypeGuess;
import org.polyclave.study.notation.UnitHeading;

/** The small rules by which tables that nobody prepared are understood, each at its limits. */
class ImportRulesTest {
    private static Sheet sheet(String... lines) {
        List<List<String>> cells =
                Arrays.stream(lines).map(l -> List.of(l.split("\\|", -1))).toList();
        return new Sheet(cells, (row, column) -> new Sheet.Place(row + 1, column + 1), Map.of(), Map.of());
    }

    @Test
    void remarksAndCountsBelowATableAreNoTaxa() {
        String name = "Tarnella".repeat(10);
        assertThat(Footnotes.reason(sheet("n = 16||"), 0)).contains(Reason.COUNTS);
        assertThat(Footnotes.reason(sheet("|N=4|n = 12"), 0)).contains(Reason.COUNTS);
        assertThat(Footnotes.reason(sheet("Means|3|4"), 0)).contains(Reason.COUNTS);
        assertThat(Footnotes.reason(sheet("* only in fruit||"), 0)).contains(Reason.FOOTNOTE);
        assertThat(Footnotes.reason(sheet("Notes from the hut|Notes from the hut"), 0))
                .as("a merged cell")
                .contains(Reason.FOOTNOTE);
        assertThat(Footnotes.reason(sheet("Notella alta|toothed"), 0)).isEmpty();
        assertThat(Footnotes.reason(sheet("source|toothed"), 0))
                .as("with a score beside it")
                .isEmpty();
        assertThat(Footnotes.reason(sheet(name.substring(0, 70) + "|"), 0)).isEmpty();
        assertThat(Footnotes.reason(sheet(name.substring(0, 71) + "|"), 0)).contains(Reason.FOOTNOTE);
        assertThat(Footnotes.reason(sheet("|"), 0)).isEmpty();
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "7-9 x 4-5 µm    | 7-9 µm   | 4-5 µm",
                "7-9 mm x 4-5 mm | 7-9 mm   | 4-5 mm",
                "7×9             | 7        | 9",
                "7 ✕ 9           | 7        | 9",
                "7*9             | 7        | 9",
                "c. 7 x c. 9     | c. 7     | c. 9"
            })
    void twoMeasuresStandInOneCell(String text, String first, String second) {
        assertThat(TwoMeasures.of(text)).contains(List.of(first, second));
    }

    @ParameterizedTest
    @CsvSource({"7", "x", "7 x", "7 x 9 x 3", "7 x lobed", "toothed x lobed", "flexed 7"})
    void otherTextsAreNotTwoMeasures(String text) {
        assertThat(TwoMeasures.of(text)).isEmpty();
    }

    @Test
    void aColumnHoldsTwoMeasuresWhereMoreThanHalfOfItDoes() {
        assertThat(TwoMeasures.areMost(List.of("7 x 9", "6 x 8", "7", "8"))).isFalse();
        assertThat(TwoMeasures.areMost(List.of("7 x 9", "6 x 8", "7"))).isTrue();
        assertThat(TwoMeasures.areMost(List.of("7 x 9", "?", "", "n/a"))).isTrue();
        assertThat(TwoMeasures.areMost(List.of("?", ""))).isFalse();
    }

    @Test
    void aColumnOfSexesHoldsNothingElseAndMoreThanOne() {
        assertThat(StageWords.areAll(List.of("♂", "♀", ""))).isTrue();
        assertThat(StageWords.areAll(List.of("male", "both", "female"))).isTrue();
        assertThat(StageWords.areAll(List.of("male", "male"))).isFalse();
        assertThat(StageWords.areAll(List.of("male", "red"))).isFalse();
        assertThat(StageWords.full("both")).isEmpty();
        assertThat(StageWords.full("m")).isEqualTo("male");
    }

    @ParameterizedTest
    @CsvSource({
        "leaf length (mm), leaf length, LENGTH, mm",
        "leaf length [in cm], leaf length, LENGTH, cm",
        "'spores, µm', spores, LENGTH, µm",
        "spores (μm), spores, LENGTH, μm",
        "width in inches, width, LENGTH, in",
        "weight lbs, weight, MASS, lb",
        "angle °, angle, ANGLE, °"
    })
    void aUnitInAHeadingIsTheUnit(String heading, String label, CharacterType type, String unit) {
        assertThat(UnitHeading.parse(heading)).contains(new UnitHeading(label, type, unit));
    }

    @ParameterizedTest
    @CsvSource({"colour (outside)", "hairs in rows", "cm", "margin"})
    void otherHeadingsHaveNone(String heading) {
        assertThat(UnitHeading.parse(heading)).isEqualTo(Optional.empty());
    }

    @ParameterizedTest
    @CsvSource({
        "5 6, COUNT",
        "5 red, STATES",
        "5 6 red, STATES",
        "5 6 7 red, COUNT",
        "5 6 7 8 9 1 red blue, COUNT",
        "5 6 7 8 9 red blue, STATES"
    })
    void aSlipMakesNoStatesOfAColumnOfNumbers(String texts, CharacterType type) {
        assertThat(TypeGuess.of("teeth", List.of(texts.split(" "))).type()).isEqualTo(type);
    }

    @Test
    void signsArePresenceAndDecimalCommasAreNumbersInAPreparedTableToo() {
        ImportedStudy read = TableReader.read(
                "taxon;hairs;ratio;scent\nAa;+;2,5;none\nBb;-;3,5;faint\nCc;(+);4,25;none\nDd;+?;1,5;faint\n"
                        .getBytes(StandardCharsets.UTF_8),
                "t.csv");
        assertThat(read.usable()).isTrue();
        assertThat(read.study().character("hairs").orElseThrow().states())
                .extracting(StudyState::label)
                .containsExactlyInAnyOrder("present", "absent");
        assertThat(read.study().scores())
                .filteredOn(s -> s.character().equals("ratio"))
                .extracting(StudyScore::typed)
                .containsExactly("2.5", "3.5", "4.25", "1.5");
        assertThat(read.study().scores())
                .filteredOn(s -> s.character().equals("hairs") && s.doubtful())
                .extracting(StudyScore::row)
                .contains("dd");
        assertThat(read.study().scores())
                .filteredOn(s -> s.character().equals("scent"))
                .extracting(StudyScore::typed)
                .containsExactly("none", "faint", "none", "faint");
    }

    /** What is shown of a cell is what the file says, so that correcting it finds it again. */
    @Test
    void aCellAmongDecimalCommasIsCorrectedByItsOwnText() {
        byte[] table =
                "taxon;width;hairs\nAa;2,5;+\nBb;3,5 or so;-\nCc;4,25;+\nDd;1,5;+\n".getBytes(StandardCharsets.UTF_8);
        UnreadCell cell = TableReader.read(table, "t.csv").unread().get(0);
        assertThat(cell.text()).isEqualTo("3,5 or so");
        TableChoices corrected = new TableChoices(
                Map.of(), List.of(new TableChoices.CellCorrection("width", "", cell.text(), "3,5")), "");
        ImportedStudy read = TableReader.read(table, "t.csv", "", corrected, ReadingWatch.NONE);
        assertThat(read.unread()).isEmpty();
        assertThat(read.study().scores())
                .filteredOn(s -> s.character().equals("width"))
                .extracting(StudyScore::typed)
                .containsExactly("2.5", "3.5", "4.25", "1.5");
    }

    @Test
    void aCellOfWhichNobodySaysWhatBecameOfItIsFound() {
        Sheet file = sheet("taxon|width", "Aa|5", "|");
        CellLedger ledger = new CellLedger(file);
        ledger.markLine(file, 0, Fate.HEADING);
        ledger.mark(file.place(1, 0), Fate.NAME);
        assertThat(ledger.unaccounted()).containsExactly(file.place(1, 1));
        assertThat(ledger.text(file.place(1, 1))).isEqualTo("5");
        ledger.mark(file.place(1, 1), Fate.UNREAD);
        assertThat(ledger.unaccounted()).isEmpty();
        assertThat(ledger.isOfAnother(file)).isFalse();
        assertThat(ledger.isOfAnother(sheet("taxon|width"))).isTrue();
        assertThat(ledger.account(1).lines()).as("that hold something").isEqualTo(2);
    }
}
