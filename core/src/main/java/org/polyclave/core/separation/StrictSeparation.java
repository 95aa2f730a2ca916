package org.polyclave.core.separation;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;

/**
 * What tells two rows apart, pair by pair.
 *
 * <p>A character separates them <em>strictly</em> if both are scored for it, it surely applies to both, both show it in a month
 * of the context, and their readable supports are disjoint. Touching ranges do not separate, nor does a gap smaller than the
 * reading uncertainty; unknown and not applicable separate nothing. A range that was measured on fewer than
 * {@value org.polyclave.core.statistics.Tolerance#ENOUGH} individuals reaches as far as others may be expected
 * ({@link org.polyclave.core.statistics.Tolerance}); if it is only the recorded ranges that are disjoint, the rows are apart
 * <em>so far</em>. A <em>tendency</em> is what each usually shows: disjoint typical states, or disjoint usual ranges. One pair
 * takes time proportional to the number of characters.
 */
public final class StrictSeparation {
    private final Matrix matrix;
    private final SeparationContext context;
    private final boolean[] always;
    private final boolean[][] applicable;

    public StrictSeparation(Matrix matrix) {
        this(matrix, SeparationContext.EVERYTHING);
    }

    public StrictSeparation(Matrix matrix, SeparationContext context) {
        this.matrix = matrix;
        this.context = context;
        always = always(matrix);
        applicable = new boolean[matrix.rowCount()][];
        for (int i = 0; i < applicable.length; i++) {
            applicable[i] = applicable(i);
        }
    }

    private StrictSeparation(Matrix matrix, SeparationContext context, boolean[][] applicable) {
        this.matrix = matrix;
        this.context = context;
        this.always = always(matrix);
        this.applicable = applicable;
    }

    /** The same for a matrix in which only cells of one row are others. */
    StrictSeparation withRow(Matrix changed, int row) {
        StrictSeparation other = new StrictSeparation(changed, context, applicable.clone());
        other.applicable[row] = other.applicable(row);
        return other;
    }

    private boolean[] applicable(int row) {
        boolean[] all = always.clone();
        for (int c = 0; c < all.length; c++) {
            all[c] = all[c] || applies(row, c, matrix.characterCount());
        }
        return all;
    }

    /** Characters that exist on every row. */
    private static boolean[] always(Matrix matrix) {
        boolean[] always = new boolean[matrix.characterCount()];
        for (int c = 0; c < always.length; c++) {
            always[c] = matrix.character(c).appliesWhen().isEmpty();
        }
        return always;
    }

    private boolean applies(int row, int character, int depth) {
        for (ControllingCondition condition : matrix.character(character).appliesWhen()) {
            boolean met = matrix.cell(row, condition.character()) instanceof Cell.Categorical shown
                    && (shown.readable() & ~condition.states()) == 0;
            if (!met || (depth > 0 && !applies(row, condition.character(), depth - 1))) {
                return false;
            }
        }
        return true;
    }

    /** Whether a character surely applies to a row. */
    boolean isApplicable(int row, int character) {
        return applicable[row][character];
    }

    /** Whether a row is scored for a character that surely applies to it. */
    boolean isComparable(int row, int character) {
        Cell cell = matrix.cell(row, character);
        return applicable[row][character] && (cell instanceof Cell.Categorical || cell instanceof Cell.Numeric);
    }

    /** Whether the rows can be compared in a character now. */
    boolean isSeen(int a, int b, int character) {
        return context.isUsable(character)
                && isComparable(a, character)
                && isComparable(b, character)
                && (context.monthsOf(matrix.months(a, character)) & context.monthsOf(matrix.months(b, character))) != 0;
    }

    /** How {@code character} stands between rows {@code a} and {@code b}. */
    public Difference difference(int a, int b, int character) {
        Cell first = matrix.cell(a, character);
        Cell second = matrix.cell(b, character);
        if (first instanceof Cell.NotApplicable
                || second instanceof Cell.NotApplicable
                || !applicable[a][character]
                || !applicable[b][character]) {
            return Difference.NOT_APPLICABLE;
        }
        if (first instanceof Cell.Unknown || second instanceof Cell.Unknown) {
            return Difference.UNKNOWN;
        }
        int together = context.monthsOf(matrix.months(a, character)) & context.monthsOf(matrix.months(b, character));
        if (!context.isUsable(character) || together == 0) {
            return Difference.OUT_OF_CONTEXT;
        }
        Difference found = difference(first, second, character);
        boolean apart = found == Difference.STRICT || found == Difference.SO_FAR;
        return apart && !matrix.character(character).role().decides() ? Difference.CONFIRMS : found;
    }

    private Difference difference(Cell first, Cell second, int character) {
        if (first instanceof Cell.Categorical p && second instanceof Cell.Categorical q) {
            return (p.readable() & q.readable()) == 0
                    ? Difference.STRICT
                    : (Typical.states(p) & Typical.states(q)) == 0 ? Difference.TENDENCY : Difference.SHARED;
        }
        return difference(
                (Cell.Numeric) first,
                (Cell.Numeric) second,
                matrix.character(character).gap());
    }

    private static Difference difference(Cell.Numeric p, Cell.Numeric q, double gap) {
        if (Math.max(p.low(), q.low()) - Math.min(p.high(), q.high()) <= gap) {
            return Difference.SHARED;
        }
        if (Math.max(p.min(), q.min()) - Math.min(p.max(), q.max()) <= gap) {
            return Difference.TENDENCY;
        }
        ToleranceExtent a = ToleranceExtent.of(p);
        ToleranceExtent b = ToleranceExtent.of(q);
        boolean apart = Math.max(a.least(), b.least()) - Math.min(a.most(), b.most()) > gap;
        return apart ? Difference.STRICT : Difference.SO_FAR;
    }

    /** Whether {@code character} strictly separates rows {@code a} and {@code b}. */
    public boolean separates(int a, int b, int character) {
        return difference(a, b, character).separates();
    }

    /** Whether any character strictly separates the rows. */
    public boolean separates(int a, int b) {
        for (int c = 0; c < matrix.characterCount(); c++) {
            if (separates(a, b, c)) {
                return true;
            }
        }
        return false;
    }

    /** Every character that strictly separates the rows, in order. */
    public List<Integer> separating(int a, int b) {
        List<Integer> found = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            if (separates(a, b, c)) {
                found.add(c);
            }
        }
        return found;
    }

    /** How well the rows are told apart: by the number of independent correlation groups among what separates them. */
    public Verdict verdict(int a, int b) {
        int group = 0;
        boolean thin = false;
        boolean tends = false;
        for (int c = 0; c < matrix.characterCount(); c++) {
            Difference difference = difference(a, b, c);
            if (difference.separates()) {
                if (thin && matrix.character(c).group() != group) {
                    return Verdict.FIRM;
                }
                thin = true;
                group = matrix.character(c).group();
            }
            tends |= difference.tends();
        }
        return thin ? Verdict.THIN : tends ? Verdict.TENDENCY : Verdict.NONE;
    }

    /** Number of correlation groups among some characters. */
    public int groups(List<Integer> characters) {
        return (int) characters.stream()
                .map(c -> matrix.character(c).group())
                .distinct()
                .count();
    }
}
