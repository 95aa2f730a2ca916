package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.separation.SeparationContext;
import org.polyclave.core.separation.Verdict;
import org.polyclave.core.statistics.Summary;
import org.polyclave.core.statistics.Tolerance;

/** What tells two rows apart, word for word as it is defined, one state, one number and one month after the other. */
public final class SeparationOracle {
    private final Matrix matrix;
    private final SeparationContext context;

    public SeparationOracle(Matrix matrix, SeparationContext context) {
        this.matrix = matrix;
        this.context = context;
    }

    public Verdict verdict(int a, int b) {
        Set<Integer> groups = new HashSet<>();
        boolean usually = false;
        for (int c = 0; c < matrix.characterCount(); c++) {
            if (context.isUsable(c) && showsTogether(a, b, c) && exists(a, c) && exists(b, c)) {
                if (apart(a, b, c, false)) {
                    groups.add(matrix.character(c).group());
                }
                usually |= apart(a, b, c, true);
            }
        }
        return groups.size() > 1
                ? Verdict.FIRM
                : groups.size() == 1 ? Verdict.THIN : usually ? Verdict.TENDENCY : Verdict.NONE;
    }

    private boolean showsTogether(int a, int b, int c) {
        boolean together = context.months() == 0;
        for (int month = 0; month < 12; month++) {
            int bit = 1 << month;
            together |= (context.months() & bit) != 0
                    && (matrix.months(a, c) & bit) != 0
                    && (matrix.months(b, c) & bit) != 0;
        }
        return together;
    }

    private boolean exists(int row, int c) {
        for (ControllingCondition needed : matrix.character(c).appliesWhen()) {
            if (!(matrix.cell(row, needed.character()) instanceof Cell.Categorical shown)
                    || !exists(row, needed.character())) {
                return false;
            }
            for (int s = 0; s < 32; s++) {
                if ((shown.readable() & (1 << s)) != 0 && (needed.states() & (1 << s)) == 0) {
                    return false;
                }
            }
        }
        return true;
    }

    private boolean apart(int a, int b, int c, boolean usually) {
        if (matrix.cell(a, c) instanceof Cell.Categorical p && matrix.cell(b, c) instanceof Cell.Categorical q) {
            Set<Integer> both = new HashSet<>(usually ? typical(p) : readable(p));
            both.retainAll(usually ? typical(q) : readable(q));
            return both.isEmpty();
        }
        if (matrix.cell(a, c) instanceof Cell.Numeric p && matrix.cell(b, c) instanceof Cell.Numeric q) {
            double least = matrix.character(c).type() == CharacterType.COUNT
                    ? 0
                    : matrix.character(c).uncertainty();
            double[] one = usually ? new double[] {p.low(), p.high()} : expected(p);
            double[] other = usually ? new double[] {q.low(), q.high()} : expected(q);
            return other[0] - one[1] > least || one[0] - other[1] > least;
        }
        return false;
    }

    private static double[] expected(Cell.Numeric range) {
        double[] ends = {range.min(), range.max()};
        range.measured().filter(m -> m.individuals() < 40).ifPresent(m -> {
            Summary.Interval limits = Tolerance.of(m.individuals(), m.mean(), m.sd());
            ends[0] = Math.min(ends[0], limits.low());
            ends[1] = Math.max(ends[1], limits.high());
        });
        return ends;
    }

    private static Set<Integer> readable(Cell.Categorical cell) {
        Set<Integer> states = new HashSet<>();
        for (int s = 0; s < 32; s++) {
            if ((cell.readable() >>> s & 1) == 1) {
                states.add(s);
            }
        }
        return states;
    }

    private static Set<Integer> typical(Cell.Categorical cell) {
        List<Integer> byShare = new ArrayList<>();
        for (int s = 0; s < cell.shares().length; s++) {
            byShare.add(s);
        }
        byShare.sort((s, t) -> Double.compare(cell.shares()[t], cell.shares()[s]));
        Set<Integer> typical = new HashSet<>();
        double sum = 0;
        double last = 0;
        for (int s : byShare) {
            double share = cell.shares()[s];
            if (share > 0 && (sum < 0.75 - 1e-9 || share > last - 1e-9)) {
                typical.add(s);
                sum += share;
                last = share;
            }
        }
        return typical;
    }
}
