package org.polyclave.core.statistics;

/**
 * Sums whose rounding errors are carried along: A. Neumaier, Rundungsfehleranalyse einiger Verfahren zur Summation endlicher
 * Summen, Zeitschrift für angewandte Mathematik und Mechanik 54 (1974) 39–51.
 */
public final class Sums {
    private double sum;
    private double lost;

    public void add(double value) {
        double next = sum + value;
        lost += Math.abs(sum) >= Math.abs(value) ? (sum - next) + value : (value - next) + sum;
        sum = next;
    }

    public double total() {
        return sum + lost;
    }

    public static double mean(double[] values) {
        // About the first value: a sum of large values with small differences has no digits left for these.
        Sums about = new Sums();
        for (double value : values) {
            about.add(value - values[0]);
        }
        return values[0] + about.total() / values.length;
    }

    /** With n − 1, corrected for what the mean is off by rounding. */
    public static double standardDeviation(double[] values, double mean) {
        Sums squares = new Sums();
        Sums rest = new Sums();
        for (double value : values) {
            double off = value - mean;
            squares.add(off * off);
            rest.add(off);
        }
        double correction = rest.total() * rest.total() / values.length;
        return Math.sqrt(Math.max(0, squares.total() - correction) / (values.length - 1));
    }
}
