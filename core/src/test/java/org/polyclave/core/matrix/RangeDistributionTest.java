package org.polyclave.core.matrix;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.polyclave.core.matrix.RangeDistribution.Tails;
import org.polyclave.core.statistics.Measured;
import org.polyclave.core.statistics.StudentPredictive;
import org.polyclave.core.statistics.StudentT;

class RangeDistributionTest {
    private static final double INF = Double.POSITIVE_INFINITY;
    private static final MatrixCharacter LENGTH = MatrixCharacter.of("l", CharacterType.LENGTH, 0, 0);
    private static final MatrixCharacter COUNT = MatrixCharacter.of("c", CharacterType.COUNT, 0, 0);

    private static RangeDistribution of(MatrixCharacter character, Cell.Numeric... ranges) {
        return RangeDistribution.of(List.of(ranges), character, Tails.KEPT);
    }

    @Test
    void ninetyPercentLieInTheCoreAndTheTailsShareTheRestByWidth() {
        RangeDistribution d = of(LENGTH, new Cell.Numeric(2, 5, 9, 10));
        assertThat(d.share(5, 9)).isCloseTo(0.9, within(1e-12));
        assertThat(d.share(2, 5)).isCloseTo(0.075, within(1e-12));
        assertThat(d.share(9, 10)).isCloseTo(0.025, within(1e-12));
        assertThat(d.share(-INF, INF)).isCloseTo(1, within(1e-12));
        assertThat(of(LENGTH, Cell.Numeric.range(5, 9)).share(5, 6)).isCloseTo(0.25, within(1e-12));
    }

    @Test
    void countsGiveWholeShares() {
        RangeDistribution d = of(COUNT, Cell.Numeric.range(4, 7));
        assertThat(d.share(3.5, 4.5)).isCloseTo(0.25, within(1e-12));
        assertThat(d.share(-INF, 5.5)).isCloseTo(0.5, within(1e-12));
    }

    @Test
    void partsHaveTheirOwnShares() {
        Cell.Numeric usuallyFive = Cell.Numeric.inParts(
                3, 5, 5, 8, List.of(new Cell.Part(5, 5, 0.75), new Cell.Part(3, 4, 0.2), new Cell.Part(8, 8, 0.05)));
        RangeDistribution d = of(COUNT, usuallyFive);
        assertThat(d.within(4.5, 5.5)).isCloseTo(0.75, within(1e-12));
        assertThat(d.within(2.5, 3.5)).isCloseTo(0.1, within(1e-12));
        assertThat(d.within(5.6, 7.4)).as("nobody has six or seven").isZero();
        assertThat(of(COUNT, usuallyFive, Cell.Numeric.range(6, 6)).within(4.5, 6.5))
                .isCloseTo(0.875, within(1e-12));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Cell.Numeric.inParts(3, 5, 5, 8, List.of(new Cell.Part(5, 9, 1))));
    }

    @Test
    void aSingleValueIsAStep() {
        RangeDistribution d = of(LENGTH, Cell.Numeric.range(6, 6));
        assertThat(d.share(5, 6)).isEqualTo(1);
        assertThat(d.share(6, 7)).isZero();
        assertThat(d.within(6, 6)).isEqualTo(1);
    }

    /**
     * Points of Student's t by degrees of freedom (Fisher &amp; Yates, Statistical Tables, 6th ed. 1963, table III): the
     * share above t is 5 %, 2.5 % and 0.5 %.
     */
    @ParameterizedTest
    @CsvSource({
        "1, 6.314, 12.706, 63.657",
        "2, 2.920, 4.303, 9.925",
        "4, 2.132, 2.776, 4.604",
        "7, 1.895, 2.365, 3.499",
        "10, 1.812, 2.228, 3.169",
        "19, 1.729, 2.093, 2.861",
        "30, 1.697, 2.042, 2.750",
        "120, 1.658, 1.980, 2.617"
    })
    void aMeasuredSampleFollowsStudent(int degrees, double five, double two, double half) {
        int n = degrees + 1;
        double sd = 0.7;
        StudentPredictive predictive = new StudentPredictive(new Measured(n, 50, sd));
        double scale = sd * Math.sqrt(1 + 1.0 / n);
        double[][] points = {{five, 0.05}, {two, 0.025}, {half, 0.005}};
        for (double[] point : points) {
            assertThat(predictive.upTo(50 + point[0] * scale)).isCloseTo(1 - point[1], within(6e-5));
            assertThat(predictive.upTo(50 - point[0] * scale)).isCloseTo(point[1], within(6e-5));
            assertThat(StudentT.point(1 - point[1], degrees)).isCloseTo(point[0], within(0.0006));
        }
        RangeDistribution drawn = of(LENGTH, new Cell.Numeric(49, 49, 51, 51, Optional.of(new Measured(n, 50, sd))));
        for (double x = 45; x < 55; x += 0.01) {
            assertThat(drawn.share(-INF, x)).isCloseTo(predictive.upTo(x), within(0.005));
        }
        assertThat(drawn.share(-INF, INF)).isEqualTo(1);
        assertThat(drawn.share(51, INF)).as("the next one may lie outside").isPositive();
    }

    @Test
    void keysKeepToTheRangeAndSkewedSamplesToTheLogScale() {
        Cell.Numeric skewed = new Cell.Numeric(1, 1, 30, 30, Optional.of(new Measured(12, 8, 6)));
        RangeDistribution cut = RangeDistribution.of(List.of(skewed), LENGTH, Tails.CUT);
        assertThat(cut.share(-INF, 1)).isZero();
        assertThat(cut.share(1, 30)).isCloseTo(1, within(1e-12));
        assertThat(cut.share(1, 8)).as("more below the mean than above").isGreaterThan(0.55);
        RangeDistribution kept = RangeDistribution.of(List.of(skewed), LENGTH, Tails.KEPT);
        assertThat(kept.share(-INF, 0)).as("no size is negative").isZero();
        StudentPredictive predictive = new StudentPredictive(new Measured(12, 8, 6));
        double admitted = predictive.upTo(30) - predictive.upTo(1);
        for (double x = 1; x < 30; x += 0.5) {
            assertThat(cut.share(1, x)).isCloseTo((predictive.upTo(x) - predictive.upTo(1)) / admitted, within(0.006));
        }
    }

    @Test
    void mixturesAverage() {
        RangeDistribution d =
                of(LENGTH, Cell.Numeric.range(0, 10), Cell.Numeric.range(5, 6), Cell.Numeric.range(20, 20));
        assertThat(d.share(5, 6)).isCloseTo((0.1 + 1 + 0) / 3, within(1e-12));
        assertThat(d.share(10, INF)).isCloseTo(1 / 3.0, within(1e-12));
    }
}
