package org.polyclave.core.agreement;

import java.util.TreeMap;
import java.util.TreeSet;

/**
 * How well scorers who did not see each other's scores agree.
 *
 * <p>Ratings are one array a scorer, one number a unit (a cell), {@link Double#NaN} where the scorer left it. Units rated
 * by fewer than two scorers say nothing and are left out.
 *
 * <ul>
 *   <li>percent: share of the pairs of ratings of one unit that are equal, each unit weighing by its ratings;
 *   <li>kappa: J. Cohen, A coefficient of agreement for nominal scales, Educational and Psychological Measurement 20
 *       (1960) 37–46; for two scorers, by equality;
 *   <li>alpha: K. Krippendorff, Content Analysis (3rd ed. 2013), chapter 12; any number of scorers, missing ratings,
 *       and a distance that fits the scale.
 * </ul>
 *
 * Time O(units · scorers + values²), memory O(values²).
 */
public final class Agreement {
    private Agreement() {}

    /** How far apart two ratings are. */
    public enum Scale {
        /** Equal or not. */
        NOMINAL,
        /** By the ratings that lie between them. */
        ORDINAL,
        /** By the square of their difference. */
        INTERVAL
    }

    /**
     * @param units cells that two or more scorers rated
     * @param differing those on which they do not all agree
     * @param percent between 0 and 1, {@link Double#NaN} without units
     * @param kappa {@link Double#NaN} unless there are two scorers whose ratings vary
     * @param alpha {@link Double#NaN} where no rating varies: agreement by chance is then certain
     */
    public record Result(int units, int differing, double percent, double kappa, double alpha) {}

    /** @throws IllegalArgumentException if the arrays differ in length */
    public static Result of(double[][] ratings, Scale scale) {
        int n = ratings.length == 0 ? 0 : ratings[0].length;
        for (double[] scorer : ratings) {
            if (scorer.length != n) {
                throw new IllegalArgumentException(
                        "Every scorer has one rating a unit: " + scorer.length + " and " + n);
            }
        }
        double[] values = values(ratings);
        double[][] together = new double[values.length][values.length];
        int units = 0;
        int differing = 0;
        for (int u = 0; u < n; u++) {
            int[] counts = counts(ratings, u, values);
            int rated = 0;
            int different = 0;
            for (int count : counts) {
                rated += count;
                different += count > 0 ? 1 : 0;
            }
            if (rated < 2) {
                continue;
            }
            units++;
            differing += different > 1 ? 1 : 0;
            addPairs(counts, rated, together);
        }
        return new Result(
                units,
                differing,
                units == 0 ? Double.NaN : percent(together),
                ratings.length == 2 ? kappa(ratings[0], ratings[1], values) : Double.NaN,
                alpha(together, values, scale));
    }

    private static double[] values(double[][] ratings) {
        TreeSet<Double> found = new TreeSet<>();
        for (double[] scorer : ratings) {
            for (double rating : scorer) {
                if (!Double.isNaN(rating)) {
                    found.add(rating);
                }
            }
        }
        return found.stream().mapToDouble(Double::doubleValue).toArray();
    }

    private static int[] counts(double[][] ratings, int unit, double[] values) {
        int[] counts = new int[values.length];
        for (double[] scorer : ratings) {
            if (!Double.isNaN(scorer[unit])) {
                counts[java.util.Arrays.binarySearch(values, scorer[unit])]++;
            }
        }
        return counts;
    }

    /** A unit with m ratings has m·(m − 1) ordered pairs, each counted 1/(m − 1) times. */
    private static void addPairs(int[] counts, int rated, double[][] together) {
        for (int a = 0; a < counts.length; a++) {
            for (int b = 0; b < counts.length; b++) {
                double pairs = a == b ? (double) counts[a] * (counts[a] - 1) : (double) counts[a] * counts[b];
                together[a][b] += pairs / (rated - 1);
            }
        }
    }

    private static double percent(double[][] together) {
        double equal = 0;
        double all = 0;
        for (int a = 0; a < together.length; a++) {
            equal += together[a][a];
            for (double pairs : together[a]) {
                all += pairs;
            }
        }
        return equal / all;
    }

    private static double kappa(double[] first, double[] second, double[] values) {
        TreeMap<Double, int[]> margins = new TreeMap<>();
        for (double value : values) {
            margins.put(value, new int[2]);
        }
        int both = 0;
        int equal = 0;
        for (int u = 0; u < first.length; u++) {
            if (!Double.isNaN(first[u]) && !Double.isNaN(second[u])) {
                both++;
                equal += first[u] == second[u] ? 1 : 0;
                java.util.Objects.requireNonNull(margins.get(first[u]))[0]++;
                java.util.Objects.requireNonNull(margins.get(second[u]))[1]++;
            }
        }
        double chance = 0;
        for (int[] margin : margins.values()) {
            chance += both == 0 ? 0 : (double) margin[0] / both * margin[1] / both;
        }
        return both == 0 || chance >= 1 ? Double.NaN : ((double) equal / both - chance) / (1 - chance);
    }

    private static double alpha(double[][] together, double[] values, Scale scale) {
        double[] totals = new double[values.length];
        double all = 0;
        for (int a = 0; a < values.length; a++) {
            for (double pairs : together[a]) {
                totals[a] += pairs;
            }
            all += totals[a];
        }
        double observed = 0;
        double expected = 0;
        for (int a = 0; a < values.length; a++) {
            for (int b = 0; b < values.length; b++) {
                double distance = distance(a, b, values, totals, scale);
                observed += together[a][b] * distance;
                expected += totals[a] * totals[b] * distance;
            }
        }
        return expected == 0 ? Double.NaN : 1 - (all - 1) * observed / expected;
    }

    private static double distance(int a, int b, double[] values, double[] totals, Scale scale) {
        if (a == b) {
            return 0;
        }
        return switch (scale) {
            case NOMINAL -> 1;
            case INTERVAL -> (values[a] - values[b]) * (values[a] - values[b]);
            case ORDINAL -> {
                double between = -(totals[a] + totals[b]) / 2;
                for (int v = Math.min(a, b); v <= Math.max(a, b); v++) {
                    between += totals[v];
                }
                yield between * between;
            }
        };
    }
}
