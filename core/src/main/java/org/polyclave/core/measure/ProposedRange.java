package org.polyclave.core.measure;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Arrays;
import java.util.List;

/**
 * The range that the matrix should hold for measured individuals, rounded outward to the resolution of the readings, so that
 * no individual that was measured is shut out.
 */
public sealed interface ProposedRange {
    /** Individuals from which on the outermost are set apart as exceptions. */
    int MANY = 40;
    /** Fewer individuals make no range. */
    int FEW = 5;

    /**
     * (min–)low–high(–max); min equals low and max equals high where nothing is set apart.
     *
     * @param provisional whether fewer than {@link #MANY} individuals were measured
     */
    record Range(double min, double low, double high, double max, boolean provisional) implements ProposedRange {}

    /** Too few for a range: the values themselves, ascending. */
    record Values(List<Double> values) implements ProposedRange {}

    /**
     * @param individuals one value an individual
     * @param resolution step of the readings, above 0
     */
    static ProposedRange of(double[] individuals, BigDecimal resolution) {
        if (resolution.signum() <= 0) {
            throw new IllegalArgumentException("A resolution is above 0: " + resolution);
        }
        double[] sorted = individuals.clone();
        Arrays.sort(sorted);
        if (sorted.length < FEW) {
            return new Values(Arrays.stream(sorted).boxed().toList());
        }
        double min = outward(sorted[0], resolution, RoundingMode.FLOOR);
        double max = outward(sorted[sorted.length - 1], resolution, RoundingMode.CEILING);
        if (sorted.length < MANY) {
            return new Range(min, min, max, max, true);
        }
        double low = outward(Summary.quantile(sorted, 0.05), resolution, RoundingMode.FLOOR);
        double high = outward(Summary.quantile(sorted, 0.95), resolution, RoundingMode.CEILING);
        return new Range(min, low, high, max, false);
    }

    private static double outward(double value, BigDecimal resolution, RoundingMode way) {
        // What is a step but for the noise of averaging or converting stays on it.
        BigDecimal steps = BigDecimal.valueOf(value).divide(resolution, MathContext.DECIMAL64);
        BigDecimal whole = steps.setScale(0, RoundingMode.HALF_EVEN);
        boolean onStep = steps.subtract(whole).abs().compareTo(NOISE) < 0;
        return (onStep ? whole : steps.setScale(0, way)).multiply(resolution).doubleValue();
    }

    /** Of a step. */
    BigDecimal NOISE = new BigDecimal("1e-6");
}
