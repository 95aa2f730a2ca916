package org.polyclave.core.key;

import java.util.HashSet;
import java.util.Set;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.MisidentificationCosts;

/** Cost of asking a split, per specimen that passes it, under an objective. */
final class SplitCost {
    /** A number is misread across a limit half as often as a state is taken for another. */
    private static final double NUMERIC_SHARE = 0.5;

    private final KeyProblem problem;
    private final KeyObjective objective;

    SplitCost(KeyProblem problem, KeyObjective objective) {
        this.problem = problem;
        this.objective = objective;
    }

    double rate(Position position, Split split) {
        if (objective.countsStepsOnly()) {
            return 1;
        }
        MatrixCharacter character = problem.matrix.character(split.character());
        double rate = objective.effort(character);
        double total = Math.max(position.total, 1e-300);
        boolean[] dangerous = {holds(position, split, true, true), holds(position, split, false, true)};
        boolean[] harmless = {holds(position, split, true, false), holds(position, split, false, false)};
        for (int k = 0; k < position.size(); k++) {
            double share = position.mass[k] / total;
            boolean first = position.enters(k, split, true);
            int row = problem.rowOf[position.classes[k]];
            double m = Math.max(
                    objective.misreading(character, row) * acrossShare(split, first), beyond(position, split, k));
            rate += objective.errorWeight() * share * m * worstLoss(position, split, row, !first);
            boolean danger = position.isDangerous(k);
            int other = first ? 1 : 0;
            if (danger ? harmless[other] : dangerous[other]) {
                rate += objective.hazardWeight() * share * m;
            }
        }
        return rate + objective.groupWeight() * groupsParted(position, split);
    }

    /** A specimen that goes astray may end at any row of the other lead: the worst counts. */
    private double worstLoss(Position position, Split split, int row, boolean first) {
        MisidentificationCosts losses = problem.matrix.losses();
        if (!losses.isSet(row)) {
            return 1;
        }
        double worst = 0;
        for (int k = 0; k < position.size(); k++) {
            if (position.enters(k, split, first)) {
                worst = Math.max(worst, losses.of(row, problem.rowOf[position.classes[k]]));
            }
        }
        return worst;
    }

    /** Of the ways to misread a state, the share that falls on the other lead. */
    private static double acrossShare(Split split, boolean first) {
        if (split.isNumeric()) {
            return NUMERIC_SHARE;
        }
        int others = Integer.bitCount(split.first() | split.second()) - 1;
        return (double) Integer.bitCount(split.mask(!first)) / others;
    }

    /** Share of a measured row's new individuals that lies beyond a limit, where the row stands in one lead only. */
    private static double beyond(Position position, Split split, int k) {
        boolean first = position.enters(k, split, true);
        return split.isNumeric() && first != position.enters(k, split, false)
                ? DoubtfulLimit.beyond(position.pattern(split.character(), k), split.cut(), !first)
                : 0;
    }

    private boolean holds(Position position, Split split, boolean first, boolean dangerous) {
        for (int k = 0; k < position.size(); k++) {
            if (position.isDangerous(k) == dangerous && position.enters(k, split, first)) {
                return true;
            }
        }
        return false;
    }

    private int groupsParted(Position position, Split split) {
        if (objective.groupWeight() == 0) {
            return 0;
        }
        Set<Integer> onlyFirst = new HashSet<>();
        Set<Integer> onlySecond = new HashSet<>();
        for (int k = 0; k < position.size(); k++) {
            int kin = problem.matrix.row(problem.rowOf[position.classes[k]]).kin();
            if (!position.enters(k, split, false)) {
                onlyFirst.add(kin);
            } else if (!position.enters(k, split, true)) {
                onlySecond.add(kin);
            }
        }
        onlyFirst.retainAll(onlySecond);
        return onlyFirst.size();
    }
}
