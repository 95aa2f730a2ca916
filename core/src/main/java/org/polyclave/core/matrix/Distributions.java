package org.polyclave.core.matrix;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.statistics.StudentPoints;

/**
 * What specimens of each row show: per character the study-wide mixture over the rows scored for it, and per cell its
 * own distribution. An unknown or inapplicable cell has the mixture.
 */
public final class Distributions {
    private final Matrix matrix;
    private final RangeDistribution.Tails tails;
    private final StudentPoints points = RangeDistribution.points();
    private final double[][] stateMixture;
    private final RangeDistribution[] rangeMixture;
    private final List<Map<Cell, RangeDistribution>> ranges = new ArrayList<>();

    public Distributions(Matrix matrix, RangeDistribution.Tails tails) {
        this.matrix = matrix;
        this.tails = tails;
        int n = matrix.characterCount();
        stateMixture = new double[n][];
        rangeMixture = new RangeDistribution[n];
        for (int c = 0; c < n; c++) {
            MatrixCharacter character = matrix.character(c);
            Map<Cell, RangeDistribution> own = new LinkedHashMap<>();
            ranges.add(own);
            if (character.type().isNumeric()) {
                rangeMixture[c] = mixRanges(c, own);
            } else {
                stateMixture[c] = mixStates(c);
            }
        }
    }

    private double[] mixStates(int c) {
        double[] mixture = new double[matrix.character(c).stateCount()];
        int scored = 0;
        for (int i = 0; i < matrix.rowCount(); i++) {
            if (matrix.cell(i, c) instanceof Cell.Categorical shown) {
                scored++;
                for (int s = 0; s < mixture.length; s++) {
                    mixture[s] += shown.shares()[s];
                }
            }
        }
        for (int s = 0; s < mixture.length; s++) {
            mixture[s] = scored == 0 ? 1.0 / mixture.length : mixture[s] / scored;
        }
        return mixture;
    }

    private RangeDistribution mixRanges(int c, Map<Cell, RangeDistribution> own) {
        List<Cell.Numeric> scored = new ArrayList<>();
        for (int i = 0; i < matrix.rowCount(); i++) {
            if (matrix.cell(i, c) instanceof Cell.Numeric range) {
                scored.add(range);
                own.computeIfAbsent(
                        range,
                        r -> RangeDistribution.of(List.of((Cell.Numeric) r), matrix.character(c), tails, points));
            }
        }
        // With no row scored any range serves: nothing is ever compared on this character.
        return RangeDistribution.of(
                scored.isEmpty() ? List.of(Cell.Numeric.range(0, 1)) : scored, matrix.character(c), tails, points);
    }

    /** Shares of the states of a categorical character for a cell; do not modify. */
    public double[] states(int character, Cell cell) {
        return cell instanceof Cell.Categorical shown ? shown.shares() : stateMixture[character];
    }

    /** Distribution of a numeric character for a cell. */
    public RangeDistribution range(int character, Cell cell) {
        RangeDistribution own =
                cell instanceof Cell.Numeric ? ranges.get(character).get(cell) : null;
        return own == null ? rangeMixture[character] : own;
    }
}
