package org.polyclave.core.separation;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.matrix.RangeDistribution;
import org.polyclave.core.matrix.RecordedStates;
import org.polyclave.core.run.PortableMath;

/**
 * How much an observation of a character tells between two rows, in bits: −log₂ Σ√(p·q) over what readers record of either
 * (A. Bhattacharyya, On a measure of divergence between two statistical populations, Bulletin of the Calcutta Mathematical
 * Society 35 (1943) 99–109). Bits of independent characters add up, and at even odds the error is at most ½ · 2^−bits. Each
 * distribution is mixed with {@value #BLUNDER} of what the study's rows show together, so that one blunder is never fatal and
 * no strength is endless. Takes O(states) or O(ends of ranges) time a character.
 */
public final class Strength {
    static final double BLUNDER = 0.02;

    private final Matrix matrix;
    private final Observer observer;
    private final Distributions distributions;

    public Strength(Matrix matrix, Observer observer) {
        this.matrix = matrix;
        this.observer = observer;
        distributions = new Distributions(matrix, RangeDistribution.Tails.KEPT);
    }

    /** 0 where one of the cells is unknown or does not exist. */
    public double bits(int a, int b, int character) {
        double affinity = 1;
        if (matrix.cell(a, character) instanceof Cell.Categorical p
                && matrix.cell(b, character) instanceof Cell.Categorical q) {
            affinity = affinity(recorded(a, character, p), recorded(b, character, q), mixture(character));
        } else if (matrix.cell(a, character) instanceof Cell.Numeric p
                && matrix.cell(b, character) instanceof Cell.Numeric q) {
            affinity = distributions
                    .range(character, p)
                    .affinity(distributions.range(character, q), distributions.range(character, Cell.UNKNOWN), BLUNDER);
        }
        double bits = -PortableMath.log2(affinity);
        return bits > 0 ? bits : 0;
    }

    private double[] recorded(int row, int character, Cell.Categorical cell) {
        return RecordedStates.of(
                matrix.character(character),
                cell,
                matrix.character(character).misreading().rate(observer, row));
    }

    private double[] mixture(int character) {
        return distributions.states(character, Cell.UNKNOWN);
    }

    private static double affinity(double[] p, double[] q, double[] background) {
        double sum = 0;
        for (int s = 0; s < p.length; s++) {
            double blunder = BLUNDER * background[s];
            sum += Math.sqrt(((1 - BLUNDER) * p[s] + blunder) * ((1 - BLUNDER) * q[s] + blunder));
        }
        return Math.min(1, sum);
    }

    /** Of some characters together: in each correlation group the strongest counts. */
    public double bits(int a, int b, List<Integer> characters) {
        Map<Integer, Double> strongest = new HashMap<>();
        for (int c : characters) {
            strongest.merge(matrix.character(c).group(), bits(a, b, c), Math::max);
        }
        return strongest.values().stream().mapToDouble(s -> s).sum();
    }

    /** Of all characters that can be seen, of one row against each: in each correlation group the strongest counts. */
    public double[] bitsAgainstAll(int row, SeparationContext context) {
        StrictSeparation separation = new StrictSeparation(matrix, context);
        TreeMap<Integer, List<Integer>> groups = new TreeMap<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            groups.computeIfAbsent(matrix.character(c).group(), g -> new ArrayList<>())
                    .add(c);
        }
        List<double[]> ofGroups = groups.values().stream()
                .parallel()
                .map(g -> strongest(row, g, separation))
                .toList();
        double[] bits = new double[matrix.rowCount()];
        for (double[] ofGroup : ofGroups) {
            for (int i = 0; i < bits.length; i++) {
                bits[i] += ofGroup[i];
            }
        }
        return bits;
    }

    private double[] strongest(int row, List<Integer> characters, StrictSeparation separation) {
        double[] strongest = new double[matrix.rowCount()];
        for (int c : characters) {
            // Most rows of a character say the same few things, and where they are misread alike they are as strong.
            boolean alike = matrix.character(c).misreading().isAlikeInAllRows();
            Map<Cell, Double> known = new HashMap<>();
            for (int i = 0; i < strongest.length; i++) {
                if (i != row && separation.difference(row, i, c).isSeen()) {
                    int at = i;
                    double bits =
                            alike ? known.computeIfAbsent(matrix.cell(i, c), k -> bits(row, at, c)) : bits(row, i, c);
                    strongest[i] = Math.max(strongest[i], bits);
                }
            }
        }
        return strongest;
    }
}
