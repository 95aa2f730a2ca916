package org.polyclave.core.measuring;

import java.util.Arrays;
import java.util.List;
import org.polyclave.core.statistics.Sums;

/**
 * Whether groups of individuals, such as sexes or stages, may honestly be measured as one: how far apart their means are, in
 * standard deviations within them. Where the means are farther apart than one, a pooled range says of every individual what is
 * true of none: describe the groups apart. Time O(n).
 *
 * @param apart greatest difference between two means over the pooled standard deviation; infinite if there is none
 * @param first index of the group with the smallest mean
 * @param last index of the group with the largest mean
 */
public record Pooling(double apart, int first, int last) {
    /** Standard deviations from which on groups should not be pooled. */
    public static final double MOST_APART = 1;

    private static final int FEWEST = 2;

    public boolean isHonest() {
        return apart <= MOST_APART;
    }

    /**
     * @param groups at least two, of at least two values each
     * @throws IllegalArgumentException for fewer
     */
    public static Pooling of(List<double[]> groups) {
        if (groups.size() < FEWEST || groups.stream().anyMatch(g -> g.length < FEWEST)) {
            throw new IllegalArgumentException("Two groups of two individuals are needed");
        }
        double[] means = groups.stream().mapToDouble(Sums::mean).toArray();
        Sums squares = new Sums();
        int degrees = 0;
        for (int g = 0; g < means.length; g++) {
            double sd = Sums.standardDeviation(groups.get(g), means[g]);
            squares.add(sd * sd * (groups.get(g).length - 1));
            degrees += groups.get(g).length - 1;
        }
        int first = index(means, Arrays.stream(means).min().orElseThrow());
        int last = index(means, Arrays.stream(means).max().orElseThrow());
        double difference = means[last] - means[first];
        double within = Math.sqrt(squares.total() / degrees);
        return new Pooling(difference == 0 ? 0 : difference / within, first, last);
    }

    private static int index(double[] values, double wanted) {
        int found = 0;
        while (values[found] != wanted) {
            found++;
        }
        return found;
    }
}
