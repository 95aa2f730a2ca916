package org.polyclave.core.matrix;

import org.polyclave.core.run.PortableMath;

/**
 * Where the next individual of a measured sample lies: Student's predictive distribution, with n − 1 degrees of freedom
 * about the mean, of scale s·√(1 + 1/n). Where the standard deviation exceeds a third of the mean, on the log scale with
 * the moments of a lognormal distribution.
 *
 * <p>Distribution function by the finite series for whole degrees of freedom (Abramowitz &amp; Stegun, Handbook of
 * Mathematical Functions, 1964, 26.7.3 and 26.7.4), O(n) a value; more than {@value #MOST_DEGREES} degrees are taken as so
 * many. Source of the predictive distribution: Gelman et al., Bayesian Data Analysis, 3rd ed. 2013, section 3.2.
 */
final class StudentPredictive {
    static final int MOST_DEGREES = 400;
    private static final double SKEWED = 1.0 / 3;

    private final int degrees;
    private final double centre;
    private final double scale;
    private final boolean logarithmic;

    StudentPredictive(Measured measured) {
        int n = measured.individuals();
        degrees = n - 1 < MOST_DEGREES ? n - 1 : MOST_DEGREES;
        logarithmic = measured.mean() > 0 && measured.sd() > measured.mean() * SKEWED;
        double widening = Math.sqrt(1 + 1.0 / n);
        if (logarithmic) {
            double ratio = measured.sd() / measured.mean();
            double variance = PortableMath.ln(1 + ratio * ratio);
            centre = PortableMath.ln(measured.mean()) - variance / 2;
            scale = Math.sqrt(variance) * widening;
        } else {
            centre = measured.mean();
            scale = measured.sd() * widening;
        }
    }

    /** Probability of a value up to x. */
    double upTo(double x) {
        if (logarithmic) {
            return x <= 0 ? 0 : student((PortableMath.ln(x) - centre) / scale, degrees);
        }
        return student((x - centre) / scale, degrees);
    }

    /** The value below which a share of the individuals lies, by its point of Student's t. */
    double at(double t) {
        double value = centre + scale * t;
        return logarithmic ? PortableMath.exp(value) : value;
    }

    int degrees() {
        return degrees;
    }

    /** The point of Student's t below which a share lies, 0 &lt; p &lt; 1. */
    static double point(int degrees, double p) {
        double low = -1;
        double high = 1;
        while (student(low, degrees) > p) {
            low *= 2;
        }
        while (student(high, degrees) < p) {
            high *= 2;
        }
        for (int step = 0; step < 60; step++) {
            double middle = low + (high - low) / 2;
            if (student(middle, degrees) < p) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return high;
    }

    /** Student's distribution function. */
    private static double student(double t, int degrees) {
        double sine = t / Math.sqrt(degrees + t * t);
        double square = degrees / (degrees + t * t);
        boolean odd = degrees % 2 == 1;
        double sum = 0;
        double term = odd ? Math.sqrt(square) : 1;
        // Powers of the cosine with their factors, from the first to that of ν − 2.
        for (int k = odd ? 1 : 0; k <= degrees - 2; k += 2) {
            sum += term;
            term *= square * (k + 1) / (k + 2);
        }
        double between = odd ? (PortableMath.atan(t / Math.sqrt(degrees)) + sine * sum) / HALF_PI : sine * sum;
        return 0.5 + between / 2;
    }

    private static final double HALF_PI = 1.5707963267948966;
}
