package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.identify.Identification.Contribution;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.run.PortableMath;

/** Adds the answers up, in character order. */
final class Tally {
    private final ObservationModel readings;
    private final IdentifyOptions options;
    private final double[] score;
    private final double[] prior;
    private final int[] mismatches;
    private final int[] compared;
    private final List<List<Contribution>> contributions = new ArrayList<>();
    private final double outsidePrior = PortableMath.log2(AnyOrderIdentifier.OUTSIDE_PRIOR);
    private double outside;

    Tally(Matrix matrix, ObservationModel readings, Evidence evidence, IdentifyOptions options) {
        this.readings = readings;
        this.options = options;
        score = new double[matrix.rowCount()];
        prior = new double[matrix.rowCount()];
        mismatches = new int[matrix.rowCount()];
        compared = new int[matrix.rowCount()];
        double total = 0;
        for (int i = 0; i < score.length; i++) {
            total += matrix.row(i).weight();
            contributions.add(new ArrayList<>());
        }
        for (int i = 0; i < score.length; i++) {
            prior[i] = PortableMath.log2(
                    (1 - AnyOrderIdentifier.OUTSIDE_PRIOR) * matrix.row(i).weight() / total);
            score[i] = prior[i];
        }
        for (int k = 0; k < evidence.pieces().size(); k++) {
            addPiece(evidence.pieces().get(k));
        }
    }

    private void addPiece(Evidence.Piece piece) {
        Answer answer = piece.answer();
        int c = answer.character();
        double b = readings.background(answer);
        double[] bits = new double[score.length];
        double[] before = shares(false);
        double mixture = 0;
        double mass = 0;
        for (int i = 0; i < bits.length; i++) {
            if (readings.isScored(i, c) && b > 0) {
                double f = readings.probability(i, answer);
                double ratio = ((1 - ObservationModel.BLUNDER) * f + ObservationModel.BLUNDER * b) / b;
                bits[i] = piece.weight() * PortableMath.log2(ratio);
                mixture += before[i] * ratio;
                mass += before[i];
            }
        }
        double unknown = mass > 0 ? piece.weight() * PortableMath.log2(mixture / mass) : 0;
        for (int i = 0; i < bits.length; i++) {
            boolean known = readings.isScored(i, c);
            boolean contradicts = known && readings.contradicts(i, answer);
            double added = known && b > 0 ? bits[i] : unknown;
            score[i] += added;
            mismatches[i] += contradicts && !answer.rough() ? 1 : 0;
            compared[i] += known && !piece.implied() ? 1 : 0;
            contributions.get(i).add(new Contribution(c, added, piece.implied(), contradicts, known, answer.rough()));
        }
    }

    private boolean isStruckOut(int row) {
        return options.strikeOut() && mismatches[row] > options.tolerance();
    }

    /** Posterior of each row; rows that were struck out have none. */
    private double[] shares(boolean strike) {
        double top = outsidePrior;
        for (int i = 0; i < score.length; i++) {
            top = score[i] > top ? score[i] : top;
        }
        double[] shares = new double[score.length];
        double total = PortableMath.exp2(outsidePrior - top);
        outside = total;
        for (int i = 0; i < score.length; i++) {
            shares[i] = strike && isStruckOut(i) ? 0 : PortableMath.exp2(score[i] - top);
            total += shares[i];
        }
        for (int i = 0; i < score.length; i++) {
            shares[i] /= total;
        }
        outside /= total;
        return shares;
    }

    double[] posterior() {
        return shares(true);
    }

    double outside() {
        return outside;
    }

    List<Standing> standings() {
        double[] posterior = shares(true);
        List<Standing> all = new ArrayList<>();
        for (int i = 0; i < score.length; i++) {
            all.add(new Standing(
                    i,
                    prior[i],
                    score[i],
                    posterior[i],
                    mismatches[i],
                    isStruckOut(i),
                    compared[i],
                    List.copyOf(contributions.get(i))));
        }
        all.sort((p, q) -> {
            if (p.struckOut() != q.struckOut()) {
                return p.struckOut() ? 1 : -1;
            }
            if (options.strikeOut() && p.mismatches() != q.mismatches()) {
                return Integer.compare(p.mismatches(), q.mismatches());
            }
            int byScore = Double.compare(q.score(), p.score());
            return byScore != 0 ? byScore : Integer.compare(p.row(), q.row());
        });
        return all;
    }
}
