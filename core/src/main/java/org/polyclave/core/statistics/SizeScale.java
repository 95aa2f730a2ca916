package org.polyclave.core.statistics;

import java.util.Arrays;

/**
 * On which scale some sizes are the more even: their own, or that of their logarithms. Their own data say so: the scale on
 * which what is left without the outermost twentieth on both sides (one value at least) is the less skewed, by the third
 * moment. Time O(n log n).
 */
final class SizeScale {
    private static final int TRIMMED = 20;

    private SizeScale() {}

    /** Whether it is that of the logarithms; never where a value is not above 0. */
    static boolean isLogarithmic(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        if (sorted.length == 0 || !(sorted[0] > 0)) {
            return false;
        }
        int out = Math.max(1, sorted.length / TRIMMED);
        if (sorted.length - 2 * out < 3) {
            return false;
        }
        double[] inner = Arrays.copyOfRange(sorted, out, sorted.length - out);
        return skewness(Arrays.stream(inner).map(Math::log).toArray()) < skewness(inner);
    }

    private static double skewness(double[] values) {
        double mean = Sums.mean(values);
        double squares = 0;
        double cubes = 0;
        for (double value : values) {
            double off = value - mean;
            squares += off * off;
            cubes += off * off * off;
        }
        double variance = squares / values.length;
        return variance > 0 ? Math.abs(cubes / values.length) / Math.pow(variance, 1.5) : 0;
    }
}
