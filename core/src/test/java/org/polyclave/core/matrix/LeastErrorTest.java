package org.polyclave.core.matrix;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.polyclave.core.statistics.Measured;

/** The cut between two ranges, against trying many. */
class LeastErrorTest {
    private static final int STEPS = 4000;

    static LongStream seeds() {
        return LongStream.rangeClosed(1, 60);
    }

    private static RangeDistribution of(Cell.Numeric range) {
        MatrixCharacter size = MatrixCharacter.of("size", CharacterType.LENGTH, 0, 0);
        return RangeDistribution.of(List.of(range), size, RangeDistribution.Tails.KEPT);
    }

    private static Cell.Numeric range(Random random, double from) {
        double low = from + random.nextInt(20);
        double high = low + 1 + random.nextInt(20);
        double min = low - random.nextInt(4);
        double max = high + random.nextInt(4);
        Optional<Measured> measured = random.nextInt(3) == 0
                ? Optional.of(new Measured(3 + random.nextInt(40), (low + high) / 2, (high - low) / 4))
                : Optional.empty();
        return new Cell.Numeric(min, low, high, max, measured);
    }

    private static double error(RangeDistribution lower, RangeDistribution upper, double cut) {
        return (1 - lower.share(Double.NEGATIVE_INFINITY, cut) + upper.share(Double.NEGATIVE_INFINITY, cut)) / 2;
    }

    @ParameterizedTest(name = "seed {0}")
    @MethodSource("seeds")
    void noOtherCutIsBetter(long seed) {
        Random random = new Random(seed);
        RangeDistribution lower = of(range(random, 10));
        RangeDistribution upper = of(range(random, 20));
        RangeDistribution.LeastError best = lower.cutBelow(upper);
        double tried = 1;
        for (int k = 0; k <= STEPS; k++) {
            double cut = 100.0 * k / STEPS;
            double error = error(lower, upper, cut);
            tried = Math.min(tried, error);
            assertThat(error).as("cut at %s", cut).isGreaterThanOrEqualTo(best.error() - 1e-9);
        }
        assertThat(best.error())
                .as("and it is as good as the best of those tried")
                .isCloseTo(tried, within(5e-3));
        assertThat(error(lower, upper, best.middle())).isCloseTo(best.error(), within(1e-9));
    }

    @Test
    void betweenRangesThatAreApartEveryCutIsGood() {
        RangeDistribution.LeastError best = of(Cell.Numeric.range(2, 4)).cutBelow(of(Cell.Numeric.range(6, 9)));
        assertThat(best.from()).isEqualTo(4);
        assertThat(best.to()).isEqualTo(6);
        assertThat(best.error()).isZero();
        assertThat(best.middle()).isEqualTo(5);
    }
}
