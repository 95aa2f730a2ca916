package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.matrix.RangeDistribution;

/**
 * How likely a reader records an observation of a specimen of a row.
 *
 * <p>A reader records the true state with probability 1 − ε, by character, observer and row, and otherwise another state: {@value #TO_CONFUSABLE} of ε goes
 * to the states that it is commonly mistaken for, the rest to the others, and an empty class gives its share to the other.
 * A row's {@code mistaken} states take {@value #MISTAKEN_RATE} of their own. The rows of this misreading matrix sum to 1. An observation's likelihood is
 * {@code (1 − δ)·f + δ·b} with the study-wide share {@code b}, so that one blunder is never fatal.
 */
final class Readings {
    static final double BLUNDER = 0.02;
    static final double MISTAKEN_RATE = 0.15;
    static final double TO_CONFUSABLE = 0.7;
    private static final double MOST_MISREADING = 0.6;

    private final Matrix matrix;
    private final Observer observer;
    private final Distributions distributions;

    Readings(Matrix matrix, Observer observer) {
        this.matrix = matrix;
        this.observer = observer;
        this.distributions = new Distributions(matrix, RangeDistribution.Tails.KEPT);
    }

    boolean isKnown(int row, int character) {
        Cell cell = matrix.cell(row, character);
        return cell instanceof Cell.Categorical || cell instanceof Cell.Numeric;
    }

    /** How often a character is misread on specimens of a row. */
    double misreading(int row, int character) {
        return matrix.character(character).misreading().rate(observer, row);
    }

    /**
     * f: probability that a known cell's specimen is recorded as answered.
     *
     * @param least no reader misreads less than this
     */
    double probability(int row, Answer answer, double least) {
        double rate = misreading(row, answer.character()) + answer.certainty().addedMisreading();
        return probability(
                row, answer.character(), answer.observation(), Math.max(least, Math.min(MOST_MISREADING, rate)));
    }

    private double probability(int row, int character, Observation observation, double misreading) {
        Cell cell = matrix.cell(row, character);
        if (observation instanceof Observation.Reading reading) {
            RangeDistribution range = distributions.range(character, cell);
            // Not sure of a number: the reading may be off by more than its stated uncertainty.
            double spread = reading.uncertainty() * (1 + 4 * misreading);
            return range.within(reading.value() - spread, reading.value() + spread);
        }
        double[] outcomes = outcomes(character, (Cell.Categorical) cell, misreading);
        double sum = 0;
        int seen = ((Observation.Seen) observation).states();
        for (int s = 0; s < outcomes.length; s++) {
            if ((seen & (1 << s)) != 0) {
                sum += outcomes[s];
            }
        }
        return sum;
    }

    /** Distribution of the recorded state; sums to 1. */
    double[] outcomes(int character, Cell.Categorical cell, double misreading) {
        int n = matrix.character(character).stateCount();
        double[] outcomes = new double[n];
        int mistaken = cell.readable() & ~cell.support();
        for (int s = 0; s < n; s++) {
            double share = cell.shares()[s];
            if (share > 0) {
                int confusable = matrix.character(character).confusable(s);
                spread(outcomes, s, share, mistaken, confusable & ~mistaken, n == 1 ? 0 : misreading);
            }
        }
        return outcomes;
    }

    private static void spread(
            double[] outcomes, int trueState, double share, int mistaken, int confusable, double misreading) {
        int n = outcomes.length;
        int mistakenCount = Integer.bitCount(mistaken);
        int alike = Integer.bitCount(confusable);
        int others = n - 1 - mistakenCount - alike;
        double toMistaken = mistakenCount == 0 ? 0 : MISTAKEN_RATE;
        double wrong = alike + others == 0 ? 0 : misreading * (1 - toMistaken);
        double toAlike = alike == 0 ? 0 : others == 0 ? wrong : wrong * TO_CONFUSABLE;
        for (int o = 0; o < n; o++) {
            if (o == trueState) {
                outcomes[o] += share * (1 - toMistaken - wrong);
            } else if ((mistaken & (1 << o)) != 0) {
                outcomes[o] += share * toMistaken / mistakenCount;
            } else if ((confusable & (1 << o)) != 0) {
                outcomes[o] += share * toAlike / alike;
            } else {
                outcomes[o] += share * (wrong - toAlike) / others;
            }
        }
    }

    /** b: the study-wide share of the same observation, over the rows scored for it; 0 if none is. */
    double background(Answer answer, double least) {
        double sum = 0;
        int scored = 0;
        for (int i = 0; i < matrix.rowCount(); i++) {
            if (isKnown(i, answer.character())) {
                sum += probability(i, answer, least);
                scored++;
            }
        }
        return scored == 0 ? 0 : sum / scored;
    }

    /** Whether what was seen lies outside everything that the row shows or is taken for. */
    boolean contradicts(int row, int character, Observation observation) {
        Cell cell = matrix.cell(row, character);
        if (cell instanceof Cell.Categorical shown && observation instanceof Observation.Seen seen) {
            return (shown.readable() & seen.states()) == 0;
        }
        if (cell instanceof Cell.Numeric range && observation instanceof Observation.Reading reading) {
            return reading.value() + reading.uncertainty() < range.min()
                    || reading.value() - reading.uncertainty() > range.max();
        }
        return false;
    }

    /** Limits that divide a numeric character's range into bins of alike readings, for weighing questions. */
    List<double[]> bins(int character) {
        MatrixCharacter definition = matrix.character(character);
        double low = Double.POSITIVE_INFINITY;
        double high = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < matrix.rowCount(); i++) {
            if (matrix.cell(i, character) instanceof Cell.Numeric range) {
                low = Math.min(low, range.min());
                high = Math.max(high, range.max());
            }
        }
        List<double[]> bins = new ArrayList<>();
        if (low > high) {
            return bins;
        }
        double half = definition.type() == CharacterType.COUNT ? 0.5 : 0;
        double width = (high - low + 2 * half) / BINS;
        double from = Double.NEGATIVE_INFINITY;
        for (int b = 1; b <= BINS; b++) {
            double to = b == BINS || width == 0 ? Double.POSITIVE_INFINITY : low - half + b * width;
            bins.add(new double[] {from, to});
            from = to;
            if (width == 0) {
                break;
            }
        }
        return bins;
    }

    private static final int BINS = 8;

    /** Distribution of a cell over {@link #bins}. */
    double[] binShares(int character, Cell cell, List<double[]> bins) {
        RangeDistribution range = distributions.range(character, cell);
        double[] shares = new double[bins.size()];
        for (int b = 0; b < shares.length; b++) {
            shares[b] = range.share(bins.get(b)[0], bins.get(b)[1]);
        }
        return shares;
    }
}
