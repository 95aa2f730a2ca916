package org.polyclave.core.measuring;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Arrays;
import java.util.Optional;
import org.polyclave.core.statistics.Summary;

/**
 * The range that the matrix should hold for measured individuals, rounded outward to the resolution of the readings, so that
 * no individual that was measured is shut out: (min–)low–high(–max). Min equals low and max equals high where nothing is set
 * apart. Time O(n log n).
 *
 * @param provisional whether fewer than {@link #MANY} individuals were measured
 */
public record ProposedRange(double min, double low, double high, double max, boolean provisional) {
    /** Individuals from which on the outermost are set apart as exceptions. */
    public static final int MANY = 40;
    /** Fewer individuals make no range. */
    public static final int FEW = 5;

    /** Of a step: what is off by less is the noise of averaging or converting. */
    private static final BigDecimal NOISE = new BigDecimal("1e-6");

    /**
     * Empty for fewer than {@link #FEW} individuals.
     *
     * @param individuals one value an individual
     * @param resolution step of the readings, above 0
     */
    public static Optional<ProposedRange> of(double[] individuals, BigDecimal resolution) {
        if (resolution.signum() <= 0) {
            throw new IllegalArgumentException("A resolution is above 0: " + resolution);
        }
        if (individuals.length < FEW) {
            return Optional.empty();
        }
        double[] sorted = individuals.clone();
        Arrays.sort(sorted);
        double min = outward(sorted[0], resolution, RoundingMode.FLOOR);
        double max = outward(sorted[sorted.length - 1], resolution, RoundingMode.CEILING);
        if (sorted.length < MANY) {
            return Optional.of(new ProposedRange(min, min, max, max, true));
        }
        double low = outward(Summary.quantile(sorted, 0.05), resolution, RoundingMode.FLOOR);
        double high = outward(Summary.quantile(sorted, 0.95), resolution, RoundingMode.CEILING);
        return Optional.of(new ProposedRange(min, low, high, max, false));
    }

    private static double outward(double value, BigDecimal resolution, RoundingMode way) {
        BigDecimal steps = BigDecimal.valueOf(value).divide(resolution, MathContext.DECIMAL64);
        BigDecimal whole = steps.setScale(0, RoundingMode.HALF_EVEN);
        boolean onStep = steps.subtract(whole).abs().compareTo(NOISE) < 0;
        return (onStep ? whole : steps.setScale(0, way)).multiply(resolution).doubleValue();
    }
}
