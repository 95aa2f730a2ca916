package org.polyclave.core.measuring;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.polyclave.core.statistics.Outliers;
import org.polyclave.core.statistics.Sums;

/**
 * Values that should be looked at again, each with its likely cause. An outlier is explained by a slip if it falls among the
 * other values once it is taken for inches, for another power of ten, or with two neighbouring digits changed about. Nothing
 * is changed; whoever measured says what it is. Time O(n log n).
 */
public final class Slips {
    /** Where the logarithms of the others spread more, a tenfold value is nothing unusual. */
    private static final double WIDEST = 0.7;
    /** Of the way to the others that an outlier has, what a second reading of the same may differ by. */
    private static final double CONFIRMING = 0.3;

    private final double least;
    private final double most;
    /** Median of the logarithms. */
    private final double middle;

    private final boolean telling;

    /** @param others the values that are not outliers, of which there are always some: half of all lie near the median */
    private Slips(double[] others) {
        least = Arrays.stream(others).min().orElseThrow();
        most = Arrays.stream(others).max().orElseThrow();
        double[] logs = Arrays.stream(others).map(Math::log).toArray();
        middle = Outliers.median(logs);
        telling = least > 0 && Sums.standardDeviation(logs, Sums.mean(logs)) <= WIDEST;
    }

    /** What may have happened; among several that fit as well the first. */
    public enum Cause {
        /** Read in inches, or converted into them. */
        INCHES(25.4),
        /** The decimal mark or the unit is off by one place. */
        TENFOLD(10),
        HUNDREDFOLD(100),
        THOUSANDFOLD(1000),
        /** Two neighbouring digits changed places. */
        TRANSPOSED_DIGITS(Double.NaN),
        /** A count that is not whole. */
        FRACTION(Double.NaN),
        /** Far from the others, and nothing explains it. */
        OUTLIER(Double.NaN);

        private final double factor;

        Cause(double factor) {
            this.factor = factor;
        }
    }

    /** @param repaired what the value would be without the slip; empty for fractions and outliers */
    public record Suspect(int index, Cause cause, Optional<Double> repaired) {}

    private record Repair(Cause cause, double value) {}

    /**
     * In the order of the values.
     *
     * @param values in the unit in which they were typed, so that their digits are those that somebody wrote
     * @param smallestSpread as in {@link Outliers#of}
     * @param counts whether they count something
     * @param individuals whose value each is: nobody swaps digits twice alike, so that what another reading of the same
     *     individual confirms is a small or a large one, or was measured in another unit
     */
    public static List<Suspect> of(double[] values, double smallestSpread, boolean counts, int[] individuals) {
        List<Outliers.Outlier> outliers = Outliers.of(values, smallestSpread);
        Map<Integer, Suspect> suspects = new TreeMap<>();
        for (int i = 0; i < values.length && counts; i++) {
            if (values[i] % 1 != 0) {
                suspects.put(i, new Suspect(i, Cause.FRACTION, Optional.empty()));
            }
        }
        if (!outliers.isEmpty()) {
            Slips slips = new Slips(without(values, outliers));
            outliers.forEach(o -> suspects.put(
                    o.index(),
                    slips.suspect(o.index(), values[o.index()], isConfirmed(o.index(), values, individuals))));
        }
        return List.copyOf(suspects.values());
    }

    /** Whether another value of the same individual is much nearer to it than the middle of all is. */
    private static boolean isConfirmed(int index, double[] values, int[] individuals) {
        double off = Math.abs(values[index] - Outliers.median(values));
        for (int j = 0; j < values.length; j++) {
            if (j != index
                    && individuals[j] == individuals[index]
                    && Math.abs(values[j] - values[index]) < CONFIRMING * off) {
                return true;
            }
        }
        return false;
    }

    /** @param outliers in the order of the values */
    private static double[] without(double[] values, List<Outliers.Outlier> outliers) {
        double[] others = new double[values.length - outliers.size()];
        int next = 0;
        for (int i = 0; i < values.length; i++) {
            if (next < outliers.size() && outliers.get(next).index() == i) {
                next++;
            } else {
                others[i - next] = values[i];
            }
        }
        return others;
    }

    private Suspect suspect(int index, double value, boolean confirmed) {
        Repair best = null;
        for (Repair candidate : telling && value > 0 ? candidates(value) : List.<Repair>of()) {
            boolean fits = candidate.value >= least
                    && candidate.value <= most
                    && !(confirmed && candidate.cause == Cause.TRANSPOSED_DIGITS);
            if (fits && (best == null || distance(candidate) < distance(best))) {
                best = candidate;
            }
        }
        return best == null
                ? new Suspect(index, Cause.OUTLIER, Optional.empty())
                : new Suspect(index, best.cause, Optional.of(best.value));
    }

    private double distance(Repair repair) {
        return Math.abs(Math.log(repair.value) - middle);
    }

    private static List<Repair> candidates(double value) {
        List<Repair> candidates = new ArrayList<>();
        for (Cause cause : Cause.values()) {
            if (!Double.isNaN(cause.factor)) {
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
