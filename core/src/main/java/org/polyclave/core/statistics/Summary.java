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
 *   <li>{@link #meanInterval}: Student's t, 95 %;
 *   <li>{@link #toleranceInterval}: holds 95 % of all individuals, with 95 % confidence, if they are normally distributed:
 *       W. G. Howe, Two-sided tolerance limits for normal populations, Journal of the American Statistical Association 64
 *       (1969) 610–620.
 * </ul>
 *
 * Time O(n log n), memory O(n).
 *
 * @param n individuals
 * @param sd {@link Double#NaN} for one individual
 * @param tolerance see {@link #toleranceInterval}
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
        double max,
        Interval tolerance) {
    private static final double BOTH_TAILS_OUT = 0.975;
    private static final double UNLUCKY = 0.05;

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
                sorted[sorted.length - 1],
                tolerance(sorted, mean, sd));
    }

    /** On the scale on which the sizes are the more even; of sizes, which are above 0, never below 0. */
    private static Interval tolerance(double[] sorted, double mean, double sd) {
        int n = sorted.length;
        if (n == 1) {
            return new Interval(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
        }
        double factor = toleranceFactor(n, BOTH_TAILS_OUT, UNLUCKY);
        boolean negative = sorted[0] > 0 && mean - factor * sd <= 0;
        if (!negative && !SizeScale.isLogarithmic(sorted)) {
            return new Interval(mean - factor * sd, mean + factor * sd);
        }
        double[] logs = Arrays.stream(sorted).map(Math::log).toArray();
        double centre = Sums.mean(logs);
        double spread = factor * Sums.standardDeviation(logs, centre);
        return new Interval(Math.exp(centre - spread), Math.exp(centre + spread));
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

    /** Where 95 % of all individuals lie, with 95 % confidence. Infinite for one individual. */
    public Interval toleranceInterval() {
        return tolerance;
    }

    /** Standard deviations on both sides of the mean, by Howe. */
    static double toleranceFactor(int n, double quantile, double unlucky) {
        double z = ChiSquare.normalPoint(quantile);
        return z * Math.sqrt((n - 1) * (1 + 1.0 / n) / ChiSquare.point(unlucky, n - 1));
    }

    private Interval about(double distance) {
        return new Interval(mean - distance, mean + distance);
    }

    private static Interval everywhere() {
        return new Interval(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
    }
}
