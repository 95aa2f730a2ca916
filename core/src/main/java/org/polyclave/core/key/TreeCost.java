package org.polyclave.core.key;

import java.util.EnumMap;
import java.util.Map;
import java.util.Objects;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.MisidentificationCosts;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.matrix.RangeDistribution;

/**
 * What a whole tree costs under any objective, whichever it was grown for: asking its couplets, for the specimens that pass
 * them, and the wrong names that readers arrive at. Judging takes O(couplets · classes) time.
 */
final class TreeCost {
    private final KeyProblem problem;
    private final Map<Observer, Readings> readings = new EnumMap<>(Observer.class);

    TreeCost(KeyProblem problem) {
        this.problem = problem;
        Distributions distributions = new Distributions(problem.matrix, RangeDistribution.Tails.KEPT);
        for (Observer observer : Observer.values()) {
            readings.put(observer, new Readings(problem, observer, distributions));
        }
    }

    double of(KeyTree tree, SplitCost cost) {
        return of(tree, Position.start(problem), cost);
    }

    private double of(KeyTree tree, Position position, SplitCost cost) {
        if (!(tree instanceof KeyTree.Choice choice)) {
            return loss(position, cost);
        }
        Split split = choice.chosen().split();
        return position.total * cost.asking(position, split)
                + of(choice.first(), position.follow(split, true), cost)
                + of(choice.second(), position.follow(split, false), cost);
    }

    /** What wrong names cost at a place where a key stops, for an even mixture of the observers that the objective thinks of. */
    double loss(Position stop, SplitCost cost) {
        KeyObjective objective = cost.objective();
        if (objective.errorWeight() == 0 && objective.hazardWeight() == 0) {
            return 0;
        }
        double sum = 0;
        Named named = new Named(stop);
        for (Observer observer : cost.observers()) {
            double[] arriving = readings(observer).arriving(stop);
            sum += objective.errorWeight() * named.loss(arriving)
                    + objective.hazardWeight() * named.risk(arriving).dangerousWrong();
        }
        return sum / cost.observers().size();
    }

    private Readings readings(Observer observer) {
        return Objects.requireNonNull(readings.get(observer));
    }

    KeyRisk risk(KeyTree tree, Observer observer) {
        KeyRisk ends = risk(tree, Position.start(problem), readings(observer));
        return new KeyRisk(
                ends.right(), ends.wrong(), ends.dangerousWrong(), Math.max(0, 1 - ends.right() - ends.wrong()));
    }

    private KeyRisk risk(KeyTree tree, Position position, Readings observed) {
        if (!(tree instanceof KeyTree.Choice choice)) {
            return new Named(position).risk(observed.arriving(position));
        }
        Split split = choice.chosen().split();
        return risk(choice.first(), position.follow(split, true), observed)
                .plus(risk(choice.second(), position.follow(split, false), observed));
    }

    /** What is named where a key stops. */
    private final class Named {
        private final Position stop;
        private final boolean[] names = new boolean[problem.names];
        private boolean warned;

        Named(Position stop) {
            this.stop = stop;
            for (int specimens : stop.classes) {
                names[problem.nameOf[specimens]] = true;
                warned |= problem.isDangerous(specimens);
            }
        }

        KeyRisk risk(double[] arriving) {
            double right = 0;
            double wrong = 0;
            double dangerous = 0;
            for (int i = 0; i < arriving.length; i++) {
                if (names[problem.nameOf[i]]) {
                    right += arriving[i];
                } else {
                    wrong += arriving[i];
                    dangerous += !warned && problem.isDangerous(i) ? arriving[i] : 0;
                }
            }
            return new KeyRisk(right, wrong, dangerous, 0);
        }

        double loss(double[] arriving) {
            double loss = 0;
            for (int i = 0; i < arriving.length; i++) {
                loss += names[problem.nameOf[i]] ? 0 : arriving[i] * worst(i);
            }
            return loss;
        }

        /** Of several names that are given, the worst counts. */
        private double worst(int specimens) {
            MisidentificationCosts losses = problem.matrix.losses();
            int row = problem.rowOf[specimens];
            if (!losses.isSet(row)) {
                return 1;
            }
            double worst = 0;
            for (int named : stop.classes) {
                worst = Math.max(worst, losses.of(row, problem.rowOf[named]));
            }
            return worst;
        }
    }
}
