package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.identify.Identification.Conclusion;
import org.polyclave.core.identify.Identification.Contribution;
import org.polyclave.core.identify.Identification.Kind;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.identify.Identification.Question;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.margin.SafetyMargin;
import org.polyclave.core.margin.WeighedLooks;
import org.polyclave.core.matrix.Matrix;

/** What can be said after the answers so far: one name, several, or something else. */
final class Conclusions {
    private static final double ENOUGH = 0.95;
    private static final double WORTH_ASKING = 0.05;
    /** Features on one part that contradict a rival as firmly as two on two parts: a part may mislead. */
    private static final int ENOUGH_OF_ONE_PART = 3;

    private final Matrix matrix;
    private final UsableEvidence evidence;
    private final SafetyMargin margin;

    Conclusions(Matrix matrix, SafetyMargin margin) {
        this.matrix = matrix;
        this.margin = margin;
        evidence = new UsableEvidence(matrix);
    }

    /**
     * What is believed.
     *
     * @param leader the likeliest
     * @param rows the smallest set that is likely enough
     * @param notRuledOut dangerous rows
     * @param notCompared rows that are scored for less than half of the answers
     * @param answered whether anything was
     */
    private record Belief(
            Standing leader,
            List<Standing> standings,
            List<Integer> rows,
            List<Integer> notRuledOut,
            List<Integer> notCompared,
            boolean answered) {}

    Conclusion of(
            List<Standing> standings,
            double outside,
            List<Question> questions,
            List<Margin> margins,
            WeighedLooks looked) {
        if (standings.isEmpty() || standings.get(0).struckOut()) {
            return new Conclusion(Kind.NONE_LEFT, List.of(), notRuledOut(margins), notCompared(standings, looked));
        }
        Belief belief = new Belief(
                standings.get(0),
                standings,
                likely(standings, outside),
                notRuledOut(margins),
                notCompared(standings, looked),
                looked.size() > 0);
        return new Conclusion(
                kind(belief, outside, questions, looked), belief.rows(), belief.notRuledOut(), belief.notCompared());
    }

    private static List<Integer> likely(List<Standing> standings, double outside) {
        List<Integer> rows = new ArrayList<>();
        double sum = 0;
        for (int k = 0; k < standings.size(); k++) {
            Standing standing = standings.get(k);
            if (sum < ENOUGH * (1 - outside) && !standing.struckOut()) {
                rows.add(standing.row());
                sum += standing.posterior();
            }
        }
        return rows;
    }

    private static List<Integer> notRuledOut(List<Margin> margins) {
        List<Integer> rows = new ArrayList<>();
        for (int k = 0; k < margins.size(); k++) {
            if (!margins.get(k).ruledOut()) {
                rows.add(margins.get(k).row());
            }
        }
        return rows;
    }

    private static List<Integer> notCompared(List<Standing> standings, WeighedLooks looked) {
        List<Integer> rows = new ArrayList<>();
        for (int k = 0; k < standings.size(); k++) {
            if (2 * standings.get(k).compared() < looked.size()) {
                rows.add(standings.get(k).row());
            }
        }
        return rows;
    }

    private Kind kind(Belief belief, double outside, List<Question> questions, WeighedLooks looked) {
        if (belief.answered() && outside > belief.leader().posterior()) {
            return Kind.OUTSIDE;
        }
        if (belief.answered() && isSettled(belief, looked)) {
            return Kind.SETTLED;
        }
        boolean worthAsking = !questions.isEmpty() && questions.get(0).bits() >= WORTH_ASKING;
        return worthAsking || !belief.answered() ? Kind.OPEN : Kind.REMAINING;
    }

    /**
     * No other name is likely, no other dangerous row is left, and every rival of some weight is contradicted firmly; a
     * dangerous name, besides, is favoured over every other as firmly as it would take to rule it out.
     */
    private boolean isSettled(Belief belief, WeighedLooks looked) {
        int leader = belief.leader().row();
        if (hasOtherName(leader, belief.rows()) || hasOtherName(leader, belief.notRuledOut())) {
            return false;
        }
        boolean dangerous = matrix.row(leader).hazard().isDangerous();
        for (int k = 0; k < belief.standings().size(); k++) {
            Standing rival = belief.standings().get(k);
            boolean compared = !belief.notCompared().contains(rival.row());
            if (compared && !matrix.sharesName(leader, rival.row())) {
                boolean stands = rival.isRivalOf(belief.leader()) && !isFirmlyContradicted(rival);
                if (stands || (dangerous && !margin.isFirmlyFavoured(leader, rival.row(), looked))) {
                    return false;
                }
            }
        }
        return true;
    }

    private boolean hasOtherName(int row, List<Integer> rows) {
        for (int k = 0; k < rows.size(); k++) {
            if (!matrix.sharesName(row, rows.get(k))) {
                return true;
            }
        }
        return false;
    }

    /** By two features of two parts of which neither lies in the other, or by three. */
    private boolean isFirmlyContradicted(Standing rival) {
        List<Integer> groups = new ArrayList<>();
        List<Integer> characters = new ArrayList<>();
        for (int k = 0; k < rival.contributions().size(); k++) {
            Contribution contribution = rival.contributions().get(k);
            int group = matrix.character(contribution.character()).group();
            if (contribution.contradicts() && !contribution.rough() && !groups.contains(group)) {
                groups.add(group);
                characters.add(contribution.character());
            }
        }
        return groups.size() >= ENOUGH_OF_ONE_PART || evidence.areOfTwoParts(characters);
    }
}
