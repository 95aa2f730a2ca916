package org.polyclave.core.matrix;

import java.util.Arrays;
import java.util.List;
import org.polyclave.core.statistics.StudentPoints;
import org.polyclave.core.statistics.StudentPredictive;

/**
 * Distribution function of one range, or of an even mixture of ranges: piecewise linear with steps.
 *
 * <p>A range {@code (min–)low–high(–max)} is flat on [low, high] with 90 % of the mass; the tails that exist share 10 % by
 * width; without tails all of it is flat. A range of which a sample was measured follows its predictive distribution
 * ({@link StudentPredictive}), flat between quantiles so close that no share is off by more than 0.005. Where shares of its
 * parts are said ("usually 5, sometimes 3"), each part is flat. Counts are widened by one half on both sides, so that cuts
 * between whole numbers give whole shares. A single value is a step, or flat over ± its reading uncertainty. Building takes n log n
 * time in the number of ranges, a look-up log n.
 */
public final class RangeDistribution {
    private static final double CORE_SHARE = 0.9;
    /** Errors closer than this are the same. */
    private static final double LEVEL = 1e-12;

    /** Shares at whose quantiles a predictive distribution is cut into flat parts. */
    private static final double[] LEVELS = levels();

    /** What {@link #of} needs of Student's t, to be shared by many calls: working it out costs far more than all the rest. */
    static StudentPoints points() {
        return new StudentPoints(LEVELS);
    }

    private static double[] levels() {
        double[] tail = {0.0005, 0.002, 0.005, 0.01};
        double[] levels = new double[2 * tail.length + 49];
        for (int k = 0; k < tail.length; k++) {
            levels[k] = tail[k];
            levels[levels.length - 1 - k] = 1 - tail[k];
        }
        for (int k = 0; k < 49; k++) {
            levels[tail.length + k] = 0.02 * (k + 1);
        }
        return levels;
    }

    private final double[] xs;
    private final double[] below;
    private final double[] upTo;

    private RangeDistribution(double[] xs, double[] below, double[] upTo) {
        this.xs = xs;
        this.below = below;
        this.upTo = upTo;
    }

    /** What to do with the part of a predictive distribution that lies outside the range. */
    public enum Tails {
        /** The next individual may lie outside what was seen so far: for readings. */
        KEPT,
        /** Only what the range admits: for keys, whose leads stand on it. */
        CUT
    }

    /** Even mixture of {@code ranges}, which must not be empty. */
    public static RangeDistribution of(List<Cell.Numeric> ranges, MatrixCharacter character, Tails tails) {
        return of(ranges, character, tails, points());
    }

    static RangeDistribution of(
            List<Cell.Numeric> ranges, MatrixCharacter character, Tails tails, StudentPoints points) {
        Segments segments = new Segments(capacity(ranges));
        for (Cell.Numeric range : ranges) {
            if (!range.parts().isEmpty()) {
                segments.addParts(range, character, 1.0 / ranges.size());
            } else if (range.measured().isEmpty() || range.min() == range.max()) {
                segments.addRange(range, character, 1.0 / ranges.size());
            } else {
                StudentPredictive predictive =
                        new StudentPredictive(range.measured().get());
                double[] at = points.of(predictive.degrees());
                segments.addPredictive(range, character, predictive, at, 1.0 / ranges.size(), tails);
            }
        }
        return segments.accumulate();
    }

    private static int capacity(List<Cell.Numeric> ranges) {
        int capacity = 0;
        for (int k = 0; k < ranges.size(); k++) {
            capacity += Math.max(LEVELS.length + 1, ranges.get(k).parts().size());
        }
        return capacity;
    }

    /** Probability of a value in (low, high]; bounds may be infinite. */
    public double share(double low, double high) {
        return high <= low ? 0 : Math.max(0, upTo(high) - upTo(low));
    }

    /** Probability of a value within [x − u, x + u], the likelihood of a reading. */
    public double within(double low, double high) {
        return high < low ? 0 : Math.max(0, upTo(high) - below(low));
    }

    /** How many places there are at which the function bends or steps. */
    public int ends() {
        return xs.length;
    }

    /** Such a place, from the smallest up. */
    public double end(int i) {
        return xs[i];
    }

    /**
     * Where to cut between two distributions so that the fewest are taken for the other, at even odds.
     *
     * @param from all cuts from here ...
     * @param to ... to here are equally good
     * @param error share of both that lies on the wrong side
     */
    public record LeastError(double from, double to, double error) {
        public double middle() {
            return from + (to - from) / 2;
        }
    }

    /** The cut with the least error; values up to it belong to this distribution. Takes time in the ends of both. */
    public LeastError cutBelow(RangeDistribution upper) {
        Walk p = new Walk(this);
        Walk q = new Walk(upper);
        LeastError best = new LeastError(Math.min(p.next(), q.next()), Math.min(p.next(), q.next()), 1);
        boolean level = false;
        while (p.isUnderWay() || q.isUnderWay()) {
            double next = Math.min(p.next(), q.next());
            p.advance(next);
            q.advance(next);
            double before = (1 - p.below + q.below) / 2;
            if (level && before <= best.error + LEVEL) {
                best = new LeastError(best.from, next, best.error);
            }
            double with = (1 - p.upTo + q.upTo) / 2;
            level = with <= best.error + LEVEL;
            if (with < best.error - LEVEL) {
                best = new LeastError(next, next, with);
            }
        }
        return best;
    }

    /** Goes along a distribution function from end to end of its flat parts and of another's. */
    private static final class Walk {
        private final RangeDistribution of;
        private int next;
        private double below;
        private double upTo;

        Walk(RangeDistribution of) {
            this.of = of;
        }

        boolean isUnderWay() {
            return next < of.xs.length;
        }

        double next() {
            return isUnderWay() ? of.xs[next] : Double.POSITIVE_INFINITY;
        }

        /** To a place no further than the next end. */
        void advance(double x) {
            if (isUnderWay() && of.xs[next] == x) {
                below = of.below[next];
                upTo = of.upTo[next];
                next++;
            } else {
                below = of.between(next, x);
                upTo = below;
            }
        }
    }

    /** Probability of a value up to {@code x}. */
    public double upTo(double x) {
        int at = Arrays.binarySearch(xs, x);
        return at >= 0 ? upTo[at] : between(-at - 1, x);
    }

    /** Probability of a value less than {@code x}. */
    public double below(double x) {
        int at = Arrays.binarySearch(xs, x);
        return at >= 0 ? below[at] : between(-at - 1, x);
    }

    private double between(int next, double x) {
        if (next == 0) {
            return 0;
        }
        if (next == xs.length) {
            return 1;
        }
        double part = (x - xs[next - 1]) / (xs[next] - xs[next - 1]);
        return upTo[next - 1] + part * (below[next] - upTo[next - 1]);
    }

    /** Collects flat segments and steps, then sweeps them into one distribution function. */
    private static final class Segments {
        private final double[] from;
        private final double[] to;
        private final double[] mass;
        private int count;

        Segments(int capacity) {
            from = new double[capacity];
            to = new double[capacity];
            mass = new double[capacity];
        }

        void addRange(Cell.Numeric range, MatrixCharacter character, double weight) {
            double half = character.type() == CharacterType.COUNT ? 0.5 : 0;
            double low = range.low() - half;
            double high = range.high() + half;
            double leftTail = range.low() - range.min();
            double rightTail = range.max() - range.high();
            if (low == high && leftTail + rightTail == 0) {
                low -= character.uncertainty();
                high += character.uncertainty();
            }
            double tails = leftTail + rightTail;
            add(low, high, tails > 0 ? weight * CORE_SHARE : weight);
            if (leftTail > 0) {
                add(range.min() - half, low, weight * (1 - CORE_SHARE) * leftTail / tails);
            }
            if (rightTail > 0) {
                add(high, range.max() + half, weight * (1 - CORE_SHARE) * rightTail / tails);
            }
        }

        void addParts(Cell.Numeric range, MatrixCharacter character, double weight) {
            double half = character.type() == CharacterType.COUNT ? 0.5 : 0;
            for (int k = 0; k < range.parts().size(); k++) {
                Cell.Part part = range.parts().get(k);
                add(part.low() - half, part.high() + half, weight * part.share());
            }
        }

        /** Flat between quantiles; the outermost parts are as wide as their neighbours' mass asks. */
        void addPredictive(
                Cell.Numeric range,
                MatrixCharacter character,
                StudentPredictive predictive,
                double[] points,
                double weight,
                Tails tails) {
            double half = character.type() == CharacterType.COUNT ? 0.5 : 0;
            double least = tails == Tails.CUT ? range.min() - half : Double.NEGATIVE_INFINITY;
            double most = tails == Tails.CUT ? range.max() + half : Double.POSITIVE_INFINITY;
            double admitted = tails == Tails.CUT ? predictive.upTo(most) - predictive.upTo(least) : 1;
            double from = Math.max(least, predictive.at(points[0]));
            double below = tails == Tails.CUT ? predictive.upTo(from) : 0;
            for (int k = 1; k < LEVELS.length; k++) {
                double to = Math.min(most, Math.max(from, predictive.at(points[k])));
                boolean last = k == LEVELS.length - 1;
                double upTo = tails == Tails.CUT ? predictive.upTo(to) : last ? 1 : LEVELS[k];
                add(from, to, weight * (upTo - below) / admitted);
                from = to;
                below = upTo;
            }
        }

        private void add(double low, double high, double share) {
            from[count] = low;
            to[count] = high;
            mass[count] = share;
            count++;
        }

        RangeDistribution accumulate() {
            double[] xs = new double[count * 2];
            for (int s = 0; s < count; s++) {
                xs[2 * s] = from[s];
                xs[2 * s + 1] = to[s];
            }
            Arrays.sort(xs);
            int n = distinct(xs);
            double[] slope = new double[n];
            double[] step = new double[n];
            for (int s = 0; s < count; s++) {
                int a = Arrays.binarySearch(xs, 0, n, from[s]);
                int b = Arrays.binarySearch(xs, 0, n, to[s]);
                if (a == b) {
                    step[a] += mass[s];
                } else {
                    slope[a] += mass[s] / (to[s] - from[s]);
                    slope[b] -= mass[s] / (to[s] - from[s]);
                }
            }
            return sweep(Arrays.copyOf(xs, n), slope, step);
        }

        private static int distinct(double[] sorted) {
            int n = 0;
            for (int i = 0; i < sorted.length; i++) {
                if (n == 0 || sorted[i] != sorted[n - 1]) {
                    sorted[n++] = sorted[i];
                }
            }
            return n;
        }

        private static RangeDistribution sweep(double[] xs, double[] slope, double[] step) {
            int n = xs.length;
            double[] below = new double[n];
            double[] upTo = new double[n];
            double density = 0;
            for (int i = 0; i < n; i++) {
                below[i] = i == 0 ? 0 : Math.min(1, upTo[i - 1] + density * (xs[i] - xs[i - 1]));
                upTo[i] = Math.min(1, below[i] + step[i]);
                density = Math.max(0, density + slope[i]);
            }
            upTo[n - 1] = 1;
            return new RangeDistribution(xs, below, upTo);
        }
    }
}
