package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import org.polyclave.core.key.KeyProblem.Pattern;
import org.polyclave.core.matrix.CharacterType;

/**
 * Splits of numeric characters: one threshold in each stretch between neighbouring ends of the ranges in play. In a gap
 * it is the roundest number near the middle, in an overlap near the end where fewer specimens are misplaced. Of many
 * stretches the {@value #MOST} most promising are weighed exactly (fewer above {@value #MANY} rows in play).
 */
final class ThresholdSplits {
    static final int MOST = 24;
    /** Where many rows are in play, thresholds near each other are alike, and fewer are weighed. */
    private static final int MOST_OF_MANY = 5;

    private static final int MANY = 64;
    private static final double NEAR_END = 0.4;

    private final KeyProblem problem;
    private final SplitCost cost;

    ThresholdSplits(KeyProblem problem, SplitCost cost) {
        this.problem = problem;
        this.cost = cost;
    }

    /** A stretch between neighbouring ends of ranges. */
    private record Stretch(double from, double to, int straddling, double promise) {
        static Stretch of(double from, double to, int left, int right, int straddling) {
            int n = left + right + straddling;
            // The quadratic stands in for the entropy: it ranks balance alike and costs no logarithm.
            double p = (left + straddling / 2.0) / n;
            return new Stretch(from, to, straddling, p * (1 - p) * (n - straddling) / n);
        }
    }

    CharacterSurvey survey(Position position, int c) {
        int n = position.size();
        double[] mins = new double[n];
        double[] maxs = new double[n];
        boolean askable = true;
        boolean whole = problem.matrix.character(c).type() == CharacterType.COUNT;
        double low = whole ? Math.ceil(position.low[c]) : position.low[c];
        double high = whole ? Math.floor(position.high[c]) : position.high[c];
        for (int k = 0; k < n; k++) {
            Pattern pattern = position.pattern(c, k);
            askable &= !pattern.inapplicable();
            mins[k] = pattern.min();
            maxs[k] = pattern.max();
        }
        double[] ends = ends(mins, maxs, position.low[c], position.high[c]);
        for (int k = 0; k < n; k++) {
            mins[k] = Math.max(mins[k], low);
            maxs[k] = Math.min(maxs[k], high);
        }
        boolean separates = separates(position, c, mins, maxs);
        Arrays.sort(mins);
        Arrays.sort(maxs);
        List<Candidate> candidates = new ArrayList<>();
        for (Stretch stretch : stretches(mins, maxs, ends, whole)) {
            Candidate candidate = evaluate(position, Split.threshold(c, cut(c, stretch, mins)));
            if (candidate.lost() > 0) {
                candidates.add(candidate);
            }
        }
        return new CharacterSurvey(askable, separates, candidates);
    }

    /** Two known ranges of different targets are disjoint; it is enough to look at the extremes of two targets each. */
    private boolean separates(Position position, int c, double[] mins, double[] maxs) {
        int highestMin = -1;
        int lowestMax = -1;
        for (int k = 0; k < mins.length; k++) {
            if (position.pattern(c, k).known()) {
                highestMin = highestMin < 0 || mins[k] > mins[highestMin] ? k : highestMin;
                lowestMax = lowestMax < 0 || maxs[k] < maxs[lowestMax] ? k : lowestMax;
            }
        }
        if (highestMin < 0 || mins[highestMin] <= maxs[lowestMax]) {
            return false;
        }
        for (int k = 0; k < mins.length; k++) {
            boolean known = position.pattern(c, k).known();
            boolean below = known && maxs[k] < mins[highestMin] && differ(position, k, highestMin);
            boolean above = known && mins[k] > maxs[lowestMax] && differ(position, k, lowestMax);
            if (below || above) {
                return true;
            }
        }
        return separatesInside(position, c, mins, maxs);
    }

    /** The rare case in which the extremes belong to one target: compare all pairs. */
    private boolean separatesInside(Position position, int c, double[] mins, double[] maxs) {
        for (int k = 0; k < mins.length; k++) {
            for (int l = 0; l < mins.length && position.pattern(c, k).known(); l++) {
                if (position.pattern(c, l).known() && maxs[k] < mins[l] && differ(position, k, l)) {
                    return true;
                }
            }
        }
        return false;
    }

    private boolean differ(Position position, int k, int l) {
        return problem.nameOf[position.classes[k]] != problem.nameOf[position.classes[l]];
    }

    /** Only true ends of ranges bound a stretch, not limits asked before: so no stretch is ever cut twice on a path. */
    private static double[] ends(double[] mins, double[] maxs, double low, double high) {
        double[] ends = new double[mins.length * 2];
        int n = 0;
        for (int k = 0; k < mins.length; k++) {
            if (mins[k] > low) {
                ends[n++] = mins[k];
            }
            if (maxs[k] < high) {
                ends[n++] = maxs[k];
            }
        }
        Arrays.sort(ends, 0, n);
        return Arrays.copyOf(ends, n);
    }

    private static List<Stretch> stretches(double[] mins, double[] maxs, double[] ends, boolean whole) {
        List<Stretch> found = new ArrayList<>();
        int left = 0;
        int started = 0;
        for (int e = 0; e + 1 < ends.length; e++) {
            double from = ends[e];
            double to = ends[e + 1];
            boolean roomy = whole ? to - from >= 1 : to > from;
            if (!roomy || !Double.isFinite(from) || !Double.isFinite(to)) {
                continue;
            }
            while (left < maxs.length && maxs[left] <= from) {
                left++;
            }
            while (started < mins.length && mins[started] <= from) {
                started++;
            }
            int right = mins.length - started;
            if (left + right > 0) {
                found.add(Stretch.of(from, to, left, right, mins.length - left - right));
            }
        }
        return mostPromising(found, mins.length);
    }

    private static List<Stretch> mostPromising(List<Stretch> all, int rows) {
        int most = rows > MANY ? MOST_OF_MANY : MOST;
        if (all.size() <= most) {
            return all;
        }
        List<Stretch> sorted = new ArrayList<>(all);
        sorted.sort((a, b) -> {
            int byPromise = Double.compare(b.promise(), a.promise());
            return byPromise != 0 ? byPromise : Double.compare(a.from(), b.from());
        });
        return sorted.subList(0, most);
    }

    private double cut(int c, Stretch stretch, double[] mins) {
        if (problem.matrix.character(c).type() == CharacterType.COUNT) {
            double middle = stretch.straddling() == 0 ? (stretch.from() + stretch.to()) / 2 : nearEnd(stretch, mins);
            double whole = Math.floor(middle);
            return Math.max(stretch.from(), Math.min(whole, stretch.to() - 1)) + 0.5;
        }
        if (stretch.straddling() == 0) {
            return RoundNumber.inside(stretch.from(), stretch.to());
        }
        double end = nearEnd(stretch, mins);
        return end > (stretch.from() + stretch.to()) / 2
                ? RoundNumber.inside(stretch.to() - NEAR_END * (stretch.to() - stretch.from()), stretch.to())
                : RoundNumber.inside(stretch.from(), stretch.from() + NEAR_END * (stretch.to() - stretch.from()));
    }

    /** In an overlap, the end of the stretch at which a range starts or stops without anything misplaced beyond it. */
    private static double nearEnd(Stretch stretch, double[] mins) {
        boolean startsAtTo = Arrays.binarySearch(mins, stretch.to()) >= 0;
        return startsAtTo ? stretch.to() : stretch.from();
    }

    private Candidate evaluate(Position position, Split split) {
        double total = 0;
        double firstMass = 0;
        double conditional = 0;
        int duplicated = 0;
        int lost = 0;
        boolean even = position.total <= 0;
        for (int k = 0; k < position.size(); k++) {
            boolean inFirst = position.enters(k, split, true);
            boolean inSecond = position.enters(k, split, false);
            double mass = even ? 1 : position.mass[k];
            total += mass;
            if (inFirst && inSecond) {
                double share = even ? 0.5 : position.share(k, split, true);
                duplicated++;
                firstMass += mass * share;
                conditional += mass * SplitSurveyor.entropy(share);
            } else {
                lost++;
                firstMass += inFirst ? mass : 0;
            }
        }
        conditional += position.uncertaintyWithinNames(split);
        double gain = Math.max(0, SplitSurveyor.entropy(firstMass / total) - conditional / total);
        return new Candidate(split, gain, duplicated, lost, true, cost.rate(position, split), position.size());
    }
}
