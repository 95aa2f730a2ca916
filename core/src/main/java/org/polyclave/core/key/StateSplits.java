package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import org.polyclave.core.key.KeyProblem.Pattern;
import org.polyclave.core.matrix.CharacterType;

/**
 * Splits of categorical characters: all bipartitions of what is left up to 8 states; above, those by order and those that
 * set one pattern against the rest. Works on patterns, so its time depends on how many different cells there are.
 */
final class StateSplits {
    private static final int ALL_BIPARTITIONS = 8;

    private final KeyProblem problem;
    private final SplitCost cost;
    private final double[] weight;
    private final int[] count;
    private final int[] firstName;
    private final boolean[] severalNames;
    private final int[] touched;

    StateSplits(KeyProblem problem, SplitCost cost) {
        this.problem = problem;
        this.cost = cost;
        int most = 1;
        for (Pattern[] patterns : problem.patterns) {
            most = Math.max(most, patterns.length);
        }
        weight = new double[most];
        count = new int[most];
        firstName = new int[most];
        severalNames = new boolean[most];
        touched = new int[most];
    }

    CharacterSurvey survey(Position position, int c) {
        int groups = tally(position, c);
        int k = position.masks[c];
        int union = 0;
        boolean askable = true;
        boolean varied = false;
        for (int g = 0; g < groups; g++) {
            Pattern pattern = problem.patterns[c][touched[g]];
            askable &= !pattern.inapplicable();
            if (!pattern.inapplicable()) {
                varied |= union != 0 && (pattern.mask() & k) != union;
                union |= pattern.mask() & k;
            }
        }
        List<Candidate> candidates = varied ? candidates(position, c, union, groups) : List.of();
        boolean separates = varied && separates(c, k, groups);
        clear(groups);
        return new CharacterSurvey(askable, separates, candidates);
    }

    private int tally(Position position, int c) {
        int groups = 0;
        int[] patternOf = problem.patternOf[c];
        // With no mass left (only specimens that readers mistake), every class counts the same.
        boolean even = position.total <= 0;
        for (int k = 0; k < position.classes.length; k++) {
            int specimens = position.classes[k];
            int p = patternOf[specimens];
            int target = problem.nameOf[specimens];
            if (count[p]++ == 0) {
                touched[groups++] = p;
                firstName[p] = target;
            } else if (firstName[p] != target) {
                severalNames[p] = true;
            }
            weight[p] += even ? 1 : position.mass[k];
        }
        return groups;
    }

    private void clear(int groups) {
        for (int g = 0; g < groups; g++) {
            int p = touched[g];
            weight[p] = 0;
            count[p] = 0;
            severalNames[p] = false;
        }
    }

    private boolean separates(int c, int k, int groups) {
        for (int g = 0; g < groups; g++) {
            Pattern a = problem.patterns[c][touched[g]];
            for (int h = 0; a.known() && h < g; h++) {
                Pattern b = problem.patterns[c][touched[h]];
                boolean differ = severalNames[touched[g]]
                        || severalNames[touched[h]]
                        || firstName[touched[g]] != firstName[touched[h]];
                if (b.known() && (a.mask() & b.mask() & k) == 0 && differ) {
                    return true;
                }
            }
        }
        return false;
    }

    private List<Candidate> candidates(Position position, int c, int union, int groups) {
        List<Candidate> found = new ArrayList<>();
        for (int first : bipartitions(c, union, groups)) {
            Candidate candidate = evaluate(position, Split.states(c, first, union & ~first), groups);
            if (candidate.lost() > 0) {
                found.add(candidate);
            }
        }
        return found;
    }

    private Set<Integer> bipartitions(int c, int union, int groups) {
        Set<Integer> firsts = new LinkedHashSet<>();
        int states = Integer.bitCount(union);
        int lowest = Integer.lowestOneBit(union);
        if (states <= ALL_BIPARTITIONS) {
            for (int sub = (union - 1) & union; sub != 0; sub = (sub - 1) & union) {
                if ((sub & lowest) != 0) {
                    firsts.add(sub);
                }
            }
            return firsts;
        }
        int prefix = 0;
        for (int bits = union; Integer.bitCount(bits) > 1; bits &= bits - 1) {
            prefix |= Integer.lowestOneBit(bits);
            firsts.add(prefix);
        }
        for (int g = 0; g < groups; g++) {
            int part = problem.patterns[c][touched[g]].mask() & union;
            if (part != union && part != 0) {
                firsts.add((part & lowest) != 0 ? part : union & ~part);
            }
        }
        return firsts;
    }

    private Candidate evaluate(Position position, Split split, int groups) {
        int c = split.character();
        double total = 0;
        double firstMass = 0;
        double conditional = 0;
        int duplicated = 0;
        int lost = 0;
        for (int g = 0; g < groups; g++) {
            int p = touched[g];
            Pattern pattern = problem.patterns[c][p];
            boolean inFirst = (pattern.mask() & split.first()) != 0;
            boolean inSecond = (pattern.mask() & split.second()) != 0;
            total += weight[p];
            if (inFirst && inSecond) {
                double all = pattern.share(split.first() | split.second());
                double share = all > 0 ? pattern.share(split.first()) / all : 0.5;
                duplicated += count[p];
                firstMass += weight[p] * share;
                conditional += weight[p] * SplitSurveyor.entropy(share);
            } else {
                lost += count[p];
                firstMass += inFirst ? weight[p] : 0;
            }
        }
        conditional += position.uncertaintyWithinNames(split);
        double gain = Math.max(0, SplitSurveyor.entropy(firstMass / total) - conditional / total);
        boolean contiguous = isContiguous(problem.matrix.character(c).type(), split);
        return new Candidate(split, gain, duplicated, lost, contiguous, cost.rate(position, split), position.size());
    }

    /** In graded series a lead should hold neighbours; in unordered characters one lead should hold one state. */
    private static boolean isContiguous(CharacterType type, Split split) {
        return type.isGraded()
                ? isInOrder(split)
                : Integer.bitCount(split.first()) == 1 || Integer.bitCount(split.second()) == 1;
    }

    /** Whether all states of one lead come before all states of the other. */
    static boolean isInOrder(Split split) {
        return highest(split.first()) < Integer.numberOfTrailingZeros(split.second())
                || highest(split.second()) < Integer.numberOfTrailingZeros(split.first());
    }

    private static int highest(int mask) {
        return 31 - Integer.numberOfLeadingZeros(mask);
    }
}
