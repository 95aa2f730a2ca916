package org.polyclave.core.measure;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * Outliers that a slip of the pen would explain: an outlier that falls among the other values once it is taken for inches,
 * for another power of ten, or with two neighbouring digits changed about. Nothing is changed; whoever measured says what
 * it is. Time O(n log n).
 */
public final class Slips {
    private static final double INCH = 25.4;
    /** Where the logarithms of the others spread more, a tenfold value is nothing unusual. */
    private static final double WIDEST = 0.7;

    private Slips() {}

    /** What may have happened; the order breaks ties. */
    public enum Cause {
        /** Read in inches, or converted into them. */
        INCHES(INCH),
        /** The decimal mark or the unit is off by one place. */
        TENFOLD(10),
        HUNDREDFOLD(100),
        THOUSANDFOLD(1000),
        /** Two neighbouring digits changed places. */
        TRANSPOSED_DIGITS(Double.NaN);

        private final double factor;

        Cause(double factor) {
            this.factor = factor;
        }
    }

    /** @param value what it would be without the slip */
    public record Repair(Cause cause, double value) {}

    /** A value that should be looked at again; with the likeliest repair, if one explains it. */
    public record Suspect(int index, double z, Optional<Repair> repair) {}

    /**
     * @param values in the unit in which they were typed, so that their digits are those that somebody wrote
     * @param smallestSpread as in {@link Outliers#of}
     */
    public static List<Suspect> of(double[] values, double smallestSpread) {
        List<Outliers.Outlier> outliers = Outliers.of(values, smallestSpread);
        Set<Integer> out = new HashSet<>();
        outliers.forEach(o -> out.add(o.index()));
        List<Double> rest = new ArrayList<>();
        for (int i = 0; i < values.length; i++) {
            if (!out.contains(i)) {
                rest.add(values[i]);
            }
        }
        double[] others = rest.stream().mapToDouble(v -> v).toArray();
        List<Suspect> suspects = new ArrayList<>();
        for (Outliers.Outlier outlier : outliers) {
            suspects.add(new Suspect(outlier.index(), outlier.z(), repair(values[outlier.index()], others)));
        }
        return suspects;
    }

    private static Optional<Repair> repair(double value, double[] others) {
        if (value <= 0 || Arrays.stream(others).anyMatch(v -> v <= 0)) {
            return Optional.empty();
        }
        double[] logs = Arrays.stream(others).map(Math::log).toArray();
        if (Sums.standardDeviation(logs, Sums.mean(logs)) > WIDEST) {
            return Optional.empty();
        }
        double least = Arrays.stream(others).min().orElseThrow();
        double most = Arrays.stream(others).max().orElseThrow();
        double middle = Outliers.median(logs);
        Repair best = null;
        for (Repair candidate : candidates(value)) {
            boolean fits = candidate.value() >= least && candidate.value() <= most;
            if (fits && (best == null || distance(candidate, middle) < distance(best, middle))) {
                best = candidate;
            }
        }
        return Optional.ofNullable(best);
    }

    private static double distance(Repair repair, double middle) {
        return Math.abs(Math.log(repair.value()) - middle);
    }

    private static List<Repair> candidates(double value) {
        List<Repair> candidates = new ArrayList<>();
        for (Cause cause : Cause.values()) {
            if (cause != Cause.TRANSPOSED_DIGITS) {
                candidates.add(new Repair(cause, value * cause.factor));
                candidates.add(new Repair(cause, value / cause.factor));
            }
        }
        String digits = BigDecimal.valueOf(value).stripTrailingZeros().toPlainString();
        for (int i = 0; i + 1 < digits.length(); i++) {
            int next = digits.charAt(i + 1) == '.' ? i + 2 : i + 1;
            if (digits.charAt(i) != '.' && next < digits.length()) {
                candidates.add(new Repair(Cause.TRANSPOSED_DIGITS, swapped(digits, i, next)));
            }
        }
        return candidates;
    }

    private static double swapped(String digits, int i, int j) {
        StringBuilder changed = new StringBuilder(digits);
        changed.setCharAt(i, digits.charAt(j));
        changed.setCharAt(j, digits.charAt(i));
        return Double.parseDouble(changed.toString());
    }
}
