package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.polyclave.core.key.Atoms.Interval;
import org.polyclave.core.key.Atoms.States;
import org.polyclave.core.key.Key.Role;
import org.polyclave.core.key.Key.Statement;
import org.polyclave.core.key.KeyProblem.Pattern;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.MatrixCharacter;

/**
 * Further statements that agree with the leads of a couplet, so that it works when a part is missing. A statement that
 * parts the rows of both leads by itself is sufficient; one that is true of most specimens of each lead is a tendency.
 * Preferred: sufficient, from other organs, seldom misread, quick; one for each correlation group.
 */
final class ConfirmingStatements {
    private static final double USUALLY = 0.85;
    private static final double SCORED_SHARE = 0.7;
    private static final int MOST_STATES = 3;

    /** The same character stated for both leads. */
    record Pair(Statement first, Statement second, Role role) {}

    private final KeyProblem problem;
    private final Position position;
    private final Split split;

    ConfirmingStatements(Position position, Split split) {
        this.problem = position.problem;
        this.position = position;
        this.split = split;
    }

    List<Pair> find(int most) {
        if (most == 0 || duplicates()) {
            return List.of();
        }
        List<Pair> found = new ArrayList<>();
        boolean danger = position.holdsDangerous();
        for (int c = 0; c < problem.matrix.characterCount(); c++) {
            if (c != split.character()
                    && problem.matrix.character(c).role() != CharacterRole.NECESSARY
                    && !(danger && problem.matrix.character(c).isHandling())) {
                pair(c).ifPresent(found::add);
            }
        }
        found.sort(Comparator.comparing(Pair::role)
                .thenComparing(p -> sameOrgan(p) ? 1 : 0)
                .thenComparing(p -> character(p).misreading().trained())
                .thenComparing(p -> character(p).effort())
                .thenComparing(p -> p.first().character()));
        return onePerGroup(found, most);
    }

    /** A row that stands in both leads would have to agree with contrary statements: then nothing confirms. */
    private boolean duplicates() {
        for (int k = 0; k < position.size(); k++) {
            if (position.enters(k, split, true) && position.enters(k, split, false)) {
                return true;
            }
        }
        return false;
    }

    private MatrixCharacter character(Pair pair) {
        return problem.matrix.character(pair.first().character());
    }

    private boolean sameOrgan(Pair pair) {
        return character(pair).organ()
                == problem.matrix.character(split.character()).organ();
    }

    private List<Pair> onePerGroup(List<Pair> sorted, int most) {
        Set<Integer> groups = new HashSet<>();
        groups.add(problem.matrix.character(split.character()).group());
        List<Pair> kept = new ArrayList<>();
        for (Pair pair : sorted) {
            if (kept.size() < most && groups.add(character(pair).group())) {
                kept.add(pair);
            }
        }
        return kept;
    }

    private Optional<Pair> pair(int c) {
        int[] classes = new int[2];
        int[] scored = new int[2];
        for (int k = 0; k < position.size(); k++) {
            int side = position.enters(k, split, true) ? 0 : 1;
            Pattern pattern = position.pattern(c, k);
            if (pattern.inapplicable()) {
                return Optional.empty();
            }
            classes[side]++;
            scored[side] += pattern.known() ? 1 : 0;
        }
        if (scored[0] < SCORED_SHARE * classes[0] || scored[1] < SCORED_SHARE * classes[1]) {
            return Optional.empty();
        }
        boolean complete = scored[0] == classes[0] && scored[1] == classes[1];
        return problem.matrix.character(c).type().isNumeric() ? ranges(c, complete) : states(c, complete);
    }

    private Optional<Pair> states(int c, boolean complete) {
        int[] union = new int[2];
        double[][] shares = new double[2][problem.matrix.character(c).stateCount()];
        double[] mass = new double[2];
        for (int k = 0; k < position.size(); k++) {
            Pattern pattern = position.pattern(c, k);
            if (!pattern.known()) {
                continue;
            }
            int side = position.enters(k, split, true) ? 0 : 1;
            union[side] |= pattern.mask() & position.masks[c];
            double all = pattern.share(position.masks[c]);
            mass[side] += position.mass[k];
            for (int s = 0; s < shares[side].length && all > 0; s++) {
                shares[side][s] += position.mass[k] * pattern.share(position.masks[c] & (1 << s)) / all;
            }
        }
        if (complete && (union[0] & union[1]) == 0) {
            return pairOf(c, union[0], union[1], sufficient(c));
        }
        int[] typical = new int[2];
        double[] covered = new double[2];
        for (int s = 0; s < shares[0].length; s++) {
            double p = mass[0] > 0 ? shares[0][s] / mass[0] : 0;
            double q = mass[1] > 0 ? shares[1][s] / mass[1] : 0;
            int side = p > q ? 0 : 1;
            if (Math.max(p, q) > 0) {
                typical[side] |= 1 << s;
                covered[side] += Math.max(p, q);
            }
        }
        return covered[0] >= USUALLY && covered[1] >= USUALLY
                ? pairOf(c, typical[0], typical[1], Role.TENDENCY)
                : Optional.empty();
    }

    /** What its author lets only confirm is never enough alone, even where it is the same in all rows of a lead. */
    private Role sufficient(int c) {
        return problem.matrix.character(c).role().decides() ? Role.SUFFICIENT : Role.TENDENCY;
    }

    private static Optional<Pair> pairOf(int c, int first, int second, Role role) {
        if (first == 0
                || second == 0
                || Integer.bitCount(first) > MOST_STATES
                || Integer.bitCount(second) > MOST_STATES) {
            return Optional.empty();
        }
        return Optional.of(
                new Pair(new Statement(c, new States(first), role), new Statement(c, new States(second), role), role));
    }

    private Optional<Pair> ranges(int c, boolean complete) {
        double[] lowest = {Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY};
        double[] highest = {Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY};
        double[] middles = new double[2];
        int[] scored = new int[2];
        for (int k = 0; k < position.size(); k++) {
            Pattern pattern = position.pattern(c, k);
            if (pattern.known()) {
                int side = position.enters(k, split, true) ? 0 : 1;
                // The path may have asked this character before: only what it left counts.
                double min = Math.max(pattern.min(), position.low[c]);
                double max = Math.min(pattern.max(), position.high[c]);
                lowest[side] = Math.min(lowest[side], min);
                highest[side] = Math.max(highest[side], max);
                middles[side] += (min + max) / 2;
                scored[side]++;
            }
        }
        int small = middles[0] / scored[0] <= middles[1] / scored[1] ? 0 : 1;
        boolean apart = highest[small] < lowest[1 - small];
        double low = apart ? highest[small] : middles[small] / scored[small];
        double high = apart ? lowest[1 - small] : middles[1 - small] / scored[1 - small];
        if (!(low < high)) {
            return Optional.empty();
        }
        boolean whole = problem.matrix.character(c).type() == CharacterType.COUNT;
        double cut = whole ? Math.floor((low + high) / 2) + 0.5 : RoundNumber.inside(low, high);
        boolean sufficient = apart && complete;
        if (!sufficient && !isTypical(c, cut, small)) {
            return Optional.empty();
        }
        Role role = sufficient ? sufficient(c) : Role.TENDENCY;
        Optional<Key.Doubt> doubt = doubt(c, cut, small);
        Statement below = new Statement(c, interval(cut, true, whole), role, doubt, Optional.empty());
        Statement above = new Statement(c, interval(cut, false, whole), role, doubt, Optional.empty());
        return Optional.of(small == 0 ? new Pair(below, above, role) : new Pair(above, below, role));
    }

    private Optional<Key.Doubt> doubt(int c, double cut, int small) {
        DoubtfulLimit limit = new DoubtfulLimit(problem, c, cut);
        for (int k = 0; k < position.size(); k++) {
            int side = position.enters(k, split, true) ? 0 : 1;
            limit.add(position.pattern(c, k), position.mass[k], side != small);
        }
        return limit.between(position.low[c], position.high[c]);
    }

    private boolean isTypical(int c, double cut, int small) {
        double[] agree = new double[2];
        double[] mass = new double[2];
        for (int k = 0; k < position.size(); k++) {
            Pattern pattern = position.pattern(c, k);
            if (pattern.known()) {
                int side = position.enters(k, split, true) ? 0 : 1;
                double left = pattern.range().share(position.low[c], position.high[c]);
                double below = left > 0 ? pattern.range().share(position.low[c], cut) / left : 0.5;
                agree[side] += position.mass[k] * (side == small ? below : 1 - below);
                mass[side] += position.mass[k];
            }
        }
        return mass[0] > 0 && mass[1] > 0 && agree[0] >= USUALLY * mass[0] && agree[1] >= USUALLY * mass[1];
    }

    /** What a lead accepts below or above a cut: whole numbers up to it, or everything up to and including it. */
    static Interval interval(double cut, boolean below, boolean whole) {
        if (whole) {
            return below
                    ? Interval.closed(Double.NEGATIVE_INFINITY, Math.floor(cut))
                    : Interval.closed(Math.floor(cut) + 1, Double.POSITIVE_INFINITY);
        }
        return below
                ? Interval.closed(Double.NEGATIVE_INFINITY, cut)
                : new Interval(cut, Double.POSITIVE_INFINITY, true, false);
    }
}
