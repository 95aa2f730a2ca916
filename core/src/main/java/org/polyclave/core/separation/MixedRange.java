package org.polyclave.core.separation;

import org.polyclave.core.matrix.RangeDistribution;

/**
 * What readers measure of a row, mixed with a share of what all rows show together, laid out so that it can be compared with
 * another of the same character in one pass: what lies in the background up to each of its ends is looked up once, not at
 * every comparison.
 */
final class MixedRange implements Recorded {
    /** Of one end: where it is, what lies below it and up to it, and so of the background. */
    private static final int STRIDE = 5;

    private final double[] ends;
    private final double own;

    /** @param share of the background, 0 to 1 */
    MixedRange(RangeDistribution range, RangeDistribution background, double share) {
        own = 1 - share;
        ends = new double[range.ends() * STRIDE];
        for (int i = 0; i < range.ends(); i++) {
            double x = range.end(i);
            ends[STRIDE * i] = x;
            ends[STRIDE * i + 1] = own * range.below(x);
            ends[STRIDE * i + 2] = own * range.upTo(x);
            ends[STRIDE * i + 3] = share * background.below(x);
            ends[STRIDE * i + 4] = share * background.upTo(x);
        }
    }

    /**
     * Bhattacharyya's coefficient Σ√(p·q): 1 where both are the same. The background is taken as flat between the ends of the
     * two, which makes the coefficient larger, if anything. Takes time in the ends of both.
     */
    double affinity(MixedRange other) {
        if (other == this) {
            return 1;
        }
        double[] p = ends;
        double[] q = other.ends;
        int i = 0;
        int j = 0;
        double pLast = 0;
        double qLast = 0;
        double thirdLast = 0;
        double sum = 0;
        while (i < p.length || j < q.length) {
            boolean atP = j == q.length || (i < p.length && p[i] <= q[j]);
            boolean atQ = i == p.length || (j < q.length && q[j] <= p[i]);
            double[] at = atP ? p : q;
            int end = atP ? i : j;
            double x = at[end];
            double pBelow = atP ? p[i + 1] : between(p, i, x);
            double qBelow = atQ ? q[j + 1] : between(q, j, x);
            double thirdBelow = at[end + 3];
            sum += root(pBelow - pLast + thirdBelow - thirdLast, qBelow - qLast + thirdBelow - thirdLast);
            pLast = atP ? p[i + 2] : pBelow;
            qLast = atQ ? q[j + 2] : qBelow;
            thirdLast = at[end + 4];
            double step = thirdLast - thirdBelow;
            sum += root(pLast - pBelow + step, qLast - qBelow + step);
            i += atP ? STRIDE : 0;
            j += atQ ? STRIDE : 0;
        }
        double rest = 1 - own - thirdLast;
        sum += root(own - pLast + rest, own - qLast + rest);
        return sum < 1 ? sum : 1;
    }

    private double between(double[] of, int next, double x) {
        if (next == 0) {
            return 0;
        }
        if (next == of.length) {
            return own;
        }
        int before = next - STRIDE;
        double part = (x - of[before]) / (of[next] - of[before]);
        return of[before + 2] + part * (of[next + 1] - of[before + 2]);
    }

    private static double root(double p, double q) {
        return p > 0 && q > 0 ? Math.sqrt(p * q) : 0;
    }
}
