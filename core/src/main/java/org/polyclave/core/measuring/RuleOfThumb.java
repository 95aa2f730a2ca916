package org.polyclave.core.measuring;

import org.polyclave.core.statistics.Sums;

/**
 * Sizes that people carry with them, to tell a length by when no ruler is at hand.
 *
 * <p>The typical sizes are round figures for grown people's hands and for common pencils, with a spread that holds most of
 * them; they are conventions of this program, not measured results, and everybody is asked to measure their own. Lengths told
 * in them are rough: they never settle a name alone and never speak against a dangerous row.
 */
public enum RuleOfThumb {
    /** Across the nail of the index finger. */
    FINGERNAIL(11, 1.5),
    /** Across the index finger, at the joint next to the nail. */
    FINGER_WIDTH(17, 2),
    /** Across a pencil. */
    PENCIL(7.3, 0.5),
    /** From the tip of the thumb to that of the little finger, spread wide. */
    HAND_SPAN(200, 20);

    /** Fewer measurements of one's own say nothing of their spread. */
    public static final int LEAST = 3;

    private static final double LEAST_SPREAD = 0.02;
    /** People tell such sizes to the half. */
    private static final double STEP = 0.5;

    private static final double BELIEVABLE = 6;

    private final double mean;
    private final double spread;

    RuleOfThumb(double mean, double spread) {
        this.mean = mean;
        this.spread = spread;
    }

    /**
     * How long one is, in mm.
     *
     * @param spread standard deviation: between people, or of one person's measurements
     */
    public record Size(double mean, double spread) {
        /**
         * So many of them, told to the half: the size may be off, the same way each time, and so may the telling.
         *
         * @param times above 0
         */
        public Rough times(double times) {
            double told = STEP * mean / Math.sqrt(12);
            return new Rough(times * mean, Math.hypot(times * spread, told));
        }
    }

    /** @param uncertainty standard uncertainty, in mm */
    public record Rough(double value, double uncertainty) {}

    /** Of people at large. */
    public Size typical() {
        return new Size(mean, spread);
    }

    /**
     * Of one person, who measured it several times: the mean, and the standard deviation of the next measurement, at least
     * 2 % of it.
     *
     * @param measured at least {@link #LEAST} lengths in mm
     * @throws IllegalArgumentException for fewer, or where {@link #isBelievable} says no
     */
    public Size of(double[] measured) {
        if (measured.length < LEAST) {
            throw new IllegalArgumentException("It takes " + LEAST + " measurements, not " + measured.length);
        }
        for (double length : measured) {
            if (!isBelievable(length)) {
                throw new IllegalArgumentException("No " + name() + " has " + length + " mm");
            }
        }
        double own = Sums.mean(measured);
        double next = Sums.standardDeviation(measured, own) * Math.sqrt(1 + 1.0 / measured.length);
        return new Size(own, Math.max(next, LEAST_SPREAD * own));
    }

    /** Whether anybody's may have this length; other figures are slips of the unit. */
    public boolean isBelievable(double length) {
        return Math.abs(length - mean) <= BELIEVABLE * spread;
    }
}
