package org.polyclave.core.separation;

import java.util.ArrayList;
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
    /** By character, each once that differs: of many rows, many say the same and are misread alike. */
    private final Recorded[][] recorded;
    /** By row and character, which of them. */
    private final int[][] said;

    public Strength(Matrix matrix, Observer observer) {
        this.matrix = matrix;
        this.observer = observer;
        distributions = new Distributions(matrix, RangeDistribution.Tails.KEPT);
        recorded = new Recorded[matrix.characterCount()][];
        said = new int[matrix.rowCount()][matrix.characterCount()];
        IntStream.range(0, recorded.length).parallel().forEach(this::record);
    }

    private static final Recorded NOTHING = new Recorded.Nothing();

    private void record(int character) {
        boolean alike = matrix.character(character).misreading().isAlikeInAllRows();
        Map<Cell, Integer> known = new HashMap<>();
        List<Recorded> all = new ArrayList<>();
        for (int row = 0; row < said.length; row++) {
            Cell cell = matrix.cell(row, character);
            Integer same = alike || cell instanceof Cell.Numeric ? known.putIfAbsent(cell, all.size()) : null;
            said[row][character] = same == null ? all.size() : same;
            if (same == null) {
                all.add(recorded(row, character, cell));
            }
        }
        recorded[character] = all.toArray(Recorded[]::new);
    }

    private Recorded recorded(int row, int character, Cell cell) {
        if (cell instanceof Cell.Categorical states) {
            MatrixCharacter of = matrix.character(character);
            double[] shares = RecordedStates.of(of, states, of.misreading().rate(observer, row));
            double[] background = distributions.states(character, Cell.UNKNOWN);
            return new Recorded.States(IntStream.range(0, shares.length)
                    .mapToDouble(s -> Math.sqrt((1 - BLUNDER) * shares[s] + BLUNDER * background[s]))
                    .toArray());
        }
        return cell instanceof Cell.Numeric
                ? new MixedRange(
                        distributions.range(character, cell), distributions.range(character, Cell.UNKNOWN), BLUNDER)
                : NOTHING;
    }

    /** 0 where one of the cells is unknown or does not exist. */
    public double bits(int a, int b, int character) {
        return bits(affinity(of(a, character), of(b, character)));
    }

    private Recorded of(int row, int character) {
        return recorded[character][said[row][character]];
    }

    /** What readers measure of a row whose cell is a range. */
    public RangeDistribution range(int row, int character) {
        return distributions.range(character, matrix.cell(row, character));
    }

    /** Where two ranges overlap, or would with the individuals to come: {@code from} may lie above {@code to}, with a gap between. */
    public static Overlap overlap(Cell.Numeric lower, Cell.Numeric upper) {
        return new Overlap(
                ToleranceExtent.of(upper).least(), ToleranceExtent.of(lower).most());
    }

    public record Overlap(double from, double to) {}

    private static double bits(double affinity) {
        double bits = -PortableMath.log2(affinity);
        return bits > 0 ? bits : 0;
    }

    private static double affinity(Recorded a, Recorded b) {
        if (a instanceof Recorded.States p && b instanceof Recorded.States q) {
            return affinity(p.roots(), q.roots());
        }
        if (a instanceof MixedRange p && b instanceof MixedRange q) {
            return p.affinity(q);
        }
        return 1;
    }

    private static double affinity(double[] p, double[] q) {
        double sum = 0;
        for (int s = 0; s < p.length; s++) {
            sum += p[s] * q[s];
        }
        return sum < 1 ? sum : 1;
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
     * Of all characters that can be seen, of one row against each: in each correlation group the strongest counts. Each
     * thing that rows say is compared once.
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
        int[] usable = IntStream.range(0, groupOf.length)
                .filter(c -> context.isUsable(c) && separation.isComparable(row, c))
                .toArray();
        double[][] affinities = new double[groupOf.length][];
        Arrays.stream(usable)
                .parallel()
                .forEach(c -> affinities[c] = Arrays.stream(recorded[c])
                        .mapToDouble(r -> affinity(of(row, c), r))
                        .toArray());
        double[] bits = new double[matrix.rowCount()];
        IntStream.range(0, bits.length).parallel().filter(i -> i != row).forEach(i -> {
            double[] least = new double[groups.length];
            Arrays.fill(least, 1);
            for (int c : usable) {
                int together = context.monthsOf(matrix.months(row, c)) & context.monthsOf(matrix.months(i, c));
                if (together != 0 && separation.isApplicable(i, c)) {
                    least[groupOf[c]] = Math.min(least[groupOf[c]], affinities[c][said[i][c]]);
                }
            }
            bits[i] = Arrays.stream(least).map(Strength::bits).sum();
        });
        return bits;
    }
}
