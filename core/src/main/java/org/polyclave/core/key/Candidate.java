package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/**
 * A split of a position with the figures it is chosen by.
 *
 * @param gain bits of information about the row that the answer gives
 * @param duplicated classes that go down both leads
 * @param lost classes that are missing from one of the leads
 * @param contiguous whether the states of each lead are neighbours
 * @param rate cost of asking, per specimen that passes
 */
record Candidate(Split split, double gain, int duplicated, int lost, boolean contiguous, double rate, int size) {
    static final Comparator<Candidate> BEST_FIRST = (a, b) -> compare(a, a.score(), b, b.score());

    private static final int OTHERS = 6;
    /** One lead more may cost nothing. */
    static final double LEAST_RATE = 1e-3;

    private static final double DUPLICATION_PENALTY = 0.5;
    /** Bits of a score that are noise of rounding. */
    private static final int NOISE = 12;

    /** Gain after the penalty for rows that would stand in both leads. */
    double netGain() {
        return gain * (1 - DUPLICATION_PENALTY * duplicated / size) + 1e-9 * lost / size;
    }

    double score() {
        return netGain() / Math.max(rate, LEAST_RATE);
    }

    /** The best split of each of some other characters, best first. */
    static List<Candidate> bestOfOthers(List<Candidate> all, Candidate chosen) {
        List<Candidate> sorted = new ArrayList<>(all);
        sorted.sort(BEST_FIRST);
        Set<Integer> known = new HashSet<>(Set.of(chosen.split().character()));
        List<Candidate> kept = new ArrayList<>();
        for (Candidate candidate : sorted) {
            if (kept.size() < OTHERS && known.add(candidate.split().character())) {
                kept.add(candidate);
            }
        }
        return kept;
    }

    /** Deterministic order: score, contiguity, order of characters, then of states or limits. */
    static int compare(Candidate a, double scoreA, Candidate b, double scoreB) {
        int byScore = Double.compare(withoutNoise(scoreB), withoutNoise(scoreA));
        if (byScore != 0) {
            return byScore;
        }
        if (a.contiguous != b.contiguous) {
            return a.contiguous ? -1 : 1;
        }
        if (a.split.character() != b.split.character()) {
            return Integer.compare(a.split.character(), b.split.character());
        }
        if (a.split.cut() != b.split.cut()) {
            return Double.compare(a.split.cut(), b.split.cut());
        }
        return Integer.compareUnsigned(a.split.first(), b.split.first());
    }

    /** A number of fewer digits; to compare with a tolerance instead would not be an order. */
    private static double withoutNoise(double score) {
        return Double.longBitsToDouble((Double.doubleToLongBits(score) + (1L << (NOISE - 1))) >> NOISE << NOISE);
    }
}
