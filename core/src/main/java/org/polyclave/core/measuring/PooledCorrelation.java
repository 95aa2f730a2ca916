package org.polyclave.core.measuring;

import java.util.List;
import java.util.Optional;
import org.polyclave.core.statistics.Sums;

/**
 * How far two sizes go together within groups, whatever the groups' own means: products about the mean of each group, added up
 * over the groups (the error row of an analysis of covariance: G. W. Snedecor &amp; W. G. Cochran, Statistical Methods, 6th
 * ed. 1967, section 14.4).
 *
 * @param individuals of groups with two or more
 * @param r from -1 to 1
 */
public record PooledCorrelation(int individuals, double r) {
    /** Both sizes of the individuals of a group. */
    public record Group(double[] x, double[] y) {
        public Group {
            if (x.length != y.length) {
                throw new IllegalArgumentException("Both sizes of each individual are needed");
            }
        }
    }

    /** Empty where nothing varies within any group. Takes time linear in the individuals. */
    public static Optional<PooledCorrelation> of(List<Group> groups) {
        int individuals = 0;
        double xx = 0;
        double yy = 0;
        double xy = 0;
        for (Group group : groups) {
            int n = group.x().length;
            if (n < 2) {
                continue;
            }
            individuals += n;
            double meanX = Sums.mean(group.x());
            double meanY = Sums.mean(group.y());
            for (int i = 0; i < n; i++) {
                double dx = group.x()[i] - meanX;
                double dy = group.y()[i] - meanY;
                xx += dx * dx;
                yy += dy * dy;
                xy += dx * dy;
            }
        }
        return xx > 0 && yy > 0
                ? Optional.of(new PooledCorrelation(individuals, xy / Math.sqrt(xx * yy)))
                : Optional.empty();
    }
}
