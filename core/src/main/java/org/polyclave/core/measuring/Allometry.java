package org.polyclave.core.measuring;

import java.util.Arrays;
import org.polyclave.core.statistics.Line;
import org.polyclave.core.statistics.Summary;

/**
 * How one size grows with another over the individuals of a group: y = a·x^b, fitted as a line through the logarithms. A pair
 * of readings that lies outside what the others foresee is implausible, however usual each of the two is. Source: J. S.
 * Huxley, Problems of Relative Growth, 1932, chapter 1.
 */
public record Allometry(Line logarithms) {
    /** Individuals from which on a relation is worth telling. */
    public static final int FEWEST = 8;

    private static final double LEVEL = 0.05;

    /**
     * @param x sizes above 0, one an individual
     * @param y sizes above 0 of the same individuals
     * @throws IllegalArgumentException for other sizes, or as {@link Line#through}
     */
    public static Allometry of(double[] x, double[] y) {
        return new Allometry(Line.through(logs(x), logs(y)));
    }

    private static double[] logs(double[] sizes) {
        if (!Arrays.stream(sizes).allMatch(s -> s > 0)) {
            throw new IllegalArgumentException("Sizes are above 0");
        }
        return Arrays.stream(sizes).map(Math::log).toArray();
    }

    /** The exponent b. */
    public double exponent() {
        return logarithms.slope();
    }

    /** What y the next individual of size x has, with 95 % probability. */
    public Summary.Interval next(double x) {
        Summary.Interval interval = logarithms.next(Math.log(x));
        return new Summary.Interval(Math.exp(interval.low()), Math.exp(interval.high()));
    }

    /**
     * Individuals that the others do not foresee: each against the line through the others, at a level at which one clean
     * sample of twenty has such an individual (Bonferroni).
     */
    public static boolean[] implausible(double[] x, double[] y) {
        boolean[] found = new boolean[x.length];
        if (x.length < FEWEST) {
            return found;
        }
        double[] logX = logs(x);
        double[] logY = logs(y);
        for (int i = 0; i < x.length; i++) {
            double[] othersX = without(logX, i);
            if (Arrays.stream(othersX).distinct().count() > 1) {
                Line line = Line.through(othersX, without(logY, i));
                found[i] = line.isUnforeseen(logX[i], logY[i], LEVEL / x.length);
            }
        }
        return found;
    }

    private static double[] without(double[] values, int index) {
        double[] others = new double[values.length - 1];
        System.arraycopy(values, 0, others, 0, index);
        System.arraycopy(values, index + 1, others, index, values.length - index - 1);
        return others;
    }
}
