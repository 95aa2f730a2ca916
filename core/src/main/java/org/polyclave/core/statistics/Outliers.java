package org.polyclave.core.statistics;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Values far from the rest, by the modified z of B. Iglewicz &amp; D. C. Hoaglin, How to Detect and Handle Outliers, 1993: the
 * distance from the median in medians of the absolute distances, scaled to standard deviations, on the scale on which the
 * sizes are the more even ({@link SizeScale}).
 *
 * <p>The usual cut of 3.5 flags one clean sample of ten; the cuts here (4.75, 4.5, 4, 3.9, 3.9, 4.05, 4.3 and 4.65 for 8, 10,
 * 20, 40, 100, 400, 2,000 and 10,000 values, between them linear in log n; found by simulation) flag 3 to 8 of a hundred,
 * normal or lognormal. Time O(n log n).
 */
public final class Outliers {
    /** Fewer values say too little of what is usual. */
    public static final int FEWEST = 8;

    private static final double[][] CUTS = {
        {8, 4.75}, {10, 4.5}, {20, 4}, {40, 3.9}, {100, 3.9}, {400, 4.05}, {2_000, 4.3}, {10_000, 4.65}
    };
    /** The third quartile of the normal distribution. */
    private static final double QUARTILE = 0.6744897501960817;

    private Outliers() {}

    /** @param z how far off, in standard deviations of the rest; below 0 for small values */
    public record Outlier(int index, double z) {}

    /**
     * In the order of the values; none of fewer than {@link #FEWEST} values.
     *
     * @param smallestSpread the resolution of the readings or their uncertainty, whichever is larger, above 0: the median
     *     distance counts at least as much, since many equal readings say nothing of how equal the things are
     */
    public static List<Outlier> of(double[] values, double smallestSpread) {
        if (!(smallestSpread > 0)) {
            throw new IllegalArgumentException("A spread is above 0: " + smallestSpread);
        }
        if (values.length < FEWEST) {
            return List.of();
        }
        boolean logarithmic = SizeScale.isLogarithmic(values);
        double typical = median(values);
        double[] scaled = logarithmic ? Arrays.stream(values).map(Math::log).toArray() : values;
        double floor = logarithmic ? Math.log1p(smallestSpread / typical) : smallestSpread;
        double centre = median(scaled);
        double spread = Math.max(
                floor,
                median(Arrays.stream(scaled).map(v -> Math.abs(v - centre)).toArray()));
        double cut = cut(values.length);
        List<Outlier> found = new ArrayList<>();
        for (int i = 0; i < scaled.length; i++) {
            double z = QUARTILE * (scaled[i] - centre) / spread;
            if (Math.abs(z) > cut) {
                found.add(new Outlier(i, z));
            }
        }
        return found;
    }

    public static double median(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return Summary.quantile(sorted, 0.5);
    }

    private static double cut(int n) {
        double[] below = CUTS[0];
        for (double[] next : CUTS) {
            if (n < next[0]) {
                return below[1] + (next[1] - below[1]) * Math.log(n / below[0]) / Math.log(next[0] / below[0]);
            }
            below = next;
        }
        return below[1];
    }
}
