package org.polyclave.core.statistics;

/**
 * Where the next individual of a measured sample lies: Student's predictive distribution, with n − 1 degrees of freedom
 * about the mean, of scale s·√(1 + 1/n), on the {@link NormalScale} of the sample.
 *
 * <p>O(n) a value; more than {@value #MOST_DEGREES} degrees are taken as so many. Source: Gelman et al., Bayesian Data
 * Analysis, 3rd ed. 2013, section 3.2.
 */
public final class StudentPredictive {
    static final int MOST_DEGREES = 400;

    private final int degrees;
    private final NormalScale scale;
    private final double widening;

    public StudentPredictive(Measured measured) {
        int n = measured.individuals();
        degrees = n - 1 < MOST_DEGREES ? n - 1 : MOST_DEGREES;
        scale = NormalScale.of(measured.mean(), measured.sd());
        widening = Math.sqrt(1 + 1.0 / n);
    }

    /** Probability of a value up to x. */
    public double upTo(double x) {
        double t = scale.deviations(x) / widening;
        return t == Double.NEGATIVE_INFINITY ? 0 : StudentT.upTo(t, degrees);
    }

    /** The value below which a share of the individuals lies, by its point of Student's t. */
    public double at(double t) {
        return scale.at(widening * t);
    }

    public int degrees() {
        return degrees;
    }
}
