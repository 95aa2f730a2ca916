package org.polyclave.core.statistics;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.function.ToDoubleFunction;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How often clean samples raise an alarm, and how often tolerance limits hold what they promise: as the docs say. */
class SampleRatesTest {
    private static final int SAMPLES = 1500;

    @ParameterizedTest(name = "{0} of {1}, {2}")
    @CsvSource({
        "normal, 25, 3, 8",
        "normal, 25, 3, 20",
        "normal, 25, 3, 100",
        "normal, 25, 3, 400",
        "lognormal, 0, 0.2, 10",
        "lognormal, 0, 0.2, 100",
        "lognormal, 0, 0.5, 8",
        "lognormal, 0, 0.5, 40",
        "lognormal, 0, 0.5, 400",
        "lognormal, 0, 0.8, 20",
        "lognormal, 0, 0.8, 100"
    })
    void alarmsAreRareAndLimitsHold(String kind, double centre, double spread, int n) {
        boolean logs = "lognormal".equals(kind);
        ToDoubleFunction<Random> draw = r -> centre + spread * r.nextGaussian();
        Random random = new Random(n);
        int alarms = 0;
        int held = 0;
        for (int s = 0; s < SAMPLES; s++) {
            double[] sample = random.doubles(n)
                    .map(u -> logs ? Math.exp(draw.applyAsDouble(random)) : draw.applyAsDouble(random))
                    .toArray();
            alarms += Outliers.of(sample, 1e-6).isEmpty() ? 0 : 1;
            Summary.Interval limits = Tolerance.of(sample);
            assertThat(limits.low()).as("a size is above 0").isPositive();
            double low = ((logs ? Math.log(limits.low()) : limits.low()) - centre) / spread;
            double high = ((logs ? Math.log(limits.high()) : limits.high()) - centre) / spread;
            held += upTo(high) - upTo(low) >= 0.95 ? 1 : 0;
        }
        assertThat(100.0 * alarms / SAMPLES)
                .as("samples of a hundred with an alarm")
                .isBetween(1.5, 9.5);
        assertThat(100.0 * held / SAMPLES)
                .as("limits of a hundred that hold 95 %%")
                .isBetween(90.0, 97.5);
    }

    private static double upTo(double z) {
        return 0.5 + Math.signum(z) * ChiSquare.upTo(z * z, 1) / 2;
    }
}
