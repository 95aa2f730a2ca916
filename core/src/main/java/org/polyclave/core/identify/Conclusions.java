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
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/** What can be said after the answers so far: one name, several, or something else. */
final class Conclusions {
    private static final double ENOUGH = 0.95;
    private static final double WORTH_ASKING = 0.05;
    /** Features on one part that contradict a rival as firmly as two on two parts: a part may mislead. */
    private static final int ENOUGH_OF_ONE_PART = 3;

    private static final int NET = 2;
    private static final double SURPRISING = 3;

    private final Matrix matrix;
    private final UsableEvidence evidence;
    private final SafetyMargin margin;
    private final Outcomes outcomes;

    Conclusions(Matrix matrix, SafetyMargin margin, Outcomes outcomes) {
        this.matrix = matrix;
        this.margin = margin;
        this.outcomes = outcomes;
        evidence = new UsableEvidence(matrix);
    }

    /**
     * What is believed.
     *
     * @param leader the likeliest
     * @param given the answers
     * @param rows the smallest set that is likely enough
     * @param notRuledOut dangerous rows
     * @param notCompared rows that are scored for less than half of the answers
     * @param answered whether anything was
     */
    private record Belief(
            Standing leader,
            Evidence given,
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
            Evidence given,
            WeighedLooks looked) {
        if (standings.isEmpty() || standings.get(0).struckOut()) {
            return new Conclusion(
                    Kind.NONE_LEFT, List.of(), notRuledOut(margins), notCompared(standings, looked), List.of());
        }
        Belief belief = new Belief(
                standings.get(0),
                given,
                standings,
                likely(standings, outside),
                notRuledOut(margins),
                notCompared(standings, looked),
                looked.size() > 0);
        List<Integer> mustShow = mustShow(belief.leader().row(), looked);
        return new Conclusion(
                kind(belief, outside, questions, looked, mustShow),
                belief.rows(),
                belief.notRuledOut(),
                belief.notCompared(),
                mustShow);
    }

    private static List<Integer> likely(List<Standing> standings, double outside) {
        List<Integer> rows = new ArrayList<>();
        List<Standing> likeliest = new ArrayList<>(standings);
        likeliest.sort((p, q) -> Double.compare(q.posterior(), p.posterior()));
        double sum = 0;
        for (int k = 0; k < likeliest.size(); k++) {
            Standing standing = likeliest.get(k);
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
            if (!isCompared(standings.get(k), looked)) {
                rows.add(standings.get(k).row());
            }
        }
        return rows;
    }

    private Kind kind(
            Belief belief, double outside, List<Question> questions, WeighedLooks looked, List<Integer> mustShow) {
        boolean elsewhere = outside > belief.leader().posterior()
                || lacksWhatAllShow(belief.standings())
                || isUnlikeAll(belief.leader(), belief.given());
        if (belief.answered() && elsewhere) {
            return Kind.OUTSIDE;
        }
        if (belief.answered() && mustShow.isEmpty() && isSettled(belief, looked)) {
            return Kind.SETTLED;
        }
        boolean worthAsking = !questions.isEmpty()
                && (questions.get(0).bits() >= WORTH_ASKING
                        || mustShow.contains(questions.get(0).character()));
        return worthAsking || !belief.answered() ? Kind.OPEN : Kind.REMAINING;
    }

    /** Characters that nobody has looked at and without which it is not this row: their absence would end the group. */
    List<Integer> mustShow(int row, WeighedLooks looked) {
        List<Integer> unseen = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            if (matrix.character(c).role() == CharacterRole.NECESSARY
                    && looked.times(c) == 0
                    && evidence.isCompared(row, row, c)
                    && evidence.showsPresence(row, c)) {
                unseen.add(c);
            }
        }
        return unseen;
    }

    /** Whether a sure answer says that a sign is missing that every row which is scored for it must show. */
    private boolean lacksWhatAllShow(List<Standing> standings) {
        List<Contribution> answers = standings.get(0).contributions();
        for (int k = 0; k < answers.size(); k++) {
            if (matrix.character(answers.get(k).character()).role() == CharacterRole.NECESSARY
                    && !answers.get(k).rough()
                    && !answers.get(k).implied()) {
                boolean any = false;
                boolean all = true;
                for (int i = 0; i < standings.size(); i++) {
                    Contribution of = standings.get(i).contributions().get(k);
                    any |= of.known();
                    all &= !of.known() || of.contradicts();
                }
                if (any && all) {
                    return true;
                }
            }
        }
        return false;
    }

    /**
     * Whether even the likeliest row is contradicted on two parts, and by more than its own specimens and misreading explain:
     * the surprise of the answers, −log₂ of their chance, exceeds its expectation by three standard deviations.
     */
    private boolean isUnlikeAll(Standing leader, Evidence given) {
        if (!evidence.areOfTwoParts(contradictions(leader))) {
            return false;
        }
        double excess = 0;
        double variance = 0;
        for (int k = 0; k < given.pieces().size(); k++) {
            Evidence.Piece piece = given.pieces().get(k);
            if (!piece.implied()) {
                Outcomes.Surprise surprise = outcomes.surprise(leader.row(), piece.answer());
                excess += surprise.bits() - surprise.expected();
                variance += surprise.variance();
            }
        }
        return excess > 0 && excess * excess > SURPRISING * SURPRISING * variance;
    }

    /**
     * Rows of other names that keep a name from being settled: they are of some weight and not contradicted firmly. Rows that
     * are hardly scored for the answers do not count; they are named beside the result.
     */
    List<Standing> standingAgainst(Standing leader, List<Standing> standings, WeighedLooks looked) {
        List<Standing> against = new ArrayList<>();
        boolean dangerous = matrix.row(leader.row()).hazard().isDangerous();
        for (int k = 0; k < standings.size(); k++) {
            Standing rival = standings.get(k);
            if (isCompared(rival, looked) && !matrix.sharesName(leader.row(), rival.row())) {
                boolean stands = rival.isRivalOf(leader) && !isFirmlyContradicted(rival, leader);
                if (stands || (dangerous && !margin.isFirmlyFavoured(leader.row(), rival.row(), looked))) {
                    against.add(rival);
                }
            }
        }
        return against;
    }

    private static boolean isCompared(Standing standing, WeighedLooks looked) {
        return 2 * standing.compared() >= looked.size();
    }

    /**
     * No other name is likely, no other dangerous row is left, and every rival of some weight is contradicted firmly; a
     * dangerous name, besides, is favoured over every other as firmly as it would take to rule it out.
     */
    private boolean isSettled(Belief belief, WeighedLooks looked) {
        int leader = belief.leader().row();
        return !hasOtherName(leader, belief.rows())
                && !hasOtherName(leader, belief.notRuledOut())
                && standingAgainst(belief.leader(), belief.standings(), looked).isEmpty();
    }

    private boolean hasOtherName(int row, List<Integer> rows) {
        for (int k = 0; k < rows.size(); k++) {
            if (!matrix.sharesName(row, rows.get(k))) {
                return true;
            }
        }
        return false;
    }

    /**
     * By two features of two parts of which neither lies in the other, or by three, of those that decide; and by two features
     * more than the leader, for readers who misread some things of the leader misread as much of the rival.
     */
    private boolean isFirmlyContradicted(Standing rival, Standing leader) {
        List<Integer> characters = contradictions(rival);
        return characters.size() >= contradictions(leader).size() + NET
                && (characters.size() >= ENOUGH_OF_ONE_PART || evidence.areOfTwoParts(characters));
    }

    /** A character of each feature that contradicts a row. */
    private List<Integer> contradictions(Standing rival) {
        List<Integer> groups = new ArrayList<>();
        List<Integer> characters = new ArrayList<>();
        for (int k = 0; k < rival.contributions().size(); k++) {
            Contribution contribution = rival.contributions().get(k);
            MatrixCharacter character = matrix.character(contribution.character());
            if (contribution.contradicts()
                    && !contribution.rough()
                    && character.role().decides()
                    && !groups.contains(character.group())) {
                groups.add(character.group());
                characters.add(contribution.character());
            }
        }
        return characters;
    }
}
