package org.polyclave.core.measuring;

/**
 * A ratio of two readings of one item with its standard uncertainty, to first order and for independent readings: Joint
 * Committee for Guides in Metrology, Guide to the expression of uncertainty in measurement (JCGM 100:2008), 5.1.6. Good while
 * the denominator's relative uncertainty is below about a tenth.
 */
public record Ratio(double value, double uncertainty) {
    /**
     * @param numerator at least 0, with its standard uncertainty
     * @param denominator above 0, with its standard uncertainty
     */
    public static Ratio of(
            double numerator, double numeratorUncertainty, double denominator, double denominatorUncertainty) {
        if (!(numerator >= 0) || !(denominator > 0)) {
            throw new IllegalArgumentException(
                    "A ratio takes sizes, the second above 0: " + numerator + " : " + denominator);
        }
        double value = numerator / denominator;
        return new Ratio(
                value, Math.hypot(numeratorUncertainty / denominator, value * denominatorUncertainty / denominator));
    }
}
