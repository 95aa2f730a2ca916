package org.polyclave.core.statistics;

import java.util.Arrays;

/**
 * Limits that hold a share of all individuals, with 95 % confidence, if they are normally distributed on their
 * scale: mean ± k · SD with k by W. G. Howe, Two-sided tolerance limits for normal
 * populations, Journal of the American Statistical Association 64 (1969) 610–620 (for 90 %: k = 4.27, 2.84, 2.31, 2.14 for 5, 10, 20,
 * 30 individuals).
 */
public final class Tolerance {
    /** From so many individuals on, what was seen stands for what there is. */
    public static final int ENOUGH = 40;

    /** Quantiles of the normal distribution beyond which lies half of what may be outside. */
    private static final double NINETY_PERCENT = 0.95;

    private static final double NINETY_FIVE_PERCENT = 0.975;
    private static final double UNLUCKY = 0.05;
    /** By number of individuals; working one out takes longer than all else. */
    private static final double[] FACTORS = factors();

    private Tolerance() {}

    private static double[] factors() {
        double[] factors = new double[ENOUGH];
        for (int n = 2; n < ENOUGH; n++) {
            factors[n] = factor(n, NINETY_PERCENT, UNLUCKY);
        }
        return factors;
    }

    /**
     * Limits that hold 90 %, where only the moments are known: on the {@link NormalScale} that these choose.
     *
     * @param n individuals, 2 to {@link #ENOUGH} − 1
     * @param sd n − 1
     */
    public static Summary.Interval of(int n, double mean, double sd) {
        NormalScale scale = NormalScale.of(mean, sd);
        return new Summary.Interval(scale.at(-FACTORS[n]), scale.at(FACTORS[n]));
    }

    /**
     * Limits that hold 95 %, on the scale on which the individuals themselves are the more even ({@link SizeScale}), and on that
     * of the logarithms where sizes would otherwise reach below 0. Infinite for one individual.
     *
     * @param values one or more
     */
    public static Summary.Interval of(double[] values) {
        int n = values.length;
        if (n == 1) {
            return new Summary.Interval(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY);
        }
        double mean = Sums.mean(values);
        double distance = factor(n, NINETY_FIVE_PERCENT, UNLUCKY) * Sums.standardDeviation(values, mean);
        boolean sizes = Arrays.stream(values).allMatch(v -> v > 0);
        if (!SizeScale.isLogarithmic(values) && (mean > distance || !sizes)) {
            return new Summary.Interval(mean - distance, mean + distance);
        }
        double[] logs = Arrays.stream(values).map(Math::log).toArray();
        double centre = Sums.mean(logs);
        double spread = factor(n, NINETY_FIVE_PERCENT, UNLUCKY) * Sums.standardDeviation(logs, centre);
        return new Summary.Interval(Math.exp(centre - spread), Math.exp(centre + spread));
    }

    /** Standard deviations on both sides of the mean, by Howe. */
    static double factor(int n, double quantile, double unlucky) {
        double z = ChiSquare.normalPoint(quantile);
        return z * Math.sqrt((n - 1) * (1 + 1.0 / n) / ChiSquare.point(unlucky, n - 1));
    }
}
