package org.polyclave.core.statistics;

import org.polyclave.core.run.PortableMath;

/**
 * On which scale sizes are taken as normally distributed: their own, or where the standard deviation exceeds a third of the
 * mean that of their logarithms, with the moments of a lognormal distribution.
 *
 * @param centre mean on that scale
 * @param spread standard deviation on that scale
 */
public record NormalScale(boolean logarithmic, double centre, double spread) {
    private static final double SKEWED = 1.0 / 3;

    public static NormalScale of(double mean, double sd) {
        if (!(mean > 0 && sd > mean * SKEWED)) {
            return new NormalScale(false, mean, sd);
        }
        double ratio = sd / mean;
        double variance = PortableMath.ln(1 + ratio * ratio);
        return new NormalScale(true, PortableMath.ln(mean) - variance / 2, Math.sqrt(variance));
    }

    /** The size so many standard deviations from the centre. */
    public double at(double deviations) {
        double value = centre + spread * deviations;
        return logarithmic ? PortableMath.exp(value) : value;
    }

    /** How many standard deviations a size lies from the centre; below everything for what has no logarithm. */
    public double deviations(double size) {
        if (logarithmic && size <= 0) {
            return Double.NEGATIVE_INFINITY;
        }
        return ((logarithmic ? PortableMath.ln(size) : size) - centre) / spread;
    }
}
