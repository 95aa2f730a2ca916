package org.polyclave.core.statistics;

/**
 * Chi-square for whole degrees of freedom, and the normal distribution, which is its root for one degree. By the series and
 * the continued fraction of the incomplete gamma function (Abramowitz &amp; Stegun, Handbook of Mathematical Functions, 1964,
 * 6.5.29 and 6.5.31), to about 1e-14.
 */
final class ChiSquare {
    private static final double ENOUGH = 1e-17;
    private static final double TINY = 1e-300;
    private static final int MOST_TERMS = 100_000;
    private static final int HALVINGS = 100;
    private static final double LOG_ROOT_PI = 0.5723649429247001;

    private ChiSquare() {}

    /** Probability of a value up to x. */
    static double upTo(double x, int degrees) {
        return x <= 0 ? 0 : incompleteGamma(degrees, x / 2);
    }

    /** The value below which a share lies, 0 &lt; p &lt; 1. */
    static double point(double p, int degrees) {
        double low = 0;
        double high = degrees;
        while (upTo(high, degrees) < p) {
            high *= 2;
        }
        for (int step = 0; step < HALVINGS && low < high; step++) {
            double middle = low + (high - low) / 2;
            if (upTo(middle, degrees) < p) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return high;
    }

    /** The point of the normal distribution below which a share lies, 0.5 &lt; p &lt; 1. */
    static double normalPoint(double p) {
        return Math.sqrt(point(2 * p - 1, 1));
    }

    /** P(degrees / 2, x). */
    private static double incompleteGamma(int degrees, double x) {
        double a = degrees / 2.0;
        double front = Math.exp(a * Math.log(x) - x - logGammaOfHalf(degrees));
        return x < a + 1 ? front * series(a, x) : 1 - front * continuedFraction(a, x);
    }

    private static double series(double a, double x) {
        double term = 1 / a;
        double sum = term;
        for (int k = 1; k < MOST_TERMS && term > sum * ENOUGH; k++) {
            term *= x / (a + k);
            sum += term;
        }
        return sum;
    }

    /** By Lentz's method. */
    private static double continuedFraction(double a, double x) {
        double b = x + 1 - a;
        double c = 1 / TINY;
        double d = 1 / b;
        double value = d;
        for (int k = 1; k < MOST_TERMS; k++) {
            double numerator = -k * (k - a);
            b += 2;
            d = 1 / away(numerator * d + b);
            c = away(b + numerator / c);
            double factor = d * c;
            value *= factor;
            if (Math.abs(factor - 1) < ENOUGH * 10) {
                break;
            }
        }
        return value;
    }

    private static double away(double fromZero) {
        return Math.abs(fromZero) < TINY ? TINY : fromZero;
    }

    /** ln Γ(degrees / 2), by the recurrence from Γ(1) or Γ(1/2). */
    private static double logGammaOfHalf(int degrees) {
        double a = degrees % 2 == 0 ? 1 : 0.5;
        Sums log = new Sums();
        log.add(degrees % 2 == 0 ? 0 : LOG_ROOT_PI);
        for (; a < degrees / 2.0; a++) {
            log.add(Math.log(a));
        }
        return log.total();
    }
}
