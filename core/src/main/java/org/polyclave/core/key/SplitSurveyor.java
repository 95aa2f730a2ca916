package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.OptionalInt;
import java.util.stream.Collectors;
import org.polyclave.core.matrix.CharacterRole;

/**
 * Lists the splits that a position admits. A character is asked only where it applies to every class in play; where
 * nothing askable separates, characters that apply to some are offered, and the others go down both leads. What only
 * confirms is never asked; what must not be first is not, unless nothing else separates; nor is anything done to a specimen that
 * may be one to which it must not be done.
 */
final class SplitSurveyor {
    private final StateSplits stateSplits;
    private final ThresholdSplits thresholdSplits;
    private final KeyProblem problem;
    private final SetQuestions questions;

    SplitSurveyor(KeyProblem problem, SplitCost cost, SetQuestions questions) {
        this.problem = problem;
        this.questions = questions;
        stateSplits = new StateSplits(problem, cost);
        thresholdSplits = new ThresholdSplits(problem, cost);
    }

    /**
     * Candidates of a position.
     *
     * @param candidates none when nothing separates two rows of different targets: the position is terminal
     * @param all whether these are all
     * @param beside what could be asked, too, but is not because the question is set
     */
    record Survey(List<Candidate> candidates, boolean all, List<Candidate> beside) {
        Survey(List<Candidate> candidates, boolean all) {
            this(candidates, all, List.of());
        }
    }

    /** Every candidate. */
    List<Candidate> candidates(Position position) {
        return survey(position, Double.POSITIVE_INFINITY).candidates();
    }

    /** @param enough of the characters after one that gains so much nothing is wanted */
    Survey survey(Position position, double enough) {
        OptionalInt set = questions.at(position);
        if (set.isEmpty()) {
            return surveyAll(position, enough);
        }
        Survey all = surveyAll(position, Double.POSITIVE_INFINITY);
        Map<Boolean, List<Candidate>> bySet = all.candidates().stream()
                .collect(Collectors.partitioningBy(c -> c.split().character() == set.getAsInt()));
        List<Candidate> wanted = bySet.getOrDefault(true, List.of());
        if (wanted.isEmpty()) {
            // What does not separate here, or must not be done here, is not asked, whoever wants it.
            return all;
        }
        List<Candidate> onTheWay = wanted.stream()
                .filter(c -> questions.areAhead(position, c.split()))
                .toList();
        return new Survey(onTheWay.isEmpty() ? wanted : onTheWay, true, bySet.getOrDefault(false, List.of()));
    }

    private Survey surveyAll(Position position, double enough) {
        if (!hasSeveralNames(position)) {
            return new Survey(List.of(), true);
        }
        List<Candidate> askable = new ArrayList<>();
        List<Candidate> harmful = new ArrayList<>();
        List<Candidate> lastResort = new ArrayList<>();
        boolean separated = false;
        boolean separatedByHarm = false;
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
            if (survey.askable() && position.mayHarm(problem.matrix.character(c).handling())) {
                separatedByHarm |= survey.separates();
                harmful.addAll(survey.candidates());
            } else if (survey.askable() && !tooEarly) {
                separated |= survey.separates();
                askable.addAll(survey.candidates());
                if (survey.separates() && survey.gains(enough)) {
                    return new Survey(askable, false);
                }
            } else if (survey.separates()) {
                lastResort.addAll(survey.candidates());
            }
        }
        return new Survey(separated ? askable : separatedByHarm ? harmful : lastResort, true);
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
