package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import org.polyclave.core.matrix.CharacterRole;

/**
 * Lists the splits that a position admits. A character is asked only where it applies to every class in play; where
 * nothing askable separates, characters that apply to some are offered, and the others go down both leads. What only
 * confirms is never asked; what must not be first is not, unless nothing else separates.
 */
final class SplitSurveyor {
    private final StateSplits stateSplits;
    private final ThresholdSplits thresholdSplits;
    private final KeyProblem problem;

    SplitSurveyor(KeyProblem problem, KeyObjective objective) {
        this.problem = problem;
        SplitCost cost = new SplitCost(problem, objective);
        stateSplits = new StateSplits(problem, cost);
        thresholdSplits = new ThresholdSplits(problem, cost);
    }

    /** Every candidate; empty when nothing separates two rows of different targets: the position is terminal. */
    List<Candidate> candidates(Position position) {
        if (!hasSeveralNames(position)) {
            return List.of();
        }
        List<Candidate> askable = new ArrayList<>();
        List<Candidate> lastResort = new ArrayList<>();
        boolean separated = false;
        boolean dangersOnly = position.holdsDangersOnly();
        boolean first = position.size() == problem.classCount;
        for (int c = 0; c < problem.matrix.characterCount(); c++) {
            if (dangersOnly && problem.matrix.character(c).isHandling()) {
                // Nobody handles what is dangerous in any case only to know which danger it is.
                continue;
            }
            if (!problem.matrix.character(c).role().decides()) {
                continue;
            }
            CharacterSurvey survey = survey(position, c);
            boolean tooEarly = first && problem.matrix.character(c).role() == CharacterRole.NEVER_FIRST;
            if (survey.askable() && !tooEarly) {
                separated |= survey.separates();
                askable.addAll(survey.candidates());
            } else if (survey.separates()) {
                lastResort.addAll(survey.candidates());
            }
        }
        if (separated) {
            return askable;
        }
        return lastResort.isEmpty() ? Collections.emptyList() : lastResort;
    }

    private CharacterSurvey survey(Position position, int c) {
        return problem.matrix.character(c).type().isNumeric()
                ? thresholdSplits.survey(position, c)
                : stateSplits.survey(position, c);
    }

    private boolean hasSeveralNames(Position position) {
        for (int k = 1; k < position.size(); k++) {
            if (problem.nameOf[position.classes[k]] != problem.nameOf[position.classes[0]]) {
                return true;
            }
        }
        return false;
    }

    /** Entropy in bits of a two-way choice. */
    static double entropy(double p) {
        if (p <= 0 || p >= 1) {
            return 0;
        }
        double q = 1 - p;
        return -(p * Math.log(p) + q * Math.log(q)) / Math.log(2);
    }
}
