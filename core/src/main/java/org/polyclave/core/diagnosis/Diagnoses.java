package org.polyclave.core.diagnosis;

import java.util.ArrayList;
import java.util.BitSet;
import java.util.Comparator;
import java.util.List;
import java.util.function.IntUnaryOperator;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;
import org.polyclave.core.run.Completion;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.StrictSeparation;

/**
 * Diagnoses: for a row the cheapest set of characters that together tell it from every row of another taxon, each by one
 * independent group, or by as many of them as are wanted where that many exist.
 *
 * <p>A {@link HittingSet} of least weight: exponential at worst, so it stops after a number of positions with the best found and a
 * bound.
 */
public final class Diagnoses {
    /** Positions after which a search usually stops. */
    public static final int NODES = 10_000;

    private static final double ERROR_WEIGHT = 5;
    private static final double LEAST_EFFORT = 0.1;

    private final Matrix matrix;
    private final StrictSeparation separation;
    private final Observer observer;
    private final int nodes;

    /** @param nodes most positions of the search, for each row */
    public Diagnoses(Matrix matrix, SeparationContext context, Observer observer, int nodes) {
        this.matrix = matrix;
        this.separation = new StrictSeparation(matrix, context);
        this.observer = observer;
        this.nodes = nodes;
    }

    /** What looking at a character costs in a row: its minutes, and five for each time that it is misread there. */
    public double cost(int row, int character) {
        MatrixCharacter of = matrix.character(character);
        return Math.max(LEAST_EFFORT, of.effort())
                + ERROR_WEIGHT * of.misreading().rate(observer, row);
    }

    /** @param k independent groups wanted against each rival */
    public Diagnosis of(int row, int k) {
        return of(row, rival -> k);
    }

    /** By one group against each rival, and by two where the row or the rival is dangerous. */
    public Diagnosis ofSafely(int row) {
        boolean dangerous = matrix.row(row).hazard().isDangerous();
        return of(row, rival -> dangerous || matrix.row(rival).hazard().isDangerous() ? 2 : 1);
    }

    private Diagnosis of(int row, IntUnaryOperator wanted) {
        List<HittingSet.Rival> rivals = new ArrayList<>();
        List<Diagnosis.Shortfall> shortfalls = new ArrayList<>();
        for (int i = 0; i < matrix.rowCount(); i++) {
            if (matrix.row(i).name() != matrix.row(row).name()) {
                List<Integer> separating = separation.separating(row, i);
                int groups = separation.groups(separating);
                int k = wanted.applyAsInt(i);
                if (groups < k) {
                    shortfalls.add(new Diagnosis.Shortfall(i, groups));
                }
                if (groups > 0) {
                    rivals.add(new HittingSet.Rival(bits(separating), Math.min(k, groups)));
                }
            }
        }
        double[] cost = new double[matrix.characterCount()];
        for (int c = 0; c < cost.length; c++) {
            cost[c] = cost(row, c);
        }
        HittingSet.Solution found = new HittingSet(withoutImplied(rivals), cost, groups(), nodes).search();
        return new Diagnosis(
                row,
                found.characters(),
                found.cost(),
                found.bound(),
                found.proven() ? Completion.OPTIMAL : Completion.BUDGET_EXHAUSTED,
                shortfalls);
    }

    private int[] groups() {
        return matrix.characters().stream().mapToInt(MatrixCharacter::group).toArray();
    }

    private static BitSet bits(List<Integer> characters) {
        BitSet bits = new BitSet();
        characters.forEach(bits::set);
        return bits;
    }

    /** What tells a rival apart that is told by fewer characters does for one that is told by more. */
    private static List<HittingSet.Rival> withoutImplied(List<HittingSet.Rival> rivals) {
        List<HittingSet.Rival> sorted = new ArrayList<>(rivals);
        sorted.sort(
                Comparator.comparingInt((HittingSet.Rival r) -> r.characters().cardinality())
                        .thenComparingInt(r -> -r.need()));
        List<HittingSet.Rival> kept = new ArrayList<>();
        for (HittingSet.Rival rival : sorted) {
            boolean implied = kept.stream().anyMatch(k -> k.need() >= rival.need() && isWithin(k, rival));
            if (!implied) {
                kept.add(rival);
            }
        }
        return kept;
    }

    private static boolean isWithin(HittingSet.Rival few, HittingSet.Rival many) {
        BitSet outside = (BitSet) few.characters().clone();
        outside.andNot(many.characters());
        return outside.isEmpty();
    }
}
