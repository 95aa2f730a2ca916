package org.polyclave.core.separation;

import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Distributions;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
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
    /** By row and character; rows that say the same and are misread alike share it. */
    private final Recorded[][] recorded;

    public Strength(Matrix matrix, Observer observer) {
        this.matrix = matrix;
        this.observer = observer;
        distributions = new Distributions(matrix, RangeDistribution.Tails.KEPT);
        recorded = new Recorded[matrix.rowCount()][matrix.characterCount()];
        IntStream.range(0, matrix.characterCount()).parallel().forEach(this::record);
    }

    /** What readers record of a row: states, a range, or nothing that can be compared. */
    private sealed interface Recorded {
        record States(double[] shares) implements Recorded {}

        record Range(RangeDistribution range) implements Recorded {}

        record Nothing() implements Recorded {}
    }

    private static final Recorded NOTHING = new Recorded.Nothing();

    private void record(int character) {
        boolean alike = matrix.character(character).misreading().isAlikeInAllRows();
        Map<Cell, Recorded> known = new HashMap<>();
        for (int i = 0; i < recorded.length; i++) {
            Cell cell = matrix.cell(i, character);
            int row = i;
            recorded[i][character] = alike || cell instanceof Cell.Numeric
                    ? known.computeIfAbsent(cell, k -> recorded(row, character, k))
                    : recorded(row, character, cell);
        }
    }

    private Recorded recorded(int row, int character, Cell cell) {
        if (cell instanceof Cell.Categorical states) {
            MatrixCharacter of = matrix.character(character);
            return new Recorded.States(
                    RecordedStates.of(of, states, of.misreading().rate(observer, row)));
        }
        return cell instanceof Cell.Numeric ? new Recorded.Range(distributions.range(character, cell)) : NOTHING;
    }

    /** 0 where one of the cells is unknown or does not exist. */
    public double bits(int a, int b, int character) {
        return bits(affinity(recorded[a][character], recorded[b][character], character));
    }

    /** What readers measure of a row whose cell is a range. */
    public RangeDistribution range(int row, int character) {
        return distributions.range(character, matrix.cell(row, character));
    }

    /** Where two ranges overlap, or would with the individuals to come: {@code from} may lie above {@code to}, with a gap between. */
    public static Overlap overlap(Cell.Numeric lower, Cell.Numeric upper) {
        return new Overlap(Spans.of(upper).least(), Spans.of(lower).most());
    }

    public record Overlap(double from, double to) {}

    private static double bits(double affinity) {
        double bits = -PortableMath.log2(affinity);
        return bits > 0 ? bits : 0;
    }

    private double affinity(Recorded a, Recorded b, int character) {
        if (a instanceof Recorded.States p && b instanceof Recorded.States q) {
            return affinity(p.shares(), q.shares(), mixture(character));
        }
        if (a instanceof Recorded.Range p && b instanceof Recorded.Range q) {
            return p.range().affinity(q.range(), distributions.range(character, Cell.UNKNOWN), BLUNDER);
        }
        return 1;
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

    /** Of all characters in which the rows can be compared now: in each correlation group the strongest counts. */
    public double bits(int a, int b, StrictSeparation now) {
        return bits(
                a,
                b,
                IntStream.range(0, matrix.characterCount())
                        .filter(c -> now.isSeen(a, b, c))
                        .boxed()
                        .toList());
    }

    /**
     * Of all characters that can be seen, of one row against each: in each correlation group the strongest counts. Goes row by
     * row, as cells lie in memory.
     */
    public double[] bitsAgainstAll(int row, SeparationContext context) {
        StrictSeparation separation = new StrictSeparation(matrix, context);
        int[] groups = matrix.characters().stream()
                .mapToInt(MatrixCharacter::group)
                .distinct()
                .sorted()
                .toArray();
        int[] groupOf = matrix.characters().stream()
                .mapToInt(c -> Arrays.binarySearch(groups, c.group()))
                .toArray();
        double[] bits = new double[matrix.rowCount()];
        IntStream.range(0, bits.length).parallel().filter(i -> i != row).forEach(i -> {
            double[] least = new double[groups.length];
            Arrays.fill(least, 1);
            for (int c = 0; c < groupOf.length; c++) {
                if (separation.isSeen(row, i, c)) {
                    least[groupOf[c]] = Math.min(least[groupOf[c]], affinity(recorded[row][c], recorded[i][c], c));
                }
            }
            bits[i] = Arrays.stream(least).map(Strength::bits).sum();
        });
        return bits;
    }
}
