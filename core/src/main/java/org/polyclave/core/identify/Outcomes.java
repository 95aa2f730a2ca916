package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.RecordedStates;
import org.polyclave.core.run.PortableMath;

/**
 * Per character, what each row's readers are expected to record: states with misreading, or bins of a number. Equal
 * cells that are misread alike share one entry, so that weighing a question costs logarithms per kind of cell, not per row.
 */
final class Outcomes {
    private static final double ROUNDING = 1e-12;

    private final Matrix matrix;
    private final int[][] kindOf;
    private final List<List<double[]>> kinds = new ArrayList<>();
    private final List<double[]> background = new ArrayList<>();
    /** By character, the bins of a number. */
    private final List<List<double[]>> bins = new ArrayList<>();

    private final double[] strength;
    /** By row, whether another has its name. */
    private final boolean[] sharesName;
    /** The rows of each name that has several. */
    private final List<List<Integer>> shared = new ArrayList<>();

    Outcomes(Matrix matrix, ObservationModel readings) {
        this.matrix = matrix;
        int characters = matrix.characterCount();
        kindOf = new int[characters][matrix.rowCount()];
        strength = new double[characters];
        sharesName = new boolean[matrix.rowCount()];
        Map<Integer, List<Integer>> names = new LinkedHashMap<>();
        for (int i = 0; i < matrix.rowCount(); i++) {
            names.computeIfAbsent(matrix.row(i).name(), n -> new ArrayList<>()).add(i);
        }
        for (List<Integer> rows : names.values()) {
            if (rows.size() > 1) {
                shared.add(rows);
                for (int k = 0; k < rows.size(); k++) {
                    sharesName[rows.get(k)] = true;
                }
            }
        }
        for (int c = 0; c < characters; c++) {
            fill(c, readings);
            strength[c] = evenInformation(c);
        }
    }

    private void fill(int c, ObservationModel readings) {
        boolean numeric = matrix.character(c).type().isNumeric();
        List<double[]> limits = numeric ? readings.bins(c) : new ArrayList<>();
        bins.add(limits);
        int n = numeric ? limits.size() : matrix.character(c).stateCount();
        List<Cell> seen = new ArrayList<>();
        List<Double> rates = new ArrayList<>();
        List<Double> blunders = new ArrayList<>();
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
                blunders.add(readings.blunder(i, c, Certainty.SURE));
                distributions.add(
                        cell instanceof Cell.Categorical shown
                                ? RecordedStates.of(matrix.character(c), shown, rate)
                                : readings.binShares(c, cell, limits));
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
        for (int k = 0; k < distributions.size(); k++) {
            double[] distribution = distributions.get(k);
            for (int o = 0; o < n; o++) {
                distribution[o] = (1 - blunders.get(k)) * distribution[o] + blunders.get(k) * mean[o];
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
        return information(c, matrix.shares(true), 0);
    }

    /** Information that a character carries with all names alike: its study-wide strength. */
    double strength(int character) {
        return strength[character];
    }

    /**
     * Expected reduction of the entropy of the names' posterior by an answer: mutual information of name and record. Rows
     * that are not scored, and the outside row, are expected to show the study-wide mixture.
     *
     * @param posterior by row
     */
    double information(int c, double[] posterior, double outside) {
        double[] mean = background.get(c);
        double[] mixture = new double[mean.length];
        double[] mass = new double[kinds.get(c).size()];
        double unknown = outside;
        for (int i = 0; i < posterior.length; i++) {
            if (sharesName[i]) {
                continue;
            }
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
        for (List<Integer> rows : shared) {
            conditional += ofName(rows, c, posterior, mixture);
        }
        double gain = entropy(mixture) - conditional;
        return gain > ROUNDING ? gain : 0;
    }

    /** Entropy of what readers record of a name with several rows, times its share; adds to the mixture, too. */
    private double ofName(List<Integer> rows, int c, double[] posterior, double[] mixture) {
        double[] own = new double[mixture.length];
        double share = 0;
        for (int k = 0; k < rows.size(); k++) {
            int i = rows.get(k);
            int kind = kindOf[c][i];
            add(own, kind < 0 ? background.get(c) : kinds.get(c).get(kind), posterior[i]);
            share += posterior[i];
        }
        add(mixture, own, 1);
        for (int o = 0; o < own.length; o++) {
            own[o] = share > 0 ? own[o] / share : 0;
        }
        return share * entropy(own);
    }

    /**
     * How unlikely an answer was for specimens of a row.
     *
     * @param bits −log₂ of its chance
     * @param expected mean of these bits over what readers record
     * @param variance of these bits
     */
    record Surprise(double bits, double expected, double variance) {}

    /** Of the first look; none where the row is not scored, or nobody was sure. */
    Surprise surprise(int row, Answer answer) {
        int c = answer.character();
        if (kindOf[c][row] < 0 || answer.rough() || answer.certainty() != Certainty.SURE) {
            return new Surprise(0, 0, 0);
        }
        double[] recorded = kinds.get(c).get(kindOf[c][row]);
        double expected = entropy(recorded);
        double variance = 0;
        double chance = 0;
        for (int o = 0; o < recorded.length; o++) {
            if (recorded[o] > 0) {
                double off = -PortableMath.log2(recorded[o]) - expected;
                variance += recorded[o] * off * off;
            }
            chance += isSeen(c, o, answer.observation()) ? recorded[o] : 0;
        }
        return chance > 0 ? new Surprise(-PortableMath.log2(chance), expected, variance) : new Surprise(0, 0, 0);
    }

    private boolean isSeen(int c, int outcome, Observation observation) {
        if (observation instanceof Observation.MeasuredObservation reading) {
            double[] bin = bins.get(c).get(outcome);
            return bin[0] < reading.value() && reading.value() <= bin[1];
        }
        return observation instanceof Observation.Seen seen && (seen.states() & (1 << outcome)) != 0;
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
