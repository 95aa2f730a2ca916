package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.matrix.Applicability;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.matrix.RangeDistribution;
import org.polyclave.core.matrix.RecordedStates;

/**
 * How likely a reader records an observation of a specimen of a row.
 *
 * <p>A reader records states as {@link RecordedStates} says, with ε by character, observer and row. An observation's likelihood is
 * {@code (1 − δ)·f + δ·b} with the study-wide share {@code b}, so that one blunder is never fatal; of a number it is
 * {@code (1 − δ)·((1 − ε)·f + ε·b) + δ·b}, for a misread number may be any.
 */
final class ObservationModel {
    static final double BLUNDER = 0.02;
    private static final double MOST_MISREADING = 0.6;

    private final Matrix matrix;
    private final Observer observer;
    private final Distributions distributions;

    ObservationModel(Matrix matrix, Observer observer) {
        this.matrix = matrix;
        this.observer = observer;
        this.distributions = new Distributions(matrix, RangeDistribution.Tails.KEPT);
    }

    /** Whether a row is scored for a character that may exist on it. */
    boolean isScored(int row, int character) {
        return isKnown(row, character) && Applicability.of(matrix, row, character) != Applicability.IMPOSSIBLE;
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
     * f: probability that a known cell's specimen is recorded as answered, at every look. Of several readings of a number,
     * which are of other parts of the individual, the middle one stands for them, or the mean of the middle two.
     */
    double probability(int row, Answer answer) {
        int c = answer.character();
        if (!(matrix.cell(row, c) instanceof Cell.Categorical shown)) {
            List<Look> looks = answer.byValue();
            int middle = looks.size() / 2;
            double upper = probability(row, c, looks.get(middle));
            return looks.size() % 2 == 1 ? upper : (probability(row, c, looks.get(middle - 1)) + upper) / 2;
        }
        if (answer.further().isEmpty()) {
            return probability(row, c, answer.looks().get(0));
        }
        double sum = 0;
        for (int s = 0; s < shown.shares().length; s++) {
            if (shown.shares()[s] > 0) {
                double product = shown.shares()[s];
                List<Look> looks = answer.looks();
                for (int l = 0; l < looks.size(); l++) {
                    product *= recorded(row, answer.character(), s, looks.get(l), shown);
                }
                sum += product;
            }
        }
        return sum;
    }

    /** A second look at a specimen does not draw another one. */
    private double recorded(int row, int character, int state, Look look, Cell.Categorical shown) {
        return RecordedStates.given(
                matrix.character(character),
                state,
                shown.readable() & ~shown.support(),
                ((Observation.Seen) look.observation()).states(),
                rate(row, character, look.certainty()));
    }

    private double rate(int row, int character, Certainty certainty) {
        double rate = misreading(row, character) + certainty.addedMisreading();
        return rate < MOST_MISREADING ? rate : MOST_MISREADING;
    }

    private double probability(int row, int character, Look look) {
        Cell cell = matrix.cell(row, character);
        Observation observation = look.observation();
        double misreading = rate(row, character, look.certainty());
        if (observation instanceof Observation.MeasuredObservation reading) {
            RangeDistribution range = distributions.range(character, cell);
            // Not sure of a number: the reading may be off by more than its stated uncertainty.
            // The ends of a wide range are read no worse than a number would be.
            double usual = matrix.character(character).giveOrTake(reading.value());
            double off = reading.uncertainty() < usual ? reading.uncertainty() : usual;
            double spread = reading.uncertainty() + 4 * misreading * off;
            return range.within(reading.value() - spread, reading.value() + spread);
        }
        double[] outcomes = RecordedStates.of(matrix.character(character), (Cell.Categorical) cell, misreading);
        double sum = 0;
        int seen = ((Observation.Seen) observation).states();
        for (int s = 0; s < outcomes.length; s++) {
            if ((seen & (1 << s)) != 0) {
                sum += outcomes[s];
            }
        }
        return sum;
    }

    /**
     * How often what is recorded of a row has nothing to do with it: by a blunder, and of a number, which has no states to be
     * taken for one another, also by misreading.
     */
    double blunder(int row, int character, Certainty certainty) {
        return matrix.character(character).type().isNumeric()
                ? 1 - (1 - BLUNDER) * (1 - rate(row, character, certainty))
                : BLUNDER;
    }

    /** b: the study-wide share of the same observation, over the rows scored for it; 0 if none is. */
    double background(Answer answer) {
        double sum = 0;
        int scored = 0;
        for (int i = 0; i < matrix.rowCount(); i++) {
            if (isKnown(i, answer.character())) {
                sum += probability(i, answer);
                scored++;
            }
        }
        return scored == 0 ? 0 : sum / scored;
    }

    /** Whether more looks than not saw what lies outside everything that the row shows or is taken for. */
    boolean contradicts(int row, Answer answer) {
        List<Look> looks = answer.looks();
        int outside = 0;
        for (int l = 0; l < looks.size(); l++) {
            outside += contradicts(row, answer.character(), looks.get(l).observation()) ? 1 : 0;
        }
        return 2 * outside > looks.size();
    }

    private boolean contradicts(int row, int character, Observation observation) {
        Cell cell = matrix.cell(row, character);
        if (cell instanceof Cell.Categorical shown && observation instanceof Observation.Seen seen) {
            return (shown.readable() & seen.states()) == 0;
        }
        if (cell instanceof Cell.Numeric range && observation instanceof Observation.MeasuredObservation reading) {
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
