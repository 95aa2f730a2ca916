package org.polyclave.core.statistics;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

final class SummaryTest {
    /** By the definition: the smallest value with at least a share h of the steps below, and what is left of a step. */
    @ParameterizedTest
    @ValueSource(ints = {1, 2, 5, 40, 41})
    void percentilesLieBetweenOrderStatistics(int n) {
        double[] sorted = new Random(n).doubles(n).sorted().toArray();
        for (double p : new double[] {0, 0.05, 0.25, 0.5, 0.95, 1}) {
            BigDecimal place = BigDecimal.valueOf(p).multiply(BigDecimal.valueOf(n - 1));
            int below = place.intValue();
            double rest = place.subtract(BigDecimal.valueOf(below)).doubleValue();
            double above = sorted[Math.min(below + 1, n - 1)];
            assertThat(Summary.quantile(sorted, p)).isCloseTo((1 - rest) * sorted[below] + rest * above, within(1e-12));
        }
    }

    /** Of a hundred samples about 95 hold the true mean; of the tolerance intervals about 95 hold 95 % of all. */
    @Test
    void intervalsHoldWhatTheySay() {
        Random random = new Random(11);
        int means = 0;
        int tolerances = 0;
        int samples = 2000;
        for (int s = 0; s < samples; s++) {
            double[] sample = random.doubles(12).map(u -> random.nextGaussian()).toArray();
            Summary summary = Summary.of(sample);
            means += summary.meanInterval().low() < 0 && summary.meanInterval().high() > 0 ? 1 : 0;
            Summary.Interval interval = Tolerance.of(sample);
            tolerances += normal(interval.high()) - normal(interval.low()) >= 0.95 ? 1 : 0;
        }
        assertThat(means / (double) samples).isBetween(0.94, 0.96);
        assertThat(tolerances / (double) samples).isBetween(0.94, 0.96);
        assertThat(Summary.of(new double[] {3}).meanInterval().high()).isInfinite();
    }

    private static double normal(double z) {
        return 0.5 + Math.signum(z) * ChiSquare.upTo(z * z, 1) / 2;
    }

    @ParameterizedTest
    @CsvSource({"0.05, 1, 0.003932140000", "0.95, 10, 18.307038053275", "0.05, 100, 77.929465165017"})
    void pointsOfChiSquare(double p, int degrees, double point) {
        assertThat(ChiSquare.point(p, degrees)).isCloseTo(point, within(point * 1e-8));
        assertThat(ChiSquare.normalPoint(0.975)).isCloseTo(1.959963984540054, within(1e-12));
        assertThat(StudentT.point(0.975, 10)).isCloseTo(2.228138851986275, within(1e-12));
    }
}
