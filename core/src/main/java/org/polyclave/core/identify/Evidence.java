package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;

/**
 * The answers put in order: those given, and those that follow from them (an answer to a dependent character implies that
 * its controller is in a state under which it applies). In character order, one an answer a character, with its weight:
 * within a group of characters that are one feature (lengths of one part, say), ranked by study-wide strength, 1, 0.25, 0.11, 0.07 ..., the increments of
 * g / (1 + (g − 1)·0.6).
 */
final class Evidence {
    private static final double SAME_GROUP = 0.6;
    /** Strengths that differ by less differ by rounding; the earlier character comes first. */
    private static final double ALIKE = 1e-9;

    /** One piece of evidence. */
    record Piece(Answer answer, boolean implied, double weight) {}

    private final List<Piece> pieces = new ArrayList<>();

    Evidence(Matrix matrix, Outcomes outcomes, List<Answer> answers) {
        List<Answer> effective = new ArrayList<>();
        List<Boolean> implied = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            int given = lastAnswer(answers, c);
            if (given >= 0) {
                effective.add(answers.get(given));
                implied.add(false);
                continue;
            }
            int states = impliedStates(matrix, answers, c);
            if (states != matrix.character(c).allStates() && states != 0) {
                effective.add(new Answer(c, new Observation.Seen(states), Certainty.SURE));
                implied.add(true);
            }
        }
        for (int k = 0; k < effective.size(); k++) {
            pieces.add(new Piece(effective.get(k), implied.get(k), weight(matrix, outcomes, effective, k)));
        }
    }

    List<Piece> pieces() {
        return pieces;
    }

    private static int lastAnswer(List<Answer> answers, int character) {
        for (int k = answers.size() - 1; k >= 0; k--) {
            if (answers.get(k).character() == character) {
                return k;
            }
        }
        return -1;
    }

    private static int impliedStates(Matrix matrix, List<Answer> answers, int controller) {
        int states = matrix.character(controller).allStates();
        for (int k = 0; k < answers.size(); k++) {
            List<ControllingCondition> conditions =
                    matrix.character(answers.get(k).character()).appliesWhen();
            for (int j = 0; j < conditions.size(); j++) {
                if (conditions.get(j).character() == controller) {
                    states &= conditions.get(j).states();
                }
            }
        }
        return states;
    }

    /** How much of another answer to a character is news, after those of its group. */
    double nextWeight(Matrix matrix, int character) {
        int group = matrix.character(character).group();
        int answered = 0;
        for (int k = 0; k < pieces.size(); k++) {
            answered += matrix.character(pieces.get(k).answer().character()).group() == group ? 1 : 0;
        }
        return total(answered + 1) - total(answered);
    }

    private static double weight(Matrix matrix, Outcomes outcomes, List<Answer> answers, int k) {
        int group = matrix.character(answers.get(k).character()).group();
        double own = outcomes.strength(answers.get(k).character());
        int rank = 1;
        for (int j = 0; j < answers.size(); j++) {
            double other = outcomes.strength(answers.get(j).character());
            boolean sameGroup = matrix.character(answers.get(j).character()).group() == group;
            boolean ahead = other > own + ALIKE || (other > own - ALIKE && j < k);
            if (j != k && sameGroup && ahead) {
                rank++;
            }
        }
        return total(rank) - total(rank - 1);
    }

    private static double total(int g) {
        return g / (1 + (g - 1) * SAME_GROUP);
    }
}
