package org.polyclave.core.matrix;

import java.util.List;
import java.util.Optional;
import org.polyclave.core.statistics.Measured;

/** What a row shows for a character, compiled for computation. */
public sealed interface Cell {
    /** Nothing is known: every state is possible. */
    Cell UNKNOWN = new Unknown();
    /** The character does not exist on this row. */
    Cell NOT_APPLICABLE = new NotApplicable();

    /** Not scored, or scored as unknown. */
    record Unknown() implements Cell {}

    /** Scored as not applicable. */
    record NotApplicable() implements Cell {}

    /**
     * A set of states (or months) with their shares.
     *
     * @param support bit set of the states the organism shows
     * @param readable support plus the states that readers take it for
     * @param shares one share a state, summing to 1; zero outside the support
     */
    record Categorical(int support, int readable, double[] shares) implements Cell {
        public Categorical {
            if (support == 0 || (support & ~readable) != 0) {
                throw new IllegalArgumentException(
                        "A categorical cell needs a state, and its support must be readable");
            }
        }

        /** One state, always. */
        public static Categorical single(int state, int stateCount) {
            double[] shares = new double[stateCount];
            shares[state] = 1;
            return new Categorical(1 << state, 1 << state, shares);
        }

        /** Several states in equal shares. */
        public static Categorical even(int support, int stateCount) {
            double[] shares = new double[stateCount];
            double share = 1.0 / Integer.bitCount(support);
            for (int s = 0; s < stateCount; s++) {
                shares[s] = (support & (1 << s)) != 0 ? share : 0;
            }
            return new Categorical(support, support, shares);
        }

        /** Share of the states in {@code mask}. */
        public double share(int mask) {
            double sum = 0;
            for (int bits = mask & support; bits != 0; bits &= bits - 1) {
                sum += shares[Integer.numberOfTrailingZeros(bits)];
            }
            return sum;
        }

        @Override
        public boolean equals(Object other) {
            if (!(other instanceof Categorical that) || support != that.support || readable != that.readable) {
                return false;
            }
            if (shares.length != that.shares.length) {
                return false;
            }
            for (int s = 0; s < shares.length; s++) {
                if (shares[s] != that.shares[s]) {
                    return false;
                }
            }
            return true;
        }

        @Override
        public int hashCode() {
            return 31 * support + readable;
        }
    }

    /** Values from {@code low} to {@code high} that are met evenly, with the share of all individuals that show them. */
    record Part(double low, double high, double share) {}

    /**
     * A range {@code (min–)low–high(–max)} in the character's base unit, min ≤ low ≤ high ≤ max.
     *
     * @param measured the sample behind it, if its spread is known
     * @param parts how often which values are met, if that is said; otherwise it follows from the range
     */
    record Numeric(double min, double low, double high, double max, Optional<Measured> measured, List<Part> parts)
            implements Cell {
        public Numeric(double min, double low, double high, double max, Optional<Measured> measured) {
            this(min, low, high, max, measured, List.of());
        }

        public Numeric(double min, double low, double high, double max) {
            this(min, low, high, max, Optional.empty());
        }

        public Numeric {
            if (!(min <= low && low <= high && high <= max)) {
                throw new IllegalArgumentException("A range must run min <= low <= high <= max");
            }
            parts = List.copyOf(parts);
            for (int k = 0; k < parts.size(); k++) {
                if (parts.get(k).low() < min || parts.get(k).high() > max) {
                    throw new IllegalArgumentException("The parts of a range must lie within it");
                }
            }
        }

        /** Whole and half numbers differ in their highest bits only: without mixing, most ranges would share few values. */
        @Override
        public int hashCode() {
            int hash = 31 * Double.hashCode(min) + Double.hashCode(low);
            hash = 31 * (31 * hash + Double.hashCode(high)) + Double.hashCode(max);
            hash = (hash ^ (hash >>> 15)) * 0x2c1b3c6d;
            return hash ^ (hash >>> 12);
        }

        /** @param parts within the range, their shares summing to 1 */
        public static Numeric inParts(double min, double low, double high, double max, List<Part> parts) {
            return new Numeric(min, low, high, max, Optional.empty(), parts);
        }

        public static Numeric range(double low, double high) {
            return new Numeric(low, low, high, high);
        }
    }
}
