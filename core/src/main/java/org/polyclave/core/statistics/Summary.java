package org.polyclave.core.statistics;

import java.util.Arrays;

/**
 * What the individuals of a group measure in one character. One value an individual: repetitions and items are averaged
 *, for the leaves of one plant are not independent evidence of its species.
 *
 * <ul>
 *   <li>mean and standard deviation (n − 1) in two passes with compensated sums, so that they hold to about 1e-13 relative
 *       also where the spread is a millionth of the values;
 *   <li>percentiles by linear interpolation between order statistics, type 7 of R. J. Hyndman &amp; Y. Fan, Sample
 *       quantiles in statistical packages, The American Statistician 50 (1996) 361–365;
 *   <li>{@link #meanInterval}: Student's t, 95 %.
 * </ul>
 *
 * Time O(n log n), memory O(n).
 *
 * @param n individuals
 * @param sd {@link Double#NaN} for one individual
 */
public record Summary(
        int n,
        double mean,
        double sd,
        double min,
        double p5,
        double p25,
        double median,
        double p75,
        double p95,
        double max) {
    private static final double BOTH_TAILS_OUT = 0.975;

    /** From a value up to another; open ends are infinite. */
    public record Interval(double low, double high) {}

    /** @throws IllegalArgumentException without values, or if one is not finite */
    public static Summary of(double[] values) {
        if (values.length == 0) {
            throw new IllegalArgumentException("There is nothing to summarise");
        }
        for (double value : values) {
            if (!Double.isFinite(value)) {
                throw new IllegalArgumentException("A value is not finite: " + value);
            }
        }
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        double mean = Sums.mean(sorted);
        double sd = sorted.length == 1 ? Double.NaN : Sums.standardDeviation(sorted, mean);
        return new Summary(
                sorted.length,
                mean,
                sd,
                sorted[0],
                quantile(sorted, 0.05),
                quantile(sorted, 0.25),
                quantile(sorted, 0.5),
                quantile(sorted, 0.75),
                quantile(sorted, 0.95),
                sorted[sorted.length - 1]);
    }

    /**
     * The value below which a share of an ascending array lies, type 7.
     *
     * @param p 0 to 1
     */
    public static double quantile(double[] sorted, double p) {
        double place = (sorted.length - 1) * p;
        int below = (int) place;
        double fraction = place - below;
        return fraction == 0 ? sorted[below] : sorted[below] + fraction * (sorted[below + 1] - sorted[below]);
    }

    /** Where the mean of all individuals lies, with 95 % confidence. Infinite for one individual. */
    public Interval meanInterval() {
        return n == 1 ? everywhere() : about(StudentT.point(BOTH_TAILS_OUT, n - 1) * sd / Math.sqrt(n));
    }

    private Interval about(double distance) {
        return new Interval(mean - distance, mean + distance);
    }

    private static Interval everywhere() {
        return new Interval(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
    }
}
