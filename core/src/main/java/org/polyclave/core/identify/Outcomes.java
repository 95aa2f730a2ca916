package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.RecordedStates;
import org.polyclave.core.run.PortableMath;

/**
 * Per character, what each row's readers are expected to record: states with misreading, or bins of a number. Equal
 * cells that are misread alike share one entry, so that weighing a question costs logarithms per kind of cell, not per row.
 */
final class Outcomes {
    private final Matrix matrix;
    private final int[][] kindOf;
    private final List<List<double[]>> kinds = new ArrayList<>();
    private final List<double[]> background = new ArrayList<>();
    private final double[] strength;

    Outcomes(Matrix matrix, ObservationModel readings) {
        this.matrix = matrix;
        int characters = matrix.characterCount();
        kindOf = new int[characters][matrix.rowCount()];
        strength = new double[characters];
        for (int c = 0; c < characters; c++) {
            fill(c, readings);
            strength[c] = evenInformation(c);
        }
    }

    private void fill(int c, ObservationModel readings) {
        boolean numeric = matrix.character(c).type().isNumeric();
        List<double[]> bins = numeric ? readings.bins(c) : new ArrayList<>();
        int n = numeric ? bins.size() : matrix.character(c).stateCount();
        List<Cell> seen = new ArrayList<>();
        List<Double> rates = new ArrayList<>();
        List<double[]> distributions = new ArrayList<>();
        double[] mean = new double[n];
        int scored = 0;
        for (int i = 0; i < matrix.rowCount(); i++) {
            Cell cell = matrix.cell(i, c);
            if (!readings.isKnown(i, c)) {
                kindOf[c][i] = -1;
                continue;
            }
            double rate = readings.misreading(i, c);
            int kind = indexOf(cell, rate, seen, rates);
            if (kind < 0) {
                kind = seen.size();
                seen.add(cell);
                rates.add(rate);
                distributions.add(
                        cell instanceof Cell.Categorical shown
                                ? RecordedStates.of(matrix.character(c), shown, rate)
                                : readings.binShares(c, cell, bins));
            }
            kindOf[c][i] = kind;
            scored++;
            for (int o = 0; o < n; o++) {
                mean[o] += distributions.get(kind)[o];
            }
        }
        for (int o = 0; o < n; o++) {
            mean[o] = scored == 0 ? 0 : mean[o] / scored;
        }
        for (double[] distribution : distributions) {
            for (int o = 0; o < n; o++) {
                distribution[o] = (1 - ObservationModel.BLUNDER) * distribution[o] + ObservationModel.BLUNDER * mean[o];
            }
        }
        kinds.add(distributions);
        background.add(mean);
    }

    private static int indexOf(Cell cell, double rate, List<Cell> seen, List<Double> rates) {
        for (int k = 0; k < seen.size(); k++) {
            if (rates.get(k) == rate && seen.get(k).equals(cell)) {
                return k;
            }
        }
        return -1;
    }

    private double evenInformation(int c) {
        double[] weights = new double[matrix.rowCount()];
        for (int i = 0; i < weights.length; i++) {
            weights[i] = 1.0 / weights.length;
        }
        return information(c, weights, 0);
    }

    /** Information that a character carries with all rows alike: its study-wide strength. */
    double strength(int character) {
        return strength[character];
    }

    /**
     * Expected reduction of the entropy of the rows' posterior by an answer: mutual information of row and record. Rows
     * that are not scored, and the outside row, are expected to show the study-wide mixture.
     */
    double information(int c, double[] posterior, double outside) {
        double[] mean = background.get(c);
        double[] mixture = new double[mean.length];
        double[] mass = new double[kinds.get(c).size()];
        double unknown = outside;
        for (int i = 0; i < posterior.length; i++) {
            if (kindOf[c][i] < 0) {
                unknown += posterior[i];
            } else {
                mass[kindOf[c][i]] += posterior[i];
            }
        }
        double conditional = unknown * entropy(mean);
        add(mixture, mean, unknown);
        for (int k = 0; k < mass.length; k++) {
            if (mass[k] > 0) {
                conditional += mass[k] * entropy(kinds.get(c).get(k));
                add(mixture, kinds.get(c).get(k), mass[k]);
            }
        }
        double gain = entropy(mixture) - conditional;
        return gain > 0 ? gain : 0;
    }

    private static void add(double[] sum, double[] part, double weight) {
        for (int o = 0; o < sum.length; o++) {
            sum[o] += weight * part[o];
        }
    }

    private static double entropy(double[] p) {
        double bits = 0;
        for (int o = 0; o < p.length; o++) {
            if (p[o] > 0) {
                bits -= p[o] * PortableMath.log2(p[o]);
            }
        }
        return bits;
    }
}
