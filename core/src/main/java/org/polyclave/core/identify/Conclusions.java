package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.identify.Identification.Conclusion;
import org.polyclave.core.identify.Identification.Contribution;
import org.polyclave.core.identify.Identification.Kind;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.identify.Identification.Question;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.matrix.Matrix;

/** What can be said after the answers so far: one name, several, or something else. */
final class Conclusions {
    private static final double ENOUGH = 0.95;
    private static final double WORTH_ASKING = 0.05;

    private final Matrix matrix;

    Conclusions(Matrix matrix) {
        this.matrix = matrix;
    }

    Conclusion of(
            List<Standing> standings,
            double outside,
            List<Question> questions,
            List<Margin> margins,
            Evidence evidence) {
        List<Integer> rows = new ArrayList<>();
        List<Integer> notCompared = new ArrayList<>();
        int answers = 0;
        for (int k = 0; k < evidence.pieces().size(); k++) {
            answers += evidence.pieces().get(k).implied() ? 0 : 1;
        }
        double sum = 0;
        for (int k = 0; k < standings.size(); k++) {
            Standing standing = standings.get(k);
            if (sum < ENOUGH * (1 - outside) && !standing.struckOut()) {
                rows.add(standing.row());
                sum += standing.posterior();
            }
            if (2 * standing.compared() < answers) {
                notCompared.add(standing.row());
            }
        }
        List<Integer> notRuledOut = new ArrayList<>();
        for (int k = 0; k < margins.size(); k++) {
            if (!margins.get(k).ruledOut()) {
                notRuledOut.add(margins.get(k).row());
            }
        }
        Kind kind = kind(standings, rows, outside, questions, notRuledOut, notCompared, answers);
        return new Conclusion(kind, rows, notRuledOut, notCompared);
    }

    private Kind kind(
            List<Standing> standings,
            List<Integer> rows,
            double outside,
            List<Question> questions,
            List<Integer> notRuledOut,
            List<Integer> notCompared,
            int answers) {
        if (standings.isEmpty() || standings.get(0).struckOut()) {
            return Kind.NONE_LEFT;
        }
        if (answers > 0 && outside > standings.get(0).posterior()) {
            return Kind.OUTSIDE;
        }
        if (answers > 0 && isSettled(standings, rows, notRuledOut, notCompared)) {
            return Kind.SETTLED;
        }
        boolean worthAsking = !questions.isEmpty() && questions.get(0).bits() >= WORTH_ASKING;
        return worthAsking || answers == 0 ? Kind.OPEN : Kind.REMAINING;
    }

    /** Every rival of some weight is contradicted by two independent answers, and no other dangerous row is left. */
    private boolean isSettled(
            List<Standing> standings, List<Integer> rows, List<Integer> notRuledOut, List<Integer> notCompared) {
        int target = matrix.row(standings.get(0).row()).name();
        for (int k = 0; k < rows.size(); k++) {
            if (matrix.row(rows.get(k)).name() != target) {
                return false;
            }
        }
        for (int k = 0; k < notRuledOut.size(); k++) {
            if (matrix.row(notRuledOut.get(k)).name() != target) {
                return false;
            }
        }
        for (int k = 0; k < standings.size(); k++) {
            Standing rival = standings.get(k);
            boolean other = matrix.row(rival.row()).name() != target;
            boolean weighty = rival.isRivalOf(standings.get(0)) && !notCompared.contains(rival.row());
            if (other && weighty && contradictingGroups(rival) < 2) {
                return false;
            }
        }
        return true;
    }

    private int contradictingGroups(Standing rival) {
        List<Integer> groups = new ArrayList<>();
        for (int k = 0; k < rival.contributions().size(); k++) {
            Contribution contribution = rival.contributions().get(k);
            int group = matrix.character(contribution.character()).group();
            if (contribution.contradicts() && !contribution.rough() && !groups.contains(group)) {
                groups.add(group);
            }
        }
        return groups.size();
    }
}
