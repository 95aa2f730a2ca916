package org.polyclave.core.check;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.polyclave.core.check.Finding.Kind;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Controller;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/**
 * Looks for what may be slips in a matrix. Findings come in the order of kinds, rows and characters, the same for the same
 * matrix. Time O(rows · characters²), which the comparison of characters takes; memory O(rows · characters).
 */
public final class MatrixCheck {
    /** Share of unknown cells above which a row or character is told. */
    private static final double MOSTLY = 0.5;
    /** Fewer rows than these prove nothing about two characters. */
    private static final int ROWS_TO_IMPLY = 6;

    private static final int ROWS_TO_NEARLY_IMPLY = 12;
    /** One exception in so many rows is a likely slip; more are a looser bond. */
    private static final int ROWS_AN_EXCEPTION = 12;

    private final Matrix matrix;
    private final int rows;
    private final int characters;
    private final List<Finding> found = new ArrayList<>();

    private MatrixCheck(Matrix matrix) {
        this.matrix = matrix;
        rows = matrix.rowCount();
        characters = matrix.characterCount();
    }

    public static List<Finding> of(Matrix matrix) {
        MatrixCheck check = new MatrixCheck(matrix);
        for (int c = 0; c < check.characters; c++) {
            check.useOf(c);
        }
        check.sameRows();
        check.implications();
        for (int c = 0; c < check.characters; c++) {
            check.touching(c);
            check.applicability(c);
        }
        check.unknowns();
        List<Finding> ordered = check.found;
        ordered.sort((a, b) -> {
            int byKind = a.kind().compareTo(b.kind());
            int byRow = byKind != 0 ? byKind : Integer.compare(a.row(), b.row());
            return byRow != 0 ? byRow : Integer.compare(a.character(), b.character());
        });
        return List.copyOf(ordered);
    }

    /** States that nobody shows; characters that never vary or separate nothing. */
    private void useOf(int c) {
        MatrixCharacter character = matrix.character(c);
        int readable = 0;
        Set<Cell> different = new LinkedHashSet<>();
        Set<Integer> masks = new LinkedHashSet<>();
        double leastMax = Double.POSITIVE_INFINITY;
        double greatestMin = Double.NEGATIVE_INFINITY;
        int known = 0;
        for (int i = 0; i < rows; i++) {
            Cell cell = matrix.cell(i, c);
            if (cell instanceof Cell.Categorical shown) {
                readable |= shown.readable();
                masks.add(shown.readable());
            } else if (cell instanceof Cell.Numeric range) {
                leastMax = Math.min(leastMax, range.max());
                greatestMin = Math.max(greatestMin, range.min());
            }
            if (isScored(cell)) {
                known++;
                different.add(cell);
            }
        }
        if (known < 2) {
            return;
        }
        boolean hasStates = !character.type().isNumeric() && character.stateCount() != 12;
        for (int s = 0; hasStates && s < character.stateCount(); s++) {
            if ((readable & (1 << s)) == 0) {
                found.add(new Finding(Kind.UNUSED_STATE, -1, -1, c, -1, s, 0));
            }
        }
        if (different.size() == 1) {
            found.add(Finding.of(Kind.NEVER_VARIES, -1, c));
            return;
        }
        boolean apart = leastMax + character.margin() < greatestMin - character.margin();
        for (int a : masks) {
            for (int b : masks) {
                apart |= (a & b) == 0;
            }
        }
        if (!apart) {
            found.add(Finding.of(Kind.SEPARATES_NOTHING, -1, c));
        }
    }

    private static boolean isScored(Cell cell) {
        return cell instanceof Cell.Categorical || cell instanceof Cell.Numeric;
    }

    private void sameRows() {
        Map<List<Cell>, Integer> seen = new LinkedHashMap<>();
        for (int i = 0; i < rows; i++) {
            List<Cell> cells = new ArrayList<>();
            boolean scored = false;
            for (int c = 0; c < characters; c++) {
                cells.add(matrix.cell(i, c));
                scored |= isScored(matrix.cell(i, c));
            }
            Integer first = scored ? seen.putIfAbsent(cells, i) : null;
            // Sexes and stages of one taxon need not differ.
            if (first != null && matrix.row(first).target() != matrix.row(i).target()) {
                found.add(new Finding(Kind.SAME_ROWS, first, i, -1, -1, -1, 0));
            }
        }
    }

    /** Characters with one state a row, compared two by two. */
    private void implications() {
        int[][] states = new int[characters][];
        for (int c = 0; c < characters; c++) {
            states[c] = singleStates(c);
        }
        for (int c = 0; c < characters; c++) {
            for (int d = c + 1; d < characters; d++) {
                if (states[c].length > 0 && states[d].length > 0 && !dependent(c, d)) {
                    imply(c, states[c], d, states[d]);
                }
            }
        }
    }

    /** State of each row, -1 where it is unknown or shows several; empty for numbers. */
    private int[] singleStates(int c) {
        if (matrix.character(c).type().isNumeric()) {
            return new int[0];
        }
        int[] states = new int[rows];
        for (int i = 0; i < rows; i++) {
            boolean one =
                    matrix.cell(i, c) instanceof Cell.Categorical shown && Integer.bitCount(shown.readable()) == 1;
            states[i] = one ? Integer.numberOfTrailingZeros(((Cell.Categorical) matrix.cell(i, c)).readable()) : -1;
        }
        return states;
    }

    private boolean dependent(int c, int d) {
        return controls(c, d) || controls(d, c);
    }

    private boolean controls(int controller, int dependent) {
        for (Controller condition : matrix.character(dependent).appliesWhen()) {
            if (condition.character() == controller) {
                return true;
            }
        }
        return false;
    }

    private void imply(int c, int[] ofC, int d, int[] ofD) {
        int n = matrix.character(c).stateCount();
        int m = matrix.character(d).stateCount();
        int[][] together = new int[n][m];
        int known = 0;
        for (int i = 0; i < rows; i++) {
            if (ofC[i] >= 0 && ofD[i] >= 0) {
                together[ofC[i]][ofD[i]]++;
                known++;
            }
        }
        if (known < ROWS_TO_IMPLY) {
            return;
        }
        int[] partner = partners(together, n, m);
        if (partner.length == 0) {
            return;
        }
        int exceptions = known;
        for (int s = 0; s < n; s++) {
            exceptions -= partner[s] < 0 ? 0 : together[s][partner[s]];
        }
        if (exceptions == 0) {
            found.add(new Finding(Kind.IMPLIED, -1, -1, c, d, -1, known));
        } else if (known >= ROWS_TO_NEARLY_IMPLY && exceptions * ROWS_AN_EXCEPTION <= known) {
            for (int i = 0; i < rows; i++) {
                if (ofC[i] >= 0 && ofD[i] >= 0 && partner[ofC[i]] != ofD[i]) {
                    found.add(new Finding(Kind.NEARLY_IMPLIED, i, -1, c, d, ofC[i], known));
                }
            }
        }
    }

    /**
     * For each state of the first character the state of the second that mostly goes with it; empty if the two do not go
     * together one to one, with two rows at least in each pair and two pairs at least.
     */
    private static int[] partners(int[][] together, int n, int m) {
        int[] partner = new int[n];
        boolean[] taken = new boolean[m];
        int pairs = 0;
        for (int s = 0; s < n; s++) {
            int best = -1;
            int sum = 0;
            for (int t = 0; t < m; t++) {
                sum += together[s][t];
                if (together[s][t] > 0 && (best < 0 || together[s][t] > together[s][best])) {
                    best = t;
                }
            }
            partner[s] = best;
            if (sum == 0) {
                continue;
            }
            if (together[s][best] < 2 || taken[best]) {
                return new int[0];
            }
            taken[best] = true;
            pairs++;
        }
        return pairs < 2 ? new int[0] : partner;
    }

    /** Ranges of different taxa of which one ends where the other begins. */
    private void touching(int c) {
        Map<Double, Integer> endsAt = new LinkedHashMap<>();
        Map<Double, Integer> ends = new LinkedHashMap<>();
        for (int i = 0; i < rows; i++) {
            if (matrix.cell(i, c) instanceof Cell.Numeric range && range.min() < range.max()) {
                endsAt.putIfAbsent(range.max(), i);
                ends.merge(range.max(), 1, Integer::sum);
            }
        }
        int first = -1;
        int other = -1;
        int pairs = 0;
        for (int i = 0; i < rows; i++) {
            if (matrix.cell(i, c) instanceof Cell.Numeric range && range.min() < range.max()) {
                int below = endsAt.getOrDefault(range.min(), -1);
                if (below >= 0 && matrix.row(below).target() != matrix.row(i).target()) {
                    pairs += ends.getOrDefault(range.min(), 0);
                    other = first < 0 ? i : other;
                    first = first < 0 ? below : first;
                }
            }
        }
        if (pairs > 0) {
            found.add(new Finding(Kind.RANGES_TOUCH, first, other, c, -1, -1, pairs));
        }
    }

    private void applicability(int c) {
        List<Controller> conditions = matrix.character(c).appliesWhen();
        for (int i = 0; i < rows && !conditions.isEmpty(); i++) {
            boolean met = true;
            boolean unmet = false;
            for (Controller condition : conditions) {
                if (matrix.cell(i, condition.character()) instanceof Cell.Categorical shown) {
                    met &= (shown.readable() & ~condition.states()) == 0;
                    unmet |= (shown.readable() & condition.states()) == 0;
                } else {
                    met = false;
                }
            }
            Cell cell = matrix.cell(i, c);
            if (met && cell instanceof Cell.NotApplicable) {
                found.add(Finding.of(Kind.NOT_APPLICABLE_BUT_APPLIES, i, c));
            } else if (unmet && isScored(cell)) {
                found.add(Finding.of(Kind.SCORED_BUT_NOT_APPLICABLE, i, c));
            }
        }
    }

    private void unknowns() {
        int[] ofRow = new int[rows];
        int[] ofCharacter = new int[characters];
        for (int i = 0; i < rows; i++) {
            for (int c = 0; c < characters; c++) {
                if (matrix.cell(i, c) instanceof Cell.Unknown) {
                    ofRow[i]++;
                    ofCharacter[c]++;
                }
            }
        }
        for (int i = 0; i < rows; i++) {
            if (ofRow[i] > MOSTLY * characters) {
                double share = (double) ofRow[i] / characters;
                found.add(new Finding(Kind.UNKNOWN_ROW, i, -1, -1, -1, -1, share));
            }
        }
        for (int c = 0; c < characters; c++) {
            if (ofCharacter[c] > MOSTLY * rows) {
                double share = (double) ofCharacter[c] / rows;
                found.add(new Finding(Kind.UNKNOWN_CHARACTER, -1, -1, c, -1, -1, share));
            }
        }
    }
}
