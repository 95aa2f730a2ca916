package org.polyclave.core.key;

import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.matrix.RangeDistribution;

/** What becomes of the readers of a whole tree. Time O(couplets · classes). */
final class TreeReaders {
    private final KeyProblem problem;
    private final Distributions distributions;

    TreeReaders(KeyProblem problem) {
        this.problem = problem;
        distributions = new Distributions(problem.matrix, RangeDistribution.Tails.KEPT);
    }

    KeyRisk risk(KeyTree tree, Observer observer) {
        Readers everybody = Readers.start(problem, new Readings(problem, observer, distributions));
        return risk(tree, Position.start(problem), everybody);
    }

    private static KeyRisk risk(KeyTree tree, Position position, Readers readers) {
        if (tree instanceof KeyTree.Stop stop) {
            return readers.at(stop);
        }
        KeyTree.Choice choice = (KeyTree.Choice) tree;
        Split split = choice.chosen().split();
        Readers first = readers.follow(position, split, true);
        Readers second = readers.follow(position, split, false);
        double stuck = Math.max(0, readers.total() - first.total() - second.total());
        return risk(choice.first(), position.follow(split, true), first)
                .plus(risk(choice.second(), position.follow(split, false), second))
                .plus(new KeyRisk(0, 0, 0, stuck));
    }
}
