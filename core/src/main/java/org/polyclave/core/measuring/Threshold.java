package org.polyclave.core.measuring;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.polyclave.core.statistics.Outliers;

/**
 * Where to cut between two groups of measured individuals, and how often the cut is wrong.
 *
 * <p>The group with the smaller median is the <em>lower</em> one; an individual above the cut is taken for the other. If all
 * of one lie below all of the other, the cut is the middle of the gap. Else it is the cut with the least error, the mean of
 * the shares of both groups that lie on the wrong side, so that the more numerous group has no advantage; of several the
 * one nearest to the middle between the medians, then the smaller.
 *
 * <p>Time O(E · n log n) for E collecting events, memory O(n).
 *
 * @param cut in the unit of the values
 * @param secondIsLower whether the second group is the lower one
 * @param error mean of the shares on the wrong side, among the individuals by which the cut was found
 * @param crossValidated the same where the individuals of each collecting event meet a cut that was found without them:
 *     what to expect of new specimens. {@link Double#NaN} if a group is all from one event
 * @param doubtLow from here to {@code doubtHigh} neither group is certain: where both occur, or the gap between them, with
 *     the cut, wider by the reading's uncertainty on either side
 */
public record Threshold(
        double cut, boolean secondIsLower, double error, double crossValidated, double doubtLow, double doubtHigh) {
    /**
     * Individuals of a group.
     *
     * @param values one an individual
     * @param events the collecting event of each; individuals picked together are not an independent test of a cut
     */
    public record Group(double[] values, String[] events) {
        public Group {
            if (values.length == 0 || values.length != events.length) {
                throw new IllegalArgumentException(
                        "A group has individuals, and an event for each: " + values.length + " and " + events.length);
            }
        }

        /** Values of an event, or of all others. */
        private double[] of(String event, boolean others) {
            List<Double> kept = new ArrayList<>();
            for (int i = 0; i < values.length; i++) {
                if (events[i].equals(event) != others) {
                    kept.add(values[i]);
                }
            }
            return kept.stream().mapToDouble(v -> v).toArray();
        }

        private Set<String> distinctEvents() {
            return new LinkedHashSet<>(Arrays.asList(events));
        }
    }

    /** @param uncertainty of a reading, 0 or more */
    public static Threshold between(Group first, Group second, double uncertainty) {
        boolean secondIsLower = Outliers.median(second.values) < Outliers.median(first.values);
        Group lower = secondIsLower ? second : first;
        Group upper = secondIsLower ? first : second;
        double cut = cut(lower.values, upper.values);
        double mostOfLower = Arrays.stream(lower.values).max().orElseThrow();
        double leastOfUpper = Arrays.stream(upper.values).min().orElseThrow();
        double error = (share(lower.values, cut, true) + share(upper.values, cut, false)) / 2;
        return new Threshold(
                cut,
                secondIsLower,
                error,
                crossValidated(lower, upper),
                Math.min(cut, Math.min(mostOfLower, leastOfUpper)) - uncertainty,
                Math.max(cut, Math.max(mostOfLower, leastOfUpper)) + uncertainty);
    }

    private static double cut(double[] lower, double[] upper) {
        double[] all = new double[lower.length + upper.length];
        System.arraycopy(lower, 0, all, 0, lower.length);
        System.arraycopy(upper, 0, all, lower.length, upper.length);
        Arrays.sort(all);
        double[] low = sorted(lower);
        double[] high = sorted(upper);
        double middle = (Outliers.median(lower) + Outliers.median(upper)) / 2;
        double best = middle;
        double least = Double.POSITIVE_INFINITY;
        int belowLow = 0;
        int belowHigh = 0;
        for (int i = 0; i + 1 < all.length; i++) {
            if (all[i] == all[i + 1]) {
                continue;
            }
            double cut = all[i] + (all[i + 1] - all[i]) / 2;
            while (belowLow < low.length && low[belowLow] <= all[i]) {
                belowLow++;
            }
            while (belowHigh < high.length && high[belowHigh] <= all[i]) {
                belowHigh++;
            }
            double error = (low.length - belowLow) / (double) low.length + belowHigh / (double) high.length;
            if (error < least || (error == least && Math.abs(cut - middle) < Math.abs(best - middle))) {
                least = error;
                best = cut;
            }
        }
        return best;
    }

    private static double[] sorted(double[] values) {
        double[] sorted = values.clone();
        Arrays.sort(sorted);
        return sorted;
    }

    private static double share(double[] values, double cut, boolean above) {
        return Arrays.stream(values).filter(v -> v > cut == above).count() / (double) values.length;
    }

    private static double crossValidated(Group lower, Group upper) {
        Set<String> events = lower.distinctEvents();
        if (events.size() < 2 || upper.distinctEvents().size() < 2) {
            return Double.NaN;
        }
        events.addAll(upper.distinctEvents());
        int wrongOfLower = 0;
        int wrongOfUpper = 0;
        for (String event : events) {
            double cut = cut(lower.of(event, true), upper.of(event, true));
            for (double value : lower.of(event, false)) {
                wrongOfLower += value > cut ? 1 : 0;
            }
            for (double value : upper.of(event, false)) {
                wrongOfUpper += value > cut ? 0 : 1;
            }
        }
        return (wrongOfLower / (double) lower.values.length + wrongOfUpper / (double) upper.values.length) / 2;
    }
}
