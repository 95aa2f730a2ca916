package org.polyclave.core.statistics;

/**
 * How many more individuals to measure. Both answers take the individuals as drawn independently from one population, which
 * those of one gathering are not.
 */
public final class Sampling {
    /** Of the standard normal distribution, one-sided 95 %. */
    private static final double CONFIDENT = 1.6448536269514722;

    private static final int MOST = 100_000;

    private Sampling() {}

    /**
     * Individuals still to be measured until the next one falls outside the measured range with at most a given probability.
     * Without any assumption of the distribution that probability is 2 / (n + 1): S. S. Wilks, Determination of sample sizes
     * for setting tolerance limits, Annals of Mathematical Statistics 12 (1941) 91–96.
     *
     * @param n individuals so far
     * @param probability above 0, below 1
     */
    public static int untilRangeHolds(int n, double probability) {
        return Math.max(0, (int) Math.ceil(2 / probability - 1 - 1e-9) - n);
    }

    /**
     * Individuals still to be measured until the error of a threshold is known to be at most what is wished, with 95 %
     * confidence, if the share of errors stays what it is: by the score interval of E. B. Wilson, Probable inference, the law
     * of succession, and statistical inference, Journal of the American Statistical Association 22 (1927) 209–212.
     *
     * @param n individuals of both groups so far
     * @param error share of them that is on the wrong side, 0 to 1
     * @param wish above 0, at most 1
     * @return −1 if no number of individuals is enough, because the error itself is not below the wish
     */
    public static int untilErrorIsBelow(int n, double error, double wish) {
        if (error >= wish) {
            return -1;
        }
        int low = 1;
        int high = MOST;
        while (low < high) {
            int middle = (low + high) / 2;
            if (upper(middle, error) <= wish) {
                high = middle;
            } else {
                low = middle + 1;
            }
        }
        return upper(low, error) <= wish ? Math.max(0, low - n) : -1;
    }

    /** Upper end of Wilson's interval. */
    static double upper(int n, double share) {
        double z2 = CONFIDENT * CONFIDENT;
        double centre = share + z2 / (2 * n);
        double half = CONFIDENT * Math.sqrt(share * (1 - share) / n + z2 / (4.0 * n * n));
        return (centre + half) / (1 + z2 / n);
    }
}
