package org.polyclave.core.matrix;

import java.util.ArrayList;
import java.util.List;

/**
 * How bad it is to take a specimen of one row for another, in times of an everyday wrong name. Set by the author for
 * ordered pairs; 1 for all others.
 */
public final class MisidentificationCosts {
    /** Every wrong name is as bad as any other. */
    public static final MisidentificationCosts EVEN = new MisidentificationCosts(new double[0][]);

    /** By row, then by the row it is taken for; null or missing where nothing is set. */
    private final double[][] times;

    private MisidentificationCosts(double[][] times) {
        this.times = times;
    }

    /**
     * One pair.
     *
     * @param row what the specimen is
     * @param named what it is taken for
     * @param times above 0
     */
    public record Loss(int row, int named, double times) {
        public Loss {
            if (!(times > 0)) {
                throw new IllegalArgumentException("A loss is above 0, not " + times);
            }
        }
    }

    /** Of several losses of one pair the largest counts. Memory grows with the rows that have a loss × all rows. */
    public static MisidentificationCosts of(int rows, List<Loss> losses) {
        if (losses.isEmpty()) {
            return EVEN;
        }
        double[][] times = new double[rows][];
        for (Loss loss : losses) {
            if (times[loss.row()] == null) {
                times[loss.row()] = new double[rows];
            }
            double[] of = times[loss.row()];
            of[loss.named()] = of[loss.named()] > loss.times() ? of[loss.named()] : loss.times();
        }
        return new MisidentificationCosts(times);
    }

    /** The same for some of the rows, in the order given. */
    MisidentificationCosts of(List<Integer> rows) {
        List<Loss> kept = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            for (int j = 0; j < rows.size() && isSet(rows.get(i)); j++) {
                double set = times[rows.get(i)][rows.get(j)];
                if (set > 0) {
                    kept.add(new Loss(i, j, set));
                }
            }
        }
        return of(rows.size(), kept);
    }

    /** Whether a pair with this true row was set. */
    public boolean isSet(int row) {
        return row < times.length && times[row] != null;
    }

    /** How bad it is to take {@code row} for {@code named}. */
    public double of(int row, int named) {
        double set = isSet(row) ? times[row][named] : 0;
        return set > 0 ? set : 1;
    }
}
