package org.polyclave.core.margin;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.RangeDistribution;
import org.polyclave.core.matrix.RecordedStates;

/**
 * What specimens of a row show of a character, and what readers record of it, over atoms: states, or stretches of a number.
 * Stretches are bounded by the least and greatest values of the study's rows, at most {@value #MOST_STRETCHES} of them.
 */
final class SafetyDistributions {
    private static final int MOST_STRETCHES = 24;

    private final Matrix matrix;
    private final Distributions distributions;
    /** Upper bounds of the stretches of numeric characters, the last infinite; empty for others. */
    private final double[][] bounds;

    /** Shares of the stretches, by character, of the ranges that were asked for. */
    private final List<Map<Cell, double[]>> ofRanges = new ArrayList<>();

    private final double[][] ofStudy;

    SafetyDistributions(Matrix matrix) {
        this.matrix = matrix;
        distributions = new Distributions(matrix, RangeDistribution.Tails.KEPT);
        bounds = new double[matrix.characterCount()][];
        ofStudy = new double[matrix.characterCount()][];
        for (int c = 0; c < bounds.length; c++) {
            ofRanges.add(new LinkedHashMap<>());
            bounds[c] = matrix.character(c).type().isNumeric() ? bounds(c) : new double[0];
        }
        for (int c = 0; c < bounds.length; c++) {
            ofStudy[c] = study(c);
        }
    }

    private double[] bounds(int c) {
        double half = half(c);
        double[] ends = new double[2 * matrix.rowCount()];
        int n = 0;
        for (int i = 0; i < matrix.rowCount(); i++) {
            if (matrix.cell(i, c) instanceof Cell.Numeric range) {
                n = insert(ends, n, range.min() - half);
                n = insert(ends, n, range.max() + half);
            }
        }
        int kept = n < MOST_STRETCHES ? n : MOST_STRETCHES;
        double[] upper = new double[kept + 1];
        for (int k = 0; k < kept; k++) {
            upper[k] = ends[n <= MOST_STRETCHES ? k : k * (n - 1) / (kept - 1)];
        }
        upper[kept] = Double.POSITIVE_INFINITY;
        return upper;
    }

    /** Keeps ascending order, each value once. */
    private static int insert(double[] ends, int n, double value) {
        int at = n;
        while (at > 0 && ends[at - 1] > value) {
            at--;
        }
        if (at > 0 && ends[at - 1] == value) {
            return n;
        }
        for (int k = n; k > at; k--) {
            ends[k] = ends[k - 1];
        }
        ends[at] = value;
        return n + 1;
    }

    private double half(int c) {
        return matrix.character(c).type() == CharacterType.COUNT ? 0.5 : 0;
    }

    int atoms(int character) {
        int n = matrix.character(character).type().isNumeric()
                ? bounds[character].length
                : matrix.character(character).stateCount();
        return n < 2 ? 2 : n;
    }

    /** Shares of the atoms in the specimens of a row that is scored. */
    double[] shares(int row, int character) {
        if (matrix.cell(row, character) instanceof Cell.Categorical shown) {
            return shown.shares();
        }
        return ofRange(row, character);
    }

    private synchronized double[] ofRange(int row, int character) {
        Map<Cell, double[]> known = ofRanges.get(character);
        Cell cell = matrix.cell(row, character);
        double[] before = known.get(cell);
        if (before != null) {
            return before;
        }
        RangeDistribution range = distributions.range(character, cell);
        double[] shares = new double[bounds[character].length];
        double from = Double.NEGATIVE_INFINITY;
        for (int s = 0; s < shares.length; s++) {
            shares[s] = range.share(from, bounds[character][s]);
            from = bounds[character][s];
        }
        known.put(cell, shares);
        return shares;
    }

    /** The mean of the rows that are scored. */
    double[] ofStudy(int character) {
        return ofStudy[character];
    }

    private double[] study(int c) {
        int n = matrix.character(c).type().isNumeric()
                ? bounds[c].length
                : matrix.character(c).stateCount();
        double[] mean = new double[n];
        int scored = 0;
        for (int i = 0; i < matrix.rowCount(); i++) {
            Cell cell = matrix.cell(i, c);
            if (cell instanceof Cell.Categorical || cell instanceof Cell.Numeric) {
                double[] shares = shares(i, c);
                scored++;
                for (int s = 0; s < n; s++) {
                    mean[s] += shares[s];
                }
            }
        }
        for (int s = 0; s < n; s++) {
            mean[s] = scored == 0 ? 1.0 / n : mean[s] / scored;
        }
        return mean;
    }

    /**
     * Probability that a reader records an observation of a specimen that shows an atom.
     *
     * @param row whose {@code mistaken} states count; −1 for none
     */
    double recorded(int row, int character, int atom, Observation observation, double misreading) {
        if (observation instanceof Observation.Seen seen) {
            int mistaken = row >= 0 && matrix.cell(row, character) instanceof Cell.Categorical shown
                    ? shown.readable() & ~shown.support()
                    : 0;
            return RecordedStates.given(matrix.character(character), atom, mistaken, seen.states(), misreading);
        }
        Observation.MeasuredObservation reading = (Observation.MeasuredObservation) observation;
        double low = reading.value() - reading.uncertainty();
        double high = reading.value() + reading.uncertainty();
        double missed = 0;
        for (int s = 0; s < bounds[character].length; s++) {
            missed += overlaps(character, s, low, high) ? ofStudy[character][s] : 0;
        }
        return (overlaps(character, atom, low, high) ? 1 - misreading : 0) + misreading * missed;
    }

    private boolean overlaps(int c, int atom, double low, double high) {
        double from = atom == 0 ? Double.NEGATIVE_INFINITY : bounds[c][atom - 1];
        return low <= bounds[c][atom] && high > from;
    }

    /** Whether an observation lies outside everything that a row shows or is taken for. */
    boolean isOutside(int row, int character, Observation observation) {
        Cell cell = matrix.cell(row, character);
        if (cell instanceof Cell.Categorical shown && observation instanceof Observation.Seen seen) {
            return (shown.readable() & seen.states()) == 0;
        }
        return cell instanceof Cell.Numeric range
                && observation instanceof Observation.MeasuredObservation reading
                && (reading.value() + reading.uncertainty() < range.min()
                        || reading.value() - reading.uncertainty() > range.max());
    }

    /** What a reader most likely sees of a row that is scored. */
    Observation typical(int row, int character) {
        if (matrix.cell(row, character) instanceof Cell.Numeric range) {
            double middle = (range.low() + range.high()) / 2;
            return new Observation.MeasuredObservation(
                    middle, matrix.character(character).giveOrTake(middle));
        }
        MatrixCharacter definition = matrix.character(character);
        double[] shares = shares(row, character);
        int best = 0;
        for (int s = 1; s < shares.length; s++) {
            boolean here = (definition.absence() & (1 << s)) == 0;
            boolean bestHere = (definition.absence() & (1 << best)) == 0;
            if ((here && !bestHere) || (here == bestHere && shares[s] > shares[best])) {
                best = s;
            }
        }
        return new Observation.Seen(1 << best);
    }
}
