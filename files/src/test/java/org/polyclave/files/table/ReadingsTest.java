package org.polyclave.files.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.measuring.Slips;
import org.polyclave.study.measuring.ReadingSheet;
import org.polyclave.study.measuring.ReadingSummary;
import org.polyclave.study.rules.InvalidInput;
import org.polyclave.study.rules.Problem;

final class ReadingsTest {
    private static ReadingSheet read(String table) {
        return ReadingTable.read(table.getBytes(StandardCharsets.UTF_8), "readings.csv");
    }

    private static ReadingSheet clean(String table) {
        ReadingSheet readings = read(table);
        assertThat(readings.problems()).isEmpty();
        return readings;
    }

    private static List<Double> numbers(ReadingSheet.Column column) {
        return column.readings().stream().map(ReadingSheet.Measurement::number).toList();
    }

    @Test
    void unitsAreConvertedAndWhatWasTypedIsKept() {
        ReadingSheet readings = clean("""
                specimen,leaf width (mm),stem,petals
                A,12.5,"1,5 cm",5
                B,1/2 in,2 cm,6
                C,"1 1/4\""",0.5 in,?
                """);
        ReadingSheet.Column width = readings.columns().get(0);
        assertThat(width.character()).isEqualTo("leaf width");
        assertThat(width.unit()).isEqualTo("mm");
        assertThat(numbers(width)).containsExactly(12.5, 12.7, 31.75);
        assertThat(width.readings().get(2).typed()).isEqualTo("1 1/4\"");
        assertThat(width.step()).isEqualByComparingTo("0.1");
        ReadingSheet.Column stem = readings.columns().get(1);
        assertThat(stem.unit()).isEqualTo("cm");
        assertThat(numbers(stem)).containsExactly(1.5, 2.0, 1.27);
        ReadingSheet.Column petals = readings.columns().get(2);
        assertThat(petals.type()).isEqualTo(CharacterType.COUNT);
        assertThat(petals.readings().get(2).isMissing()).isTrue();
    }

    /** The same readings, one a line and one specimen a line, come to the same. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4})
    void longAndWideTablesComeToTheSame(long seed) {
        Random random = new Random(seed);
        StringBuilder wide = new StringBuilder("specimen,row,item,event,leaf width (mm),hair\n");
        StringBuilder narrow = new StringBuilder("specimen,row,item,event,character,value,unit\n");
        for (int i = 0; i < 90; i++) {
            String about = "S" + i / 2 + ",Row " + i % 3 + ",leaf " + i % 2 + ",E" + i % 7 + ",";
            String width = String.valueOf(Math.round(20 * Math.exp(0.2 * random.nextGaussian())));
            String hair = random.nextInt(4) == 0 ? "hairy" : "bald";
            wide.append(about).append(width).append(',').append(hair).append('\n');
            narrow.append(about).append("leaf width (mm),").append(width).append(",mm\n");
            narrow.append(about).append("hair,").append(hair).append(",\n");
        }
        List<String> by = List.of("row");
        List<ReadingSummary> fromWide = ReadingSummary.of(clean(wide.toString()), by);
        assertThat(fromWide).hasSize(6);
        assertThat(ReadingSummary.of(clean(narrow.toString()), by))
                .usingRecursiveFieldByFieldElementComparatorIgnoringFields("flagged")
                .isEqualTo(fromWide);
    }

    @Test
    void individualsCountOnceAndFlagsNameTheirLine() {
        StringBuilder table = new StringBuilder("specimen,row,stage,event,width (mm),petals,hue\n");
        for (int i = 1; i <= 12; i++) {
            String width = i == 7 ? "0.98" : String.valueOf(22 + i % 6);
            table.append("S%d,Reed,adult,E%d,%s,%s,%s\n"
                    .formatted(i, i % 3, width, i == 3 ? "5.5" : "5", i % 4 == 0 ? "Red" : "white"));
            table.append("S%d,Reed,adult,E%d,,5,\n".formatted(i, i % 3));
        }
        ReadingSheet readings = clean(table.toString());
        assertThat(ReadingSummary.usualFields(readings)).containsExactly("row", "stage");
        List<ReadingSummary> summaries = ReadingSummary.of(readings, ReadingSummary.usualFields(readings));
        ReadingSummary width = summaries.get(0);
        assertThat(width.group()).containsEntry("row", "Reed").containsEntry("stage", "adult");
        assertThat(width.counts()).isEqualTo(new ReadingSummary.Counts(12, 12, 12, 12, 3));
        assertThat(width.flagged()).singleElement().satisfies(f -> {
            assertThat(f.line()).isEqualTo(14);
            assertThat(f.cause()).isEqualTo(Slips.Cause.INCHES);
            assertThat(f.repaired().orElseThrow()).isCloseTo(24.892, within(1e-9));
        });
        assertThat(width.cell()).isEqualTo("0.98–27 mm");
        assertThat(width.provisional()).isTrue();
        ReadingSummary petals = summaries.get(1);
        assertThat(petals.flagged()).extracting(ReadingSummary.Flag::cause).containsExactly(Slips.Cause.FRACTION);
        assertThat(petals.cell()).isEqualTo("5–6");
        ReadingSummary hue = summaries.get(2);
        assertThat(hue.states())
                .containsExactly(new ReadingSummary.State("white", 9), new ReadingSummary.State("Red", 3));
        assertThat(hue.cell()).isEqualTo("usually white, sometimes Red");
    }

    @Test
    void fewIndividualsProposeNothing() {
        ReadingSummary summary =
                ReadingSummary.of(clean("width (mm)\n3\n4\n5\n4\n"), List.of()).get(0);
        assertThat(summary.counts().individuals()).isEqualTo(4);
        assertThat(summary.cell()).isEmpty();
        assertThatExceptionOfType(InvalidInput.class)
                .isThrownBy(() -> ReadingSummary.of(clean("row,width\nA,3\n"), List.of("place")))
                .withMessageContaining("no column 'place'")
                .withMessageContaining("row");
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "specimen,width (mm);A,-3;B,2|Row 2, column 2 (width (mm)): '-3' is below zero",
                "specimen,width (mm);A,3;B,1e999|Row 3, column 2 (width (mm)): '1e999' is too large",
                "specimen,width (mm);A,3;B,4;C,wide|Row 4, column 2 (width (mm)): 'wide' is not a number",
                "specimen,width;A,3 mm;B,4 g|Row 3, column 2 (width): '4 g' is in 'g', which is not a unit of what is measured in mm",
                "specimen,width;A,3 mm;B,4|Row 3, column 2 (width): '4' has no unit",
                "specimen,width;,3 mm|Row 2, column 1 (specimen): this line has no specimen",
                "specimen,specimen,width;A,B,3|Row 1, column 2 (specimen): there are two columns for 'specimen'",
                "specimen,character,value;A,,3|Row 2, column 2 (character): this line names no character",
                "specimen,row;A,Reed|The table has no readings",
                "specimen,width;A,1/0 in;B,2 in|Row 2, column 2 (width): '1/0 in' is not a number"
            })
    void badReadingsAreToldAtTheirPlace(String table, String told) {
        List<Problem> blocking = read(table.replace(';', '\n')).blocking();
        assertThat(blocking).hasSize(1);
        assertThat(blocking.get(0).sentence()).startsWith(told);
    }

    @Test
    void tasteIsSetAside() {
        ReadingSheet readings = read("specimen,taste,width\nA,bitter,3\n");
        assertThat(readings.blocking()).isEmpty();
        assertThat(readings.problems())
                .singleElement()
                .satisfies(p -> assertThat(p.text()).contains("set aside"));
        assertThat(readings.columns())
                .extracting(ReadingSheet.Column::character)
                .containsExactly("width");
    }
}
