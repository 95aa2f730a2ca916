package org.polyclave.core.matrix;

import org.polyclave.core.run.PortableMath;
import org.polyclave.core.run.StudentT;

/**
 * Where the next individual of a measured sample lies: Student's predictive distribution, with n − 1 degrees of freedom
 * about the mean, of scale s·√(1 + 1/n). Where the standard deviation exceeds a third of the mean, on the log scale with
 * the moments of a lognormal distribution.
 *
 * <p>O(n) a value; more than {@value #MOST_DEGREES} degrees are taken as so many. Source: Gelman et al., Bayesian Data
 * Analysis, 3rd ed. 2013, section 3.2.
 */
public final class StudentPredictive {
    static final int MOST_DEGREES = 400;
    private static final double SKEWED = 1.0 / 3;

    private final int degrees;
    private final double centre;
    private final double scale;
    private final boolean logarithmic;

    public StudentPredictive(Measured measured) {
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
    public double upTo(double x) {
        if (logarithmic) {
            return x <= 0 ? 0 : StudentT.upTo((PortableMath.ln(x) - centre) / scale, degrees);
        }
        return StudentT.upTo((x - centre) / scale, degrees);
    }

    /** The value below which a share of the individuals lies, by its point of Student's t. */
    public double at(double t) {
        double value = centre + scale * t;
        return logarithmic ? PortableMath.exp(value) : value;
    }

    public int degrees() {
        return degrees;
    }
}
