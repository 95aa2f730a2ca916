package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.identify.Identification.Contribution;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.run.PortableMath;

/**
 * Adds the answers up, in character order, part by part. As a whole part may mislead (another stage, an abnormal or a
 * neighbour's leaf), the answers on one part together weigh {@code log₂((1 − η)·2^R + η)}, R the sum of their bits: for a row
 * nearly as much as they say, against it no more than log₂ η ≈ −5.
 */
final class Tally {
    static final double PART_MISLEADS = 0.03;
    /** Bits that a row loses in a month in which it is not met: one specimen in ten is early, late or lasting. */
    static final double OUT_OF_SEASON = PortableMath.log2(0.1);

    private static final double ROUNDED = 1e12;
    private static final double HALF = 0.5;
    private static final double IMPOSSIBLE = 1e-9;

    private final Matrix matrix;
    private final ObservationModel readings;
    private final Evidence evidence;
    private final IdentifyOptions options;
    private final double[] prior;
    private final double[] score;
    private final boolean[] outOfSeason;
    private final int[] mismatches;
    private final int[] compared;
    /** By part looked at, then by row: the sum of the bits of its answers. */
    private final List<double[]> sums = new ArrayList<>();

    private final int[] partOf;
    /** By answer, then by row: bits, as if no part misled, whether the row is scored for it, and is contradicted by it. */
    private final List<double[]> bits = new ArrayList<>();

    private final List<boolean[]> known = new ArrayList<>();
    private final List<boolean[]> contradicted = new ArrayList<>();

    private final double outsidePrior = PortableMath.log2(AnyOrderIdentifier.OUTSIDE_PRIOR);

    Tally(Matrix matrix, ObservationModel readings, Evidence evidence, IdentifyOptions options) {
        this.matrix = matrix;
        this.readings = readings;
        this.evidence = evidence;
        this.options = options;
        int rows = matrix.rowCount();
        score = new double[rows];
        prior = new double[rows];
        outOfSeason = new boolean[rows];
        mismatches = new int[rows];
        compared = new int[rows];
        double total = 0;
        for (int i = 0; i < rows; i++) {
            total += matrix.row(i).weight();
        }
        for (int i = 0; i < rows; i++) {
            outOfSeason[i] = matrix.row(i).isAbsentIn(options.months());
            prior[i] = PortableMath.log2((1 - AnyOrderIdentifier.OUTSIDE_PRIOR)
                            * matrix.row(i).weight()
                            / total)
                    + (outOfSeason[i] && options.presence() ? OUT_OF_SEASON : 0);
            score[i] = prior[i];
        }
        partOf = new int[evidence.pieces().size()];
        Map<Integer, Integer> parts = new LinkedHashMap<>();
        for (int k = 0; k < partOf.length; k++) {
            int organ = matrix.character(evidence.pieces().get(k).answer().character())
                    .outermostPart();
            Integer part = parts.get(organ);
            if (part == null) {
                part = parts.size();
                parts.put(organ, part);
                sums.add(new double[rows]);
            }
            partOf[k] = part;
            addPiece(k, evidence.pieces().get(k));
        }
    }

    private void addPiece(int k, Evidence.Piece piece) {
        Answer answer = piece.answer();
        int c = answer.character();
        boolean provesNothing = matrix.character(c).role() == CharacterRole.NECESSARY;
        double chance = readings.background(answer);
        // What no specimen of any row shows (a length without any give or take, say) tells nothing.
        double b = chance > IMPOSSIBLE ? chance : 0;
        double[] own = new double[score.length];
        boolean[] scored = new boolean[score.length];
        boolean[] against = new boolean[score.length];
        double[] before = shares(false);
        double mixture = 0;
        double mass = 0;
        for (int i = 0; i < own.length; i++) {
            scored[i] = readings.isScored(i, c);
            against[i] = scored[i] && readings.contradicts(i, answer);
            if (scored[i] && b > 0) {
                double f = readings.probability(i, answer);
                double blunder = readings.blunder(i, c, answer.certainty());
                double ratio = ((1 - blunder) * f + blunder * b) / b;
                ratio = provesNothing && ratio > 1 ? 1 : ratio;
                own[i] = piece.weight() * PortableMath.log2(ratio);
                mixture += before[i] * ratio;
                mass += before[i];
            }
        }
        double unknown = mass > 0 ? piece.weight() * PortableMath.log2(mixture / mass) : 0;
        double[] sum = sums.get(partOf[k]);
        for (int i = 0; i < own.length; i++) {
            own[i] = scored[i] && b > 0 ? own[i] : unknown;
            score[i] -= ofPart(sum[i]);
            sum[i] += own[i];
            score[i] += ofPart(sum[i]);
            mismatches[i] += against[i] && !answer.rough() ? 1 : 0;
            compared[i] += scored[i] && !piece.implied() ? 1 : 0;
        }
        bits.add(own);
        known.add(scored);
        contradicted.add(against);
    }

    /** What the answers on one part weigh together. */
    private static double ofPart(double sum) {
        return PortableMath.log2((1 - PART_MISLEADS) * PortableMath.exp2(sum) + PART_MISLEADS);
    }

    /** Each answer on a part is cut alike, so that their bits add up to what the part weighs. */
    private double contributed(int k, int row) {
        double sum = sums.get(partOf[k])[row];
        double cut = sum < 1e-9 && sum > -1e-9 ? 1 - PART_MISLEADS : ofPart(sum) / sum;
        return bits.get(k)[row] * cut;
    }

    private boolean isStruckOut(int row) {
        return options.strikeOut() && mismatches[row] > options.tolerance();
    }

    /** Posterior of each row, and of something else at the end; rows that were struck out have none. */
    private double[] shares(boolean strike) {
        int rows = score.length;
        double top = outsidePrior;
        for (int i = 0; i < rows; i++) {
            top = score[i] > top ? score[i] : top;
        }
        double[] shares = new double[rows + 1];
        shares[rows] = PortableMath.exp2(outsidePrior - top);
        double total = shares[rows];
        for (int i = 0; i < rows; i++) {
            shares[i] = strike && isStruckOut(i) ? 0 : PortableMath.exp2(score[i] - top);
            total += shares[i];
        }
        for (int i = 0; i < shares.length; i++) {
            shares[i] /= total;
        }
        return shares;
    }

    /** By row. */
    double[] posterior() {
        double[] rows = new double[score.length];
        System.arraycopy(shares(true), 0, rows, 0, rows.length);
        return rows;
    }

    double outside() {
        return shares(true)[score.length];
    }

    /** By name, the likeliest name first and its rows together: readers want the name. */
    List<Standing> standings() {
        double[] posterior = shares(true);
        Names names = new Names(posterior, shares(false));
        List<Standing> all = new ArrayList<>();
        for (int i = 0; i < score.length; i++) {
            all.add(new Standing(
                    i,
                    prior[i],
                    score[i],
                    posterior[i],
                    names.posterior(i),
                    mismatches[i],
                    isStruckOut(i),
                    outOfSeason[i],
                    compared[i],
                    contributions(i)));
        }
        all.sort((p, q) -> {
            if (!matrix.sharesName(p.row(), q.row())) {
                return names.compare(p.row(), q.row());
            }
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

    private List<Contribution> contributions(int row) {
        List<Contribution> contributions = new ArrayList<>();
        for (int k = 0; k < bits.size(); k++) {
            Evidence.Piece piece = evidence.pieces().get(k);
            Answer answer = piece.answer();
            contributions.add(new Contribution(
                    answer.character(),
                    contributed(k, row),
                    piece.implied(),
                    contradicted.get(k)[row],
                    known.get(k)[row],
                    answer.rough()));
        }
        return contributions;
    }

    /** What the rows of each name come to together. */
    private final class Names {
        private final Map<Integer, Double> posterior = new LinkedHashMap<>();
        /** As if nothing had been struck out. */
        private final Map<Integer, Double> weighed = new LinkedHashMap<>();
        /** Contradictions of its row that has least. */
        private final Map<Integer, Integer> mismatched = new LinkedHashMap<>();

        private final Map<Integer, Integer> first = new LinkedHashMap<>();

        Names(double[] struck, double[] whole) {
            for (int i = 0; i < score.length; i++) {
                int name = matrix.row(i).name();
                posterior.merge(name, struck[i], Double::sum);
                weighed.merge(name, whole[i], Double::sum);
                mismatched.merge(name, mismatches[i], Math::min);
                first.putIfAbsent(name, i);
            }
        }

        double posterior(int row) {
            return value(posterior, row);
        }

        /** Of two rows of different names. */
        int compare(int a, int b) {
            if (options.strikeOut()) {
                int byMismatches = Double.compare(value(mismatched, a), value(mismatched, b));
                if (byMismatches != 0) {
                    return byMismatches;
                }
            }
            int byShare = Long.compare(rounded(value(weighed, b)), rounded(value(weighed, a)));
            return byShare != 0 ? byShare : Double.compare(value(first, a), value(first, b));
        }

        /** Sums of the same shares in another order are the same. */
        private long rounded(double share) {
            return (long) (share * ROUNDED + HALF);
        }

        private double value(Map<Integer, ? extends Number> of, int row) {
            Number value = of.get(matrix.row(row).name());
            return value == null ? 0 : value.doubleValue();
        }
    }
}
