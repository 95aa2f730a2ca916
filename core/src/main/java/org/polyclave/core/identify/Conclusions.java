package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.UsableEvidence;
import org.polyclave.core.identify.Identification.Conclusion;
import org.polyclave.core.identify.Identification.Contribution;
import org.polyclave.core.identify.Identification.Kind;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.identify.Identification.Question;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.Matrix;

/** What can be said after the answers so far: one name, several, or something else. */
final class Conclusions {
    private static final double ENOUGH = 0.95;
    private static final double WORTH_ASKING = 0.05;
    /** Standard deviations by which what was seen is stranger than misreading makes it. */
    private static final double SURPRISING = 3;

    private final Matrix matrix;
    private final UsableEvidence evidence;
    private final Rivals rivals;
    private final Outcomes outcomes;

    Conclusions(Matrix matrix, Rivals rivals, Outcomes outcomes) {
        this.matrix = matrix;
        this.rivals = rivals;
        this.outcomes = outcomes;
        evidence = new UsableEvidence(matrix);
    }

    /**
     * A name is settled where no other name is likely, no other dangerous row is left, nothing that it must show is unseen, and
     * no rival stands.
     *
     * @param standing what {@link Rivals} still stand
     */
    Conclusion of(Belief belief, List<Question> questions, List<Standing> standing) {
        if (belief.isOfNothing()) {
            return new Conclusion(Kind.NONE_LEFT, List.of(), notRuledOut(belief), notCompared(belief), List.of());
        }
        List<Integer> rows = likely(belief);
        List<Integer> notRuledOut = notRuledOut(belief);
        List<Integer> mustShow = mustShow(belief);
        boolean settled = mustShow.isEmpty()
                && standing.isEmpty()
                && !hasOtherName(belief.leader().row(), rows)
                && !hasOtherName(belief.leader().row(), notRuledOut);
        return new Conclusion(
                kind(belief, questions, settled, mustShow), rows, notRuledOut, notCompared(belief), mustShow);
    }

    private static List<Integer> likely(Belief belief) {
        List<Integer> rows = new ArrayList<>();
        List<Standing> likeliest = new ArrayList<>(belief.standings());
        likeliest.sort((p, q) -> Double.compare(q.posterior(), p.posterior()));
        double sum = 0;
        for (int k = 0; k < likeliest.size(); k++) {
            Standing standing = likeliest.get(k);
            if (sum < ENOUGH * (1 - belief.outside()) && !standing.struckOut()) {
                rows.add(standing.row());
                sum += standing.posterior();
            }
        }
        return rows;
    }

    private static List<Integer> notRuledOut(Belief belief) {
        List<Integer> rows = new ArrayList<>();
        List<Margin> margins = belief.margins();
        for (int k = 0; k < margins.size(); k++) {
            if (!margins.get(k).ruledOut()) {
                rows.add(margins.get(k).row());
            }
        }
        return rows;
    }

    private static List<Integer> notCompared(Belief belief) {
        List<Integer> rows = new ArrayList<>();
        for (int k = 0; k < belief.standings().size(); k++) {
            Standing standing = belief.standings().get(k);
            if (!belief.isCompared(standing)) {
                rows.add(standing.row());
            }
        }
        return rows;
    }

    private Kind kind(Belief belief, List<Question> questions, boolean settled, List<Integer> mustShow) {
        if (!belief.isAnswered()) {
            return Kind.OPEN;
        }
        if (belief.outside() > belief.leader().namePosterior() || lacksWhatAllShow(belief) || isUnlikeAll(belief)) {
            return Kind.OUTSIDE;
        }
        if (settled) {
            return Kind.SETTLED;
        }
        boolean worthAsking = !questions.isEmpty()
                && (questions.get(0).bits() >= WORTH_ASKING
                        || mustShow.contains(questions.get(0).character()));
        return worthAsking ? Kind.OPEN : Kind.REMAINING;
    }

    /** Characters that nobody has looked at and without which it is not the likeliest row: their absence would end the group. */
    List<Integer> mustShow(Belief belief) {
        int row = belief.leader().row();
        List<Integer> unseen = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            if (matrix.character(c).role() == CharacterRole.NECESSARY
                    && belief.looked().times(c) == 0
                    && evidence.isCompared(row, row, c)
                    && evidence.showsPresence(row, c)) {
                unseen.add(c);
            }
        }
        return unseen;
    }

    /** Whether a sure answer says that a sign is missing that every row which is scored for it must show. */
    private boolean lacksWhatAllShow(Belief belief) {
        List<Evidence.Piece> pieces = belief.given().pieces();
        for (int k = 0; k < pieces.size(); k++) {
            Answer answer = pieces.get(k).answer();
            boolean counts = matrix.character(answer.character()).role() == CharacterRole.NECESSARY
                    && answer.certainty() == Certainty.SURE
                    && !answer.rough()
                    && !pieces.get(k).implied();
            if (counts && contradictsAll(belief.standings(), k)) {
                return true;
            }
        }
        return false;
    }

    private static boolean contradictsAll(List<Standing> standings, int piece) {
        boolean any = false;
        for (int i = 0; i < standings.size(); i++) {
            Contribution of = standings.get(i).contributions().get(piece);
            any |= of.known();
            if (of.known() && !of.contradicts()) {
                return false;
            }
        }
        return any;
    }

    /**
     * Whether even the likeliest row is contradicted on two parts, and by more than its own specimens and misreading explain:
     * the surprise of the answers, −log₂ of their chance, exceeds its expectation by three standard deviations.
     */
    private boolean isUnlikeAll(Belief belief) {
        if (!rivals.isContradictedOnTwoParts(belief.leader())) {
            return false;
        }
        List<Evidence.Piece> pieces = belief.given().pieces();
        double excess = 0;
        double variance = 0;
        for (int k = 0; k < pieces.size(); k++) {
            if (!pieces.get(k).implied()) {
                Outcomes.Surprise surprise =
                        outcomes.surprise(belief.leader().row(), pieces.get(k).answer());
                excess += surprise.bits() - surprise.expected();
                variance += surprise.variance();
            }
        }
        return excess > 0 && excess * excess > SURPRISING * SURPRISING * variance;
    }

    private boolean hasOtherName(int row, List<Integer> rows) {
        for (int k = 0; k < rows.size(); k++) {
            if (!matrix.sharesName(row, rows.get(k))) {
                return true;
            }
        }
        return false;
    }
}
