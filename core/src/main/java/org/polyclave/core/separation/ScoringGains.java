package org.polyclave.core.separation;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.core.matrix.Matrix;

/**
 * What to score next. An unknown cell is worth the number of open or thin pairs of its row that its score may be expected to part by
 * a group that does not part them yet. The score is taken to be that of any row scored so far, each as likely; where the other
 * row of a pair is unknown too, both scores are needed and each is credited half. Pairs of rows at which a key may stop alike do not
 * count. What takes smelling, cutting or touching is not suggested on a row that may harm, or was not assessed. For R rows and C characters O(R² · C) time at worst; O(weak pairs · C) as a rule.
 */
public final class ScoringGains {
    private static final double LEAST_EFFORT = 0.1;
    private static final double HALF = 0.5;

    private final Matrix matrix;
    private final SeparationContext context;
    private final StrictSeparation separation;
    private final PairVerdicts verdicts;
    /** By character and row, the share of scored rows that are apart from the row; less than 0 where it is not scored. */
    private final double[][] apart;
    /** By character, the share of pairs of scored rows that are apart. */
    private final double[] diversity;

    public ScoringGains(Matrix matrix, SeparationContext context, PairVerdicts verdicts) {
        this.matrix = matrix;
        this.context = context;
        this.verdicts = verdicts;
        separation = new StrictSeparation(matrix, context);
        apart = new double[matrix.characterCount()][];
        diversity = new double[matrix.characterCount()];
        IntStream.range(0, apart.length).parallel().forEach(this::survey);
    }

    /**
     * A cell that is worth scoring.
     *
     * @param pairs expected number of pairs that it parts
     * @param effort minutes
     */
    public record Gain(int row, int character, double pairs, double effort) {
        public double perMinute() {
            return pairs / effort;
        }
    }

    private void survey(int c) {
        apart[c] = new double[matrix.rowCount()];
        List<Integer> scored = IntStream.range(0, matrix.rowCount())
                .filter(i -> isInView(i, c) && separation.isComparable(i, c))
                .boxed()
                .toList();
        IntStream.range(0, matrix.rowCount()).forEach(i -> apart[c][i] = -1);
        double sum = 0;
        List<Column> columns = context.isUsable(c) ? Column.of(matrix, context, separation, c) : List.of();
        for (int i : scored) {
            long[] others = new long[PairVerdicts.words(matrix.rowCount())];
            for (Column column : columns) {
                if (column.holds(i)) {
                    column.addApart(i, others);
                }
            }
            apart[c][i] = (double) BitSet.valueOf(others).cardinality() / scored.size();
            sum += apart[c][i];
        }
        diversity[c] = scored.isEmpty() ? 0 : sum / scored.size();
    }

    private boolean isInView(int row, int c) {
        return context.isUsable(c) && context.monthsOf(matrix.months(row, c)) != 0;
    }

    private boolean isSafe(int row, int c) {
        return !matrix.character(c).isHandling() || matrix.row(row).hazard() == Hazard.NONE_KNOWN;
    }

    /** The best cells, most pairs a minute first, then in the order of rows and characters. */
    public List<Gain> best(int most) {
        return IntStream.range(0, matrix.rowCount())
                .parallel()
                .mapToObj(this::ofRow)
                .flatMap(List::stream)
                .sorted(Comparator.comparingDouble((Gain g) -> -g.perMinute())
                        .thenComparingInt(Gain::row)
                        .thenComparingInt(Gain::character))
                .limit(most)
                .toList();
    }

    /** A rival that is not firmly separated, and the groups that tell it so far. */
    private record Weak(int rival, Set<Integer> groups) {}

    private List<Gain> ofRow(int row) {
        List<Integer> open = IntStream.range(0, matrix.characterCount())
                .filter(c -> matrix.cell(row, c) instanceof Cell.Unknown
                        && separation.isApplicable(row, c)
                        && isInView(row, c)
                        && isSafe(row, c))
                .boxed()
                .toList();
        if (open.isEmpty()) {
            return List.of();
        }
        List<Weak> weak = weak(row);
        List<Gain> gains = new ArrayList<>();
        for (int c : open) {
            double pairs = 0;
            for (Weak pair : weak) {
                pairs += chance(row, pair, c);
            }
            if (pairs > 0) {
                gains.add(new Gain(
                        row,
                        c,
                        pairs,
                        Math.max(LEAST_EFFORT, matrix.character(c).effort())));
            }
        }
        return gains;
    }

    private List<Weak> weak(int row) {
        List<Weak> weak = new ArrayList<>();
        for (int i = 0; i < matrix.rowCount(); i++) {
            boolean counts = i != row && matrix.row(i).name() != matrix.row(row).name();
            if (counts && verdicts.verdict(row, i) != Verdict.FIRM) {
                Set<Integer> groups = new HashSet<>();
                if (verdicts.verdict(row, i) == Verdict.THIN) {
                    separation
                            .separating(row, i)
                            .forEach(c -> groups.add(matrix.character(c).group()));
                }
                weak.add(new Weak(i, groups));
            }
        }
        return weak;
    }

    private double chance(int row, Weak pair, int c) {
        boolean together =
                (context.monthsOf(matrix.months(row, c)) & context.monthsOf(matrix.months(pair.rival(), c))) != 0;
        if (!together || pair.groups().contains(matrix.character(c).group())) {
            return 0;
        }
        if (apart[c][pair.rival()] >= 0) {
            return apart[c][pair.rival()];
        }
        boolean both = matrix.cell(pair.rival(), c) instanceof Cell.Unknown && separation.isApplicable(pair.rival(), c);
        return both ? HALF * diversity[c] : 0;
    }
}
