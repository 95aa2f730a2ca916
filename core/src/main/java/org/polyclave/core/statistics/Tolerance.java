package org.polyclave.core.statistics;

/**
 * Limits that hold 90 % of all individuals, with 95 % confidence, if they are normally distributed on their
 * {@link NormalScale}: mean ± k · SD with k by W. G. Howe, Two-sided tolerance limits for normal
 * populations, Journal of the American Statistical Association 64 (1969) 610–620 (k = 4.27, 2.84, 2.31, 2.14 for 5, 10, 20, 30
 * individuals).
 */
public final class Tolerance {
    /** From so many individuals on, what was seen stands for what there is. */
    public static final int ENOUGH = 40;

    private static final double BOTH_TAILS_OUT = 0.95;
    private static final double UNLUCKY = 0.05;
    /** By number of individuals; working one out takes longer than all else. */
    private static final double[] FACTORS = factors();

    private Tolerance() {}

    private static double[] factors() {
        double[] factors = new double[ENOUGH];
        for (int n = 2; n < ENOUGH; n++) {
            factors[n] = Summary.toleranceFactor(n, BOTH_TAILS_OUT, UNLUCKY);
        }
        return factors;
    }

    /**
     * @param n individuals, 2 to {@link #ENOUGH} − 1
     * @param sd n − 1
     */
    public static Summary.Interval of(int n, double mean, double sd) {
        NormalScale scale = NormalScale.of(mean, sd);
        return new Summary.Interval(scale.at(-FACTORS[n]), scale.at(FACTORS[n]));
    }
}
