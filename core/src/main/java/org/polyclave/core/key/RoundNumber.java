package org.polyclave.core.key;

/** Numbers that people use: the shortest decimal strictly inside a gap, nearest to its middle. */
public final class RoundNumber {
    private static final int FINEST = 9;
    private static final int COARSEST = 9;

    private RoundNumber() {}

    /** A number strictly between {@code low} and {@code high}; the middle itself when no short decimal fits. */
    public static double inside(double low, double high) {
        double middle = low + (high - low) / 2;
        for (int exponent = COARSEST; exponent >= -FINEST; exponent--) {
            for (int unit : new int[] {5, 1}) {
                int shift = exponent - 1;
                double candidate = nearest(middle, unit, shift);
                if (candidate > low && candidate < high) {
                    return candidate;
                }
            }
        }
        return middle;
    }

    /** The multiple of {@code unit · 10^shift} nearest to x, computed so that decimals come out exact. */
    private static double nearest(double x, int unit, int shift) {
        double power = 1;
        for (int i = 0; i < Math.abs(shift); i++) {
            power *= 10;
        }
        if (shift >= 0) {
            double step = unit * power;
            return Math.floor(x / step + 0.5) * step;
        }
        return Math.floor(x * power / unit + 0.5) * unit / power;
    }
}
