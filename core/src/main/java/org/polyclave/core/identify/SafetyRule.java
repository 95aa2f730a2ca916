package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.identify.Identification.Margin;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.run.PortableMath;

/**
 * When a dangerous row counts as ruled out: (a) the other rows are on average at least {@value #ODDS} times likelier from
 * observations alone, with misreading at the upper 95 % limit for novices; and (b) at least two sure answers, from
 * different correlation groups and different organs or methods, lie outside its readable support and inside the leader's,
 * net of the reverse. Unknown cells, weak cells, rarity, place, month, odours and rules of thumb never count.
 */
final class SafetyRule {
    static final double ODDS = 1000;
    /** Upper 95 % limit of a Beta distribution worth 10 observations at the novice rate of 0.12. */
    static final double NOVICE_MISREADING = 0.31;

    private final Matrix matrix;
    private final Readings readings;

    SafetyRule(Matrix matrix, Readings readings) {
        this.matrix = matrix;
        this.readings = readings;
    }

    /**
     * Judges one dangerous row.
     *
     * @param leader the likeliest row apart from {@code danger}
     * @param firm likelihoods of all rows without rough answers, from {@link #likelihoods}
     * @param all the same with them: they may speak for the danger, not against it
     */
    Margin judge(int danger, int leader, double[] firm, double[] all, Evidence evidence, IdentifyOptions options) {
        double odds = Math.min(odds(danger, firm), odds(danger, all));
        List<Integer> against = new ArrayList<>();
        int reverse = 0;
        for (int k = 0; k < evidence.pieces().size(); k++) {
            Evidence.Piece piece = evidence.pieces().get(k);
            if (speaksFor(piece, danger, leader) && !matrix.isWeak(danger, character(piece))) {
                against.add(character(piece));
            } else if (speaksFor(piece, leader, danger)) {
                reverse++;
            }
        }
        int independent = independent(against) - reverse;
        boolean ruledOut = odds >= ODDS && independent >= 2;
        List<Integer> questions = ruledOut ? new ArrayList<>() : safeQuestions(danger, leader, evidence, options);
        return new Margin(danger, ruledOut, odds, independent < 0 ? 0 : independent, questions);
    }

    private static int character(Evidence.Piece piece) {
        return piece.answer().character();
    }

    /** A sure answer that contradicts {@code loser} and agrees with {@code winner}, both scored. */
    private boolean speaksFor(Evidence.Piece piece, int loser, int winner) {
        int c = character(piece);
        return !piece.implied()
                && !piece.answer().rough()
                && piece.answer().certainty() == Answer.Certainty.SURE
                && matrix.character(c).countsForSafety()
                && readings.isKnown(loser, c)
                && readings.isKnown(winner, c)
                && readings.contradicts(loser, c, piece.answer().observation())
                && !readings.contradicts(winner, c, piece.answer().observation());
    }

    private double odds(int danger, double[] likelihoods) {
        double others = 0;
        double weights = 0;
        for (int i = 0; i < likelihoods.length; i++) {
            if (matrix.row(i).name() != matrix.row(danger).name()) {
                others += matrix.row(i).weight() * likelihoods[i];
                weights += matrix.row(i).weight();
            }
        }
        double own = likelihoods[danger];
        return weights > 0 && own > 0 ? others / weights / own : 0;
    }

    /**
     * Likelihood of the observations for each row, for a reader who misreads as much as a poor novice.
     *
     * @param rough whether answers by rules of thumb count
     */
    double[] likelihoods(Evidence evidence, boolean rough) {
        double[] bits = new double[matrix.rowCount()];
        for (int k = 0; k < evidence.pieces().size(); k++) {
            Evidence.Piece piece = evidence.pieces().get(k);
            if (piece.answer().rough() && !rough) {
                continue;
            }
            int c = character(piece);
            double b = readings.background(piece.answer(), NOVICE_MISREADING);
            for (int i = 0; i < bits.length; i++) {
                double f = readings.isKnown(i, c) ? readings.probability(i, piece.answer(), NOVICE_MISREADING) : b;
                double l = (1 - Readings.BLUNDER) * f + Readings.BLUNDER * b;
                bits[i] += l > 0 ? piece.weight() * PortableMath.log2(l) : 0;
            }
        }
        for (int i = 0; i < bits.length; i++) {
            bits[i] = PortableMath.exp2(bits[i]);
        }
        return bits;
    }

    /** Size of the largest set found greedily in which no two share a group, nor both organ and method. */
    private int independent(List<Integer> characters) {
        List<MatrixCharacter> chosen = new ArrayList<>();
        for (int k = 0; k < characters.size(); k++) {
            MatrixCharacter next = matrix.character(characters.get(k));
            boolean free = true;
            for (int j = 0; j < chosen.size(); j++) {
                MatrixCharacter other = chosen.get(j);
                boolean samePlace = other.organ() == next.organ() && other.method() == next.method();
                free = free && other.group() != next.group() && !samePlace;
            }
            if (free) {
                chosen.add(next);
            }
        }
        return chosen.size();
    }

    /** Safe characters not yet answered on which the dangerous row and the leader cannot look alike. */
    private List<Integer> safeQuestions(int danger, int leader, Evidence evidence, IdentifyOptions options) {
        List<Integer> found = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            MatrixCharacter character = matrix.character(c);
            boolean usable = !character.hazardousToObserve()
                    && character.countsForSafety()
                    && (matrix.months(danger, c) & matrix.months(leader, c) & options.months()) != 0
                    && !options.isUnavailable(c)
                    && !matrix.isWeak(danger, c);
            if (usable && !isAnswered(c, evidence) && apart(danger, leader, c)) {
                found.add(c);
            }
        }
        return found;
    }

    private static boolean isAnswered(int character, Evidence evidence) {
        for (int k = 0; k < evidence.pieces().size(); k++) {
            if (character(evidence.pieces().get(k)) == character
                    && !evidence.pieces().get(k).implied()) {
                return true;
            }
        }
        return false;
    }

    private boolean apart(int a, int b, int c) {
        if (matrix.cell(a, c) instanceof Cell.Categorical p && matrix.cell(b, c) instanceof Cell.Categorical q) {
            return (p.readable() & q.readable()) == 0;
        }
        return matrix.cell(a, c) instanceof Cell.Numeric p
                && matrix.cell(b, c) instanceof Cell.Numeric q
                && Math.max(p.min(), q.min()) - Math.min(p.max(), q.max())
                        > matrix.character(c).uncertainty();
    }
}
