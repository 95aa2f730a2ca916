package org.polyclave.core.margin;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;

/** What readers record of sizes and counts: stretches between the ends of all ranges, and readings that reach over them. */
final class SafetyDistributionsTest {
    private static Matrix ranges(CharacterType type, double... ends) {
        List<MatrixRow> rows = new ArrayList<>();
        Cell[][] cells = new Cell[ends.length / 2][1];
        for (int i = 0; i < cells.length; i++) {
            rows.add(new MatrixRow("r" + i, i, i, 1, i == 0 ? Hazard.SERIOUS : Hazard.NONE_KNOWN));
            cells[i][0] = Cell.Numeric.range(ends[2 * i], ends[2 * i + 1]);
        }
        return Matrix.of(rows, List.of(MatrixCharacter.of("size", type, 0, 0)), cells);
    }

    private static Observation reading(double value, double uncertainty) {
        return new Observation.MeasuredObservation(value, uncertainty);
    }

    /** Ends 1, 2, 3, 5, 6 and 8; stretches reach from above one to the next, the last without end. */
    @ParameterizedTest(name = "{0} ± {1}: stretches {2} to {3}")
    @CsvSource({
        "0.5, 0.2, 0, 0",
        "1, 0, 0, 0",
        "1.01, 0, 1, 1",
        "2, 0, 1, 1",
        "2.5, 0.4, 2, 2",
        "2.5, 0.5, 1, 2",
        "3, 1, 1, 3",
        "5.5, 0.5, 3, 4",
        "8, 0, 5, 5",
        "8.1, 0, 6, 6",
        "4, 100, 0, 6"
    })
    void aReadingIsOfTheStretchesThatItReachesOver(double value, double uncertainty, int from, int to) {
        Matrix matrix = ranges(CharacterType.LENGTH, 1, 3, 5, 8, 2, 6, 1, 3);
        SafetyDistributions of = new SafetyDistributions(matrix);
        assertThat(of.atoms(0)).isEqualTo(7);
        double misreading = 0.12;
        double anyway = 0;
        for (int s = from; s <= to; s++) {
            anyway += of.ofStudy(0)[s];
        }
        for (int s = 0; s < 7; s++) {
            double meant = s >= from && s <= to ? 1 - misreading : 0;
            assertThat(of.recorded(-1, 0, s, reading(value, uncertainty), misreading))
                    .as("stretch %d", s)
                    .isCloseTo(meant + misreading * anyway, within(1e-12));
        }
    }

    /** Whole numbers lie in the middle of their stretches. */
    @Test
    void countsReachHalfWayToTheNext() {
        SafetyDistributions of = new SafetyDistributions(ranges(CharacterType.COUNT, 2, 3, 4, 6));
        assertThat(of.atoms(0)).as("ends 1.5, 3.5 and 6.5").isEqualTo(4);
        assertThat(of.recorded(-1, 0, 1, reading(3, 0), 0)).isEqualTo(1);
        assertThat(of.recorded(-1, 0, 2, reading(4, 0), 0)).isEqualTo(1);
        assertThat(of.recorded(-1, 0, 1, reading(4, 0), 0)).isZero();
    }

    @Test
    void everySpecimenLiesSomewhereAndTheStudyIsTheMeanOfItsRows() {
        Matrix matrix = ranges(CharacterType.LENGTH, 1, 3, 5, 8, 2, 6);
        SafetyDistributions of = new SafetyDistributions(matrix);
        double[] mean = new double[of.atoms(0)];
        for (int i = 0; i < 3; i++) {
            double[] shares = of.shares(i, 0);
            assertThat(Arrays.stream(shares).sum()).isCloseTo(1, within(1e-9));
            Cell.Numeric range = (Cell.Numeric) matrix.cell(i, 0);
            double inside = 0;
            double[] ends = {Double.NEGATIVE_INFINITY, 1, 2, 3, 5, 6, 8, Double.POSITIVE_INFINITY};
            for (int s = 0; s < shares.length; s++) {
                inside += ends[s] >= range.min() && ends[s + 1] <= range.max() ? shares[s] : 0;
                mean[s] += shares[s] / 3;
            }
            assertThat(inside).as("row %d within its own range", i).isGreaterThan(0.8);
        }
        assertThat(of.ofStudy(0)).containsExactly(mean, within(1e-12));
    }

    /** However many ranges there are, the stretches stay few, from the first end to the last. */
    @Test
    void manyRangesShareTheirStretches() {
        double[] ends = new double[400];
        for (int i = 0; i < 200; i++) {
            ends[2 * i] = 1 + i;
            ends[2 * i + 1] = 1.5 + i;
        }
        SafetyDistributions of = new SafetyDistributions(ranges(CharacterType.LENGTH, ends));
        int n = of.atoms(0);
        assertThat(n).isLessThan(100);
        assertThat(of.recorded(-1, 0, 0, reading(1, 0), 0))
                .as("up to the first end")
                .isEqualTo(1);
        assertThat(of.recorded(-1, 0, 1, reading(1.01, 0), 0)).isEqualTo(1);
        assertThat(of.recorded(-1, 0, n - 2, reading(200.5, 0), 0))
                .as("up to the last end")
                .isEqualTo(1);
        assertThat(of.recorded(-1, 0, n - 1, reading(200.51, 0), 0)).isEqualTo(1);
        for (int s = 0; s < n; s++) {
            assertThat(of.ofStudy(0)[s]).isBetween(0.0, 0.2);
        }
    }

    @ParameterizedTest(name = "{0} ± {1}: {2}")
    @CsvSource({
        "3.5, 0.5, false",
        "3.51, 0.5, true",
        "0.5, 0.5, false",
        "0.49, 0.5, true",
        "2, 0, false",
        "3, 0, false",
        "1, 0, false",
        "3.1, 0, true",
        "0.9, 0, true"
    })
    void aReadingIsOutsideWhenItsUncertaintyDoesNotReachTheRange(double value, double uncertainty, boolean outside) {
        SafetyDistributions of = new SafetyDistributions(ranges(CharacterType.LENGTH, 1, 3, 5, 8));
        assertThat(of.isOutside(0, 0, reading(value, uncertainty))).isEqualTo(outside);
        assertThat(of.isOutside(0, 0, new Observation.Seen(1)))
                .as("no reading at all")
                .isFalse();
    }

    @Test
    void whatIsTypicalIsTheMiddleOfTheUsualOrTheCommonestThatIsThere() {
        Matrix sizes = ranges(CharacterType.LENGTH, 1, 3, 5, 9);
        assertThat(new SafetyDistributions(sizes).typical(1, 0))
                .isInstanceOfSatisfying(
                        Observation.MeasuredObservation.class,
                        o -> assertThat(o.value()).isEqualTo(7));
        MatrixCharacter ring = MatrixCharacter.of("ring", CharacterType.STATES, 3, 0);
        Cell[][] cells = {
            {new Cell.Categorical(0b111, 0b111, new double[] {0.5, 0.2, 0.3})}, {Cell.Categorical.single(0, 3)}
        };
        List<MatrixRow> rows = List.of(
                new MatrixRow("bane", 0, 0, 1, Hazard.SERIOUS), new MatrixRow("mild", 1, 1, 1, Hazard.NONE_KNOWN));
        assertThat(new SafetyDistributions(Matrix.of(rows, List.of(ring), cells)).typical(0, 0))
                .isEqualTo(new Observation.Seen(0b001));
        assertThat(new SafetyDistributions(Matrix.of(rows, List.of(ring.withAbsence(0b001)), cells)).typical(0, 0))
                .as("absence is not what readers look for")
                .isEqualTo(new Observation.Seen(0b100));
    }
}
