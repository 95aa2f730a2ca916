package org.polyclave.core.key;

/** The observations that a statement accepts: some states (or months), or an interval of numbers. */
public sealed interface Atoms {
    /** @param mask bit set of states or months; not empty */
    record States(int mask) implements Atoms {}

    /**
     * Numbers between {@code min} and {@code max}; either may be infinite.
     *
     * @param minExclusive whether {@code min} itself is left out
     * @param maxExclusive whether {@code max} itself is left out
     */
    record Interval(double min, double max, boolean minExclusive, boolean maxExclusive) implements Atoms {
        public static final Interval ALL =
                new Interval(Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY, false, false);

        public static Interval closed(double min, double max) {
            return new Interval(min, max, false, false);
        }

        /** The numbers in both. */
        public Interval and(Interval other) {
            double low = Math.max(min, other.min);
            double high = Math.min(max, other.max);
            boolean lowOut = (low == min && minExclusive) || (low == other.min && other.minExclusive);
            boolean highOut = (high == max && maxExclusive) || (high == other.max && other.maxExclusive);
            return new Interval(low, high, lowOut, highOut);
        }

        /** Whether no number, or for {@code whole} no whole number, lies inside. */
        public boolean isEmpty(boolean whole) {
            if (whole && Double.isFinite(min) && Double.isFinite(max)) {
                double first = Math.ceil(min) == min && minExclusive ? min + 1 : Math.ceil(min);
                double last = Math.floor(max) == max && maxExclusive ? max - 1 : Math.floor(max);
                return first > last;
            }
            return min > max || (min == max && (minExclusive || maxExclusive));
        }

        /** Whether {@code x} lies inside. */
        public boolean contains(double x) {
            return (minExclusive ? x > min : x >= min) && (maxExclusive ? x < max : x <= max);
        }
    }
}
