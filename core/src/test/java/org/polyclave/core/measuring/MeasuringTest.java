package org.polyclave.core.measuring;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.BiFunction;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;
import org.polyclave.core.statistics.Outliers;
import org.polyclave.core.statistics.Summary;

final class MeasuringTest {
    private static double[] lognormal(Random random, int n, double median, double spread) {
        return random.doubles(n)
                .map(u -> Math.round(10 * median * Math.exp(spread * random.nextGaussian())) / 10.0)
                .toArray();
    }

    @Test
    void oneIndividualCountsOnce() {
        List<IndividualMeans.Mean> means = IndividualMeans.of(List.of(
                new IndividualMeans.ItemValue("A", "leaf 1", 10),
                new IndividualMeans.ItemValue("A", "leaf 1", 12),
                new IndividualMeans.ItemValue("B", "", 4),
                new IndividualMeans.ItemValue("A", "leaf 2", 21),
                new IndividualMeans.ItemValue("B", "", 6)));
        assertThat(means)
                .containsExactly(new IndividualMeans.Mean("A", 3, 2, 16), new IndividualMeans.Mean("B", 2, 2, 5));
    }

    @Test
    void aProposedRangeIsRoundedOutwardAndSetsExceptionsApartOnlyForMany() {
        BigDecimal tenth = new BigDecimal("0.1");
        assertThat(ProposedRange.of(new double[] {3.14, 2.9}, tenth)).isEmpty();
        assertThat(ProposedRange.of(new double[] {0.1 + 0.2, 0.42, 0.5, 0.31, 0.7}, tenth))
                .contains(new ProposedRange(0.3, 0.3, 0.7, 0.7, true));
        double[] many = IntStream.rangeClosed(1, 41).mapToDouble(i -> i / 10.0).toArray();
        assertThat(ProposedRange.of(many, tenth)).contains(new ProposedRange(0.1, 0.3, 3.9, 4.1, false));
        assertThatIllegalArgumentException().isThrownBy(() -> ProposedRange.of(many, BigDecimal.ZERO));
    }

    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
    void noIndividualIsShutOutOfItsProposedRange(long seed) {
        Random random = new Random(seed);
        double[] values = lognormal(random, 5 + random.nextInt(80), 12, 0.3);
        BigDecimal resolution =
                new BigDecimal(List.of("0.1", "0.5", "0.25", "1").get(random.nextInt(4)));
        ProposedRange range = ProposedRange.of(values, resolution).orElseThrow();
        double step = resolution.doubleValue();
        assertThat(range.min()).isBetween(Arrays.stream(values).min().orElseThrow() - step, values[0]);
        assertThat(Arrays.stream(values)).allMatch(v -> v >= range.min() && v <= range.max());
        assertThat(new double[] {range.min(), range.low(), range.high(), range.max()})
                .isSorted();
    }

    /** Each value of an individual of its own. */
    private static List<Slips.Suspect> slips(double[] values, double spread, boolean counts) {
        return Slips.of(
                values, spread, counts, IntStream.range(0, values.length).toArray());
    }

    /** The promise: of a hundred clean samples of twenty at most five are flagged; likewise of other sizes, on average. */
    @ParameterizedTest
    @ValueSource(ints = {8, 10, 20, 50, 100, 400, 2000})
    void cleanSamplesAreSeldomFlagged(int n) {
        Random random = new Random(n);
        int flagged = 0;
        for (int s = 0; s < 1000; s++) {
            flagged += slips(lognormal(random, n, 30, 0.2), 0.1, false).isEmpty() ? 0 : 1;
        }
        // Of a hundred by the cut that the method gives a little more.
        assertThat(flagged).isLessThan(n == 100 ? 90 : 65);
    }

    @ParameterizedTest
    @CsvSource({
        "0.98, INCHES, 24.892",
        "2.5, TENFOLD, 25",
        "2400, HUNDREDFOLD, 24",
        "0.025, THOUSANDFOLD, 25",
        "52, TRANSPOSED_DIGITS, 25"
    })
    void plantedSlipsAreFoundWithTheirCause(double slip, Slips.Cause cause, double repaired) {
        double[] values = {23, 24, 26, 25, 27, 25.5, 24.5, slip, 26.5, 23.5, 25};
        assertThat(slips(values, 0.5, false)).singleElement().satisfies(s -> {
            assertThat(s.index()).isEqualTo(7);
            assertThat(s.cause()).isEqualTo(cause);
            assertThat(s.repaired().orElseThrow()).isCloseTo(repaired, within(1e-9));
        });
        double[] scaled = Arrays.stream(values).map(v -> -v).toArray();
        assertThat(Outliers.of(scaled, 0.5))
                .extracting(o -> Math.signum(o.z()))
                .containsExactly(Math.signum(25 - slip));
    }

    /** Nobody swaps digits twice alike; but all of one plant may have been measured in inches. */
    @Test
    void whatASecondReadingOfTheSameIndividualConfirmsIsNotSwappedDigits() {
        double[] values = {23, 24, 26, 25, 27, 25.5, 24.5, 52, 53, 26.5, 23.5, 25};
        int[] plants = {0, 1, 2, 3, 4, 5, 6, 7, 7, 8, 9, 10};
        assertThat(Slips.of(values, 0.5, false, plants))
                .containsExactly(
                        new Slips.Suspect(7, Slips.Cause.OUTLIER, Optional.empty()),
                        new Slips.Suspect(8, Slips.Cause.OUTLIER, Optional.empty()));
        plants[8] = 11;
        assertThat(Slips.of(values, 0.5, false, plants))
                .extracting(Slips.Suspect::cause)
                .contains(Slips.Cause.TRANSPOSED_DIGITS);
        values[7] = 1;
        values[8] = 0.98;
        plants[8] = 7;
        assertThat(Slips.of(values, 0.5, false, plants))
                .extracting(Slips.Suspect::cause)
                .containsExactly(Slips.Cause.INCHES, Slips.Cause.INCHES);
    }

    @Test
    void whatSpreadsWidelyOrIsFewIsNoSlip() {
        assertThat(slips(new double[] {23, 24, 26, 25, 27, 25, 250}, 0.5, false))
                .isEmpty();
        // Equal readings say nothing of how equal the things are: a step more is not an outlier.
        assertThat(slips(new double[] {5, 5, 5, 5, 5, 5, 5, 5, 5, 6}, 1, true)).isEmpty();
        assertThat(slips(new double[] {5, 5.5, 4}, 1, true))
                .containsExactly(new Slips.Suspect(1, Slips.Cause.FRACTION, Optional.empty()));
        double[] wide = {1, 2, 4, 8, 16, 32, 64, 128, 1e9};
        assertThat(slips(wide, 1, false)).containsExactly(new Slips.Suspect(8, Slips.Cause.OUTLIER, Optional.empty()));
    }

    /** Against the least error over all cuts, tried one by one. */
    @ParameterizedTest
    @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10})
    void aThresholdHasTheLeastError(long seed) {
        Random random = new Random(seed);
        Threshold.Group first = group(random, 4 + random.nextInt(30), 20 + random.nextInt(8));
        Threshold.Group second = group(random, 4 + random.nextInt(30), 24);
        Threshold threshold = Threshold.between(first, second, 0.5);
        Threshold.Group lower = threshold.secondIsLower() ? second : first;
        Threshold.Group upper = threshold.secondIsLower() ? first : second;
        assertThat(threshold.error()).isCloseTo(error(lower, upper, threshold.cut()), within(1e-12));
        for (double cut = 5; cut < 60; cut += 0.05) {
            assertThat(error(lower, upper, cut)).isGreaterThanOrEqualTo(threshold.error() - 1e-12);
        }
        assertThat(threshold.cut()).isBetween(threshold.doubtLow(), threshold.doubtHigh());
        for (double value : lower.values()) {
            assertThat(value).isLessThan(threshold.doubtHigh());
        }
        assertThat(Threshold.between(second, first, 0.5).cut()).isEqualTo(threshold.cut());
    }

    private static Threshold.Group group(Random random, int n, double median) {
        String[] events = IntStream.range(0, n).mapToObj(i -> "event " + i % 3).toArray(String[]::new);
        return new Threshold.Group(lognormal(random, n, median, 0.12), events);
    }

    private static double error(Threshold.Group lower, Threshold.Group upper, double cut) {
        double wrong = Arrays.stream(lower.values()).filter(v -> v > cut).count() / (double) lower.values().length
                + Arrays.stream(upper.values()).filter(v -> v <= cut).count() / (double) upper.values().length;
        return wrong / 2;
    }

    @Test
    void aGapIsCutInItsMiddleAndOneEventTestsNothing() {
        Threshold.Group small = new Threshold.Group(new double[] {3, 5, 4}, new String[] {"a", "b", "a"});
        Threshold.Group large = new Threshold.Group(new double[] {9, 8, 12}, new String[] {"c", "c", "c"});
        Threshold threshold = Threshold.between(large, small, 0.5);
        assertThat(threshold).isEqualTo(new Threshold(6.5, true, 0, Double.NaN, 4.5, 8.5));
        // Without event a the cut is 11.5, which takes its 10 for the lower group; without b it is 6, which takes its
        // 20 for
        // the upper one.
        Threshold.Group odd = new Threshold.Group(new double[] {1, 2, 20}, new String[] {"a", "a", "b"});
        Threshold.Group even = new Threshold.Group(new double[] {10, 11, 12}, new String[] {"a", "b", "c"});
        Threshold tested = Threshold.between(odd, even, 0);
        assertThat(tested.error()).isCloseTo(1 / 6.0, within(1e-12));
        assertThat(tested.crossValidated()).isCloseTo(1 / 3.0, within(1e-12));
    }

    /** The spread of a hundred thousand seeded readings is what the formulas foresee. */
    @Test
    void uncertaintiesAgreeWithSimulation() {
        Random random = new Random(3);
        int trials = 100_000;
        double[] ratios = new double[trials];
        double[] lengths = new double[trials];
        double half = Math.sqrt(3);
        for (int i = 0; i < trials; i++) {
            ratios[i] = (24 + 0.4 * random.nextGaussian()) / (8 + 0.3 * random.nextGaussian());
            PictureScale read = PictureScale.ofBar(400 + ends(random, half), 10);
            lengths[i] = read.length(line(250 + ends(random, half)), 0).millimetres();
        }
        Ratio ratio = Ratio.of(24, 0.4, 8, 0.3);
        assertThat(Summary.of(ratios).sd()).isCloseTo(ratio.uncertainty(), within(ratio.uncertainty() * 0.02));
        assertThat(Summary.of(ratios).mean()).isCloseTo(ratio.value(), within(0.01));
        PictureScale.Length length = PictureScale.ofBar(400, 10).length(line(250), 0);
        assertThat(length.millimetres()).isEqualTo(6.25);
        assertThat(Summary.of(lengths).sd()).isCloseTo(length.uncertainty(), within(length.uncertainty() * 0.02));
        assertThat(PictureScale.ofBar(400, 10).length(line(250), 10).uncertainty())
                .isGreaterThan(length.uncertainty());
        assertThatIllegalArgumentException().isThrownBy(() -> PictureScale.ofBar(0, 10));
        assertThatIllegalArgumentException().isThrownBy(() -> Ratio.of(3, 0.1, 0, 0.1));
    }

    private static Outline line(double length) {
        return Outline.length(new double[] {40, 40}, new double[] {10, 10 + length});
    }

    /** Where each point of a mark is placed by hand, off by a pixel either way. */
    @Test
    void uncertaintiesOfMarksAgreeWithSimulation() {
        double[] x = {100, 180, 260, 300};
        double[] y = {100, 60, 120, 260};
        assertThat(Outline.length(new double[] {0, 3, 3}, new double[] {0, 4, 10})
                        .size())
                .isEqualTo(11);
        assertThat(Outline.angle(new double[] {5, 0, 0}, new double[] {0, 0, 7}).size())
                .isCloseTo(90, within(1e-12));
        assertThat(Outline.area(new double[] {1e6, 1e6 + 3, 1e6 + 3, 1e6}, new double[] {7, 7, 12, 12})
                        .size())
                .isEqualTo(15);
        assertThat(Outline.area(new double[] {0, 20, 0}, new double[] {0, 0, 20})
                        .diameterOfArea()
                        .size())
                .isCloseTo(2 * Math.sqrt(200 / Math.PI), within(1e-12));
        assertSpread(Outline::length, x, y);
        assertSpread(Outline::area, x, y);
        assertSpread((px, py) -> Outline.area(px, py).diameterOfArea(), x, y);
        assertSpread(Outline::angle, Arrays.copyOf(x, 3), Arrays.copyOf(y, 3));
        assertThatIllegalArgumentException().isThrownBy(() -> Outline.length(new double[] {4, 4}, new double[] {1, 1}));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Outline.area(new double[] {0, 1, 2}, new double[] {0, 1, 2}));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> Outline.angle(new double[] {0, 0, 2}, new double[] {0, 0, 2}));
    }

    private static void assertSpread(BiFunction<double[], double[], Outline> measure, double[] x, double[] y) {
        Random random = new Random(29);
        double[] sizes = new double[20_000];
        for (int i = 0; i < sizes.length; i++) {
            sizes[i] = measure.apply(off(random, x), off(random, y)).size();
        }
        Outline marked = measure.apply(x, y);
        assertThat(Summary.of(sizes).sd()).isCloseTo(marked.uncertainty(), within(marked.uncertainty() * 0.03));
    }

    private static double[] off(Random random, double[] places) {
        return Arrays.stream(places).map(p -> p + random.nextGaussian()).toArray();
    }

    private static double ends(Random random, double half) {
        return half * (2 * random.nextDouble() - 1) + half * (2 * random.nextDouble() - 1);
    }

    /** A carapace that is as long as others and as wide as others, but not both in one animal. */
    @Test
    void allometryForeseesTheNextIndividual() {
        Random random = new Random(17);
        double[] x = lognormal(random, 30, 20, 0.4);
        double[] y = Arrays.stream(x)
                .map(v -> 0.5 * Math.pow(v, 1.3) * Math.exp(0.03 * random.nextGaussian()))
                .toArray();
        Allometry allometry = Allometry.of(x, y);
        assertThat(allometry.exponent()).isCloseTo(1.3, within(0.05));
        assertThat(0.5 * Math.pow(20, 1.3))
                .isBetween(allometry.next(20).low(), allometry.next(20).high());
        assertThat(Allometry.implausible(x, y)).doesNotContain(true);
        double[] swapped = y.clone();
        int least = index(x, Arrays.stream(x).min().orElseThrow());
        swapped[least] = Summary.of(y).median();
        boolean[] found = Allometry.implausible(x, swapped);
        assertThat(found[least]).isTrue();
        assertThat(IntStream.range(0, found.length).filter(i -> found[i]).count())
                .isEqualTo(1);
    }

    private static int index(double[] values, double wanted) {
        return IntStream.range(0, values.length)
                .filter(i -> values[i] == wanted)
                .findFirst()
                .orElseThrow();
    }

    @Test
    void aRuleOfThumbIsOffTheSameWayEachTimeAndIsToldToTheHalf() {
        RuleOfThumb.Size own = RuleOfThumb.FINGER_WIDTH.of(new double[] {15, 16, 17});
        assertThat(own.mean()).isCloseTo(16, within(1e-12));
        assertThat(own.spread()).isCloseTo(Math.sqrt(1 + 1 / 3.0), within(1e-12));
        assertThat(RuleOfThumb.PENCIL.of(new double[] {7, 7, 7}).spread()).isCloseTo(0.14, within(1e-12));

        // Simulated: fingers of all sizes, two of them held against a thing, the number told to the nearest half.
        Random random = new Random(5);
        int within = 0;
        int runs = 20_000;
        for (int run = 0; run < runs; run++) {
            double finger = 16 + own.spread() * random.nextGaussian();
            double thing = 20 + 30 * random.nextDouble();
            RuleOfThumb.Rough rough = own.times(Math.max(0.5, Math.round(thing / finger * 2) / 2.0));
            within += Math.abs(rough.value() - thing) <= 2 * rough.uncertainty() ? 1 : 0;
        }
        assertThat(within / (double) runs).isBetween(0.94, 0.99);

        assertThatIllegalArgumentException().isThrownBy(() -> RuleOfThumb.FINGER_WIDTH.of(new double[] {15, 16}));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> RuleOfThumb.FINGER_WIDTH.of(new double[] {1.5, 1.6, 1.7}));
    }
}
