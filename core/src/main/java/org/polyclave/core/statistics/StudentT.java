package org.polyclave.core.statistics;

import org.polyclave.core.run.PortableMath;

/**
 * Student's t for whole degrees of freedom, by the finite series of Abramowitz &amp; Stegun, Handbook of Mathematical
 * Functions, 1964, 26.7.3 and 26.7.4. Time linear in the degrees for a value, some sixty times that for a point.
 */
public final class StudentT {
    private static final double HALF_PI = 1.5707963267948966;
    private static final int HALVINGS = 60;

    private StudentT() {}

    /**
     * Probability of a value up to t.
     *
     * @param degrees at least 1
     */
    public static double upTo(double t, int degrees) {
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

    /** The point below which a share lies, 0 &lt; p &lt; 1. */
    public static double point(double p, int degrees) {
        double low = -1;
        double high = 1;
        while (upTo(low, degrees) > p) {
            low *= 2;
        }
        while (upTo(high, degrees) < p) {
            high *= 2;
        }
        for (int step = 0; step < HALVINGS; step++) {
            double middle = low + (high - low) / 2;
            if (upTo(middle, degrees) < p) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return high;
    }
}
