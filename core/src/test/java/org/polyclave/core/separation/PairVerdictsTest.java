package org.polyclave.core.separation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.DoubleStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MatrixRow;
import org.polyclave.core.statistics.Measured;
import org.polyclave.core.statistics.Tolerance;
import org.polyclave.core.testkit.SeparationOracle;

/** All pairs at once against the definition, pair by pair. */
class PairVerdictsTest {
    static LongStream seeds() {
        return LongStream.rangeClosed(1, 60);
    }

    private static void compare(PairVerdicts all, Matrix matrix, SeparationContext context) {
        SeparationOracle oracle = new SeparationOracle(matrix, context);
        StrictSeparation pairs = new StrictSeparation(matrix, context);
        for (int a = 0; a < matrix.rowCount(); a++) {
            for (int b = 0; b < matrix.rowCount(); b++) {
                if (a != b) {
                    Verdict verdict = oracle.verdict(a, b);
                    assertThat(all.verdict(a, b)).as("%d and %d at once", a, b).isEqualTo(verdict);
                    assertThat(pairs.verdict(a, b)).as("%d and %d alone", a, b).isEqualTo(verdict);
                }
            }
        }
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void allPairsAtOnceAreWhatTheDefinitionSays(long seed) {
        Random random = new Random(seed);
        // More rows than a word has bits, and than a block of ends.
        Matrix matrix =
                SeparationCases.matrix(random, 2 + random.nextInt(seed % 6 == 0 ? 150 : 40), 1 + random.nextInt(14));
        SeparationContext context = SeparationCases.context(random, matrix.characterCount());
        PairVerdicts all = PairVerdicts.of(matrix, context);
        compare(all, matrix, context);
        long counted = 0;
        for (Verdict verdict : Verdict.values()) {
            counted += all.count(verdict);
        }
        assertThat(counted).isEqualTo(matrix.rowCount() * (matrix.rowCount() - 1L) / 2);
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void anEditedCellChangesItsRowOnly(long seed) {
        Random random = new Random(seed);
        Matrix before = SeparationCases.matrix(random, 3 + random.nextInt(30), 1 + random.nextInt(10));
        SeparationContext context = SeparationCases.context(random, before.characterCount());
        int row = random.nextInt(before.rowCount());
        int c = random.nextInt(before.characterCount());
        Cell cell = random.nextInt(3) == 0 ? Cell.UNKNOWN : before.cell(random.nextInt(before.rowCount()), c);
        Matrix after = before.with(row, c, cell);
        PairVerdicts verdicts = PairVerdicts.of(before, context);
        compare(verdicts.withRow(after, row), after, context);
        compare(verdicts, before, context);
        PairCounts edited = PairCounts.of(before, context).withRow(after, context, row);
        PairCounts anew = PairCounts.of(after, context);
        for (int i = 0; i < after.rowCount(); i++) {
            for (int j = 0; j < i; j++) {
                assertThat(edited.groups(i, j)).isEqualTo(anew.groups(i, j)).isEqualTo(edited.groups(j, i));
            }
        }
        assertThat(after.rowsUnlike(before))
                .hasValueSatisfying(rows -> assertThat(rows).containsExactly(row));
    }

    private static Difference sizes(Cell.Numeric a, Cell.Numeric b) {
        MatrixCharacter size = new MatrixCharacter(
                "size", CharacterType.LENGTH, 0, List.of(), 0, 0, 0, 1, 0.5, 0.05, 0xFFF, false, true);
        List<MatrixRow> rows =
                List.of(new MatrixRow("a", 0, 0, 1, Hazard.NONE_KNOWN), new MatrixRow("b", 1, 1, 1, Hazard.NONE_KNOWN));
        return new StrictSeparation(Matrix.of(rows, List.of(size), new Cell[][] {{a}, {b}})).difference(0, 1, 0);
    }

    private static Cell.Numeric measured(double min, double max, int n, double mean, double sd) {
        return new Cell.Numeric(min, min, max, max, Optional.of(new Measured(n, mean, sd)));
    }

    @Test
    void aGapOfFewIndividualsIsOneSoFar() {
        assertThat(sizes(Cell.Numeric.range(5, 7), Cell.Numeric.range(8, 9))).isEqualTo(Difference.STRICT);
        assertThat(sizes(Cell.Numeric.range(5, 7), Cell.Numeric.range(7.4, 9)))
                .as("closer than a reading tells")
                .isEqualTo(Difference.SHARED);
        assertThat(sizes(new Cell.Numeric(4, 5, 6, 8), new Cell.Numeric(7, 9, 10, 12)))
                .isEqualTo(Difference.TENDENCY);
        // Ten individuals: 6 + 2.84 · 0.5 reaches 7.42, beyond 8 − 0.5; forty stand as they were seen.
        assertThat(sizes(measured(5, 7, 10, 6, 0.6), Cell.Numeric.range(8, 9))).isEqualTo(Difference.SO_FAR);
        assertThat(sizes(measured(5, 7, 40, 6, 0.6), Cell.Numeric.range(8, 9))).isEqualTo(Difference.STRICT);
        assertThat(sizes(measured(5, 7, 10, 6, 0.3), Cell.Numeric.range(8, 9))).isEqualTo(Difference.STRICT);
    }

    @ParameterizedTest
    @CsvSource({"5, 4.27", "10, 2.84", "20, 2.31", "30, 2.14"})
    void toleranceLimitsHoldNineTenthsOfAllWithNinetyFivePercent(int n, double factor) {
        assertThat(Tolerance.of(n, 0, 1).high()).isCloseTo(factor, within(0.006));
        Random random = new Random(n);
        int runs = 4000;
        int held = 0;
        for (int run = 0; run < runs; run++) {
            double[] values = DoubleStream.generate(() -> 10 + random.nextGaussian())
                    .limit(n)
                    .toArray();
            double mean = Arrays.stream(values).average().orElseThrow();
            double squares =
                    Arrays.stream(values).map(v -> (v - mean) * (v - mean)).sum();
            var limits = Tolerance.of(n, mean, Math.sqrt(squares / (n - 1)));
            held += normal(limits.high() - 10) - normal(limits.low() - 10) >= 0.9 ? 1 : 0;
        }
        assertThat(held / (double) runs).isBetween(0.935, 0.965);
    }

    /** Of the standard normal distribution, by Simpson's rule. */
    private static double normal(double x) {
        int steps = 400;
        double h = x / steps;
        double sum = 0;
        for (int k = 0; k <= steps; k++) {
            double weight = k == 0 || k == steps ? 1 : k % 2 == 1 ? 4 : 2;
            sum += weight * Math.exp(-(k * h) * (k * h) / 2);
        }
        return 0.5 + sum * h / 3 / Math.sqrt(2 * Math.PI);
    }
}
