package org.polyclave.core.check;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.polyclave.core.check.Finding.Kind;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/**
 * Looks for what may be slips in a matrix. Findings come in the order of kinds, rows and characters, the same for the same
 * matrix. They are kept by what they are about, so that after a change only the changed characters are looked at again.
 *
 * <p>Time O(rows · characters²) for a whole matrix, which the comparison of characters takes, and O(rows · characters) for
 * one changed character; memory O(rows · characters).
 */
public final class MatrixCheck {
    /** Share of unknown cells above which a row or character is told. */
    private static final double MOSTLY = 0.5;
    /** Fewer rows than these prove nothing about two characters. */
    private static final int ROWS_TO_IMPLY = 6;

    private static final int ROWS_TO_NEARLY_IMPLY = 12;
    /** One exception in so many rows is a likely slip; more are a looser bond. */
    private static final int ROWS_AN_EXCEPTION = 12;

    private static final Comparator<Finding> ORDER =
            Comparator.comparing(Finding::kind).thenComparingInt(Finding::row).thenComparingInt(Finding::character);

    private final Matrix matrix;
    private final int rows;
    private final int characters;
    /** What is found in one character, by character. */
    private final List<List<Finding>> ofCharacter;
    /** What is found between two characters, by the earlier one, then by the later one; pairs without findings are not in it. */
    private final List<SortedMap<Integer, List<Finding>>> ofPair;
    /** State of each row by character, -1 where it is unknown or shows several; empty for numbers. */
    private final int[][] single;
    /** Sums over the cells of each row, alike for rows that are alike. */
    private final int[] prints;

    private MatrixCheck(
            Matrix matrix,
            List<List<Finding>> ofCharacter,
            List<SortedMap<Integer, List<Finding>>> ofPair,
            int[][] single,
            int[] prints) {
        this.matrix = matrix;
        rows = matrix.rowCount();
        characters = matrix.characterCount();
        this.ofCharacter = ofCharacter;
        this.ofPair = ofPair;
        this.single = single;
        this.prints = prints;
    }

    public static MatrixCheck of(Matrix matrix) {
        int n = matrix.characterCount();
        MatrixCheck check = new MatrixCheck(
                matrix,
                new ArrayList<>(Collections.nCopies(n, List.of())),
                new ArrayList<>(Collections.nCopies(n, Collections.emptySortedMap())),
                new int[n][],
                new int[matrix.rowCount()]);
        for (int c = 0; c < n; c++) {
            check.single[c] = check.singleStates(c);
            check.addToPrints(c, 1);
        }
        for (int c = 0; c < n; c++) {
            check.lookAt(c);
            for (int d = c + 1; d < n; d++) {
                check.compare(c, d);
            }
        }
        return check;
    }

    /**
     * The check of a matrix of which only some characters were scored again. This one stays as it is.
     *
     * @param changed the same rows and characters with other cells
     * @param scored indexes of the characters whose cells differ
     */
    public MatrixCheck after(Matrix changed, Set<Integer> scored) {
        MatrixCheck check = new MatrixCheck(
                changed, new ArrayList<>(ofCharacter), new ArrayList<>(ofPair), single.clone(), prints.clone());
        for (int c : scored) {
            addToPrints(c, -1, check.prints);
            check.addToPrints(c, 1);
            check.single[c] = check.singleStates(c);
        }
        for (int c = 0; c < characters; c++) {
            if (scored.contains(c) || dependsOnAny(c, scored)) {
                check.lookAt(c);
            }
        }
        for (int c : scored) {
            for (int d = 0; d < characters; d++) {
                if (d != c && (d > c || !scored.contains(d))) {
                    check.compare(Math.min(c, d), Math.max(c, d));
                }
            }
        }
        return check;
    }

    /** All findings. */
    public List<Finding> findings() {
        List<Finding> all = new ArrayList<>();
        ofCharacter.forEach(all::addAll);
        ofPair.forEach(pairs -> pairs.values().forEach(all::addAll));
        sameRows(all);
        unknownRows(all);
        all.sort(ORDER);
        return List.copyOf(all);
    }

    private boolean dependsOnAny(int c, Set<Integer> scored) {
        return matrix.character(c).appliesWhen().stream().anyMatch(when -> scored.contains(when.character()));
    }

    private void lookAt(int c) {
        List<Finding> found = new ArrayList<>();
        use(c, found);
        touching(c, found);
        applicability(c, found);
        unknown(c, found);
        ofCharacter.set(c, List.copyOf(found));
    }

    /** Compares two characters, the earlier first. */
    private void compare(int c, int d) {
        List<Finding> found = new ArrayList<>();
        if (single[c].length > 0 && single[d].length > 0 && !dependent(c, d)) {
            imply(c, d, found);
        }
        if (found.isEmpty() && !ofPair.get(c).containsKey(d)) {
            return;
        }
        SortedMap<Integer, List<Finding>> pairs = new TreeMap<>(ofPair.get(c));
        pairs.remove(d);
        if (!found.isEmpty()) {
            pairs.put(d, List.copyOf(found));
        }
        ofPair.set(c, pairs);
    }

    private void addToPrints(int c, int times) {
        addToPrints(c, times, prints);
    }

    private void addToPrints(int c, int times, int[] sums) {
        for (int i = 0; i < rows; i++) {
            // An odd factor for each character, so that the same cell under another character counts otherwise.
            sums[i] += times * (2 * c + 0x9E3779B1) * matrix.cell(i, c).hashCode();
        }
    }

    /** States that no row shows; characters that never vary or separate nothing. */
    private void use(int c, List<Finding> found) {
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
        boolean apart = character.greatest(leastMax) < character.least(greatestMin);
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

    private void sameRows(List<Finding> found) {
        Map<Integer, List<Integer>> seen = new HashMap<>();
        for (int i = 0; i < rows; i++) {
            List<Integer> alike = seen.computeIfAbsent(prints[i], p -> new ArrayList<>());
            int first = firstLike(i, alike);
            if (first < 0) {
                alike.add(i);
            } else if (matrix.row(first).name() != matrix.row(i).name()) {
                // Sexes and stages of one taxon need not differ.
                found.add(new Finding(Kind.SAME_ROWS, first, i, -1, -1, -1, 0));
            }
        }
    }

    /** The first of some rows that is scored alike throughout; -1 if none is. */
    private int firstLike(int row, List<Integer> others) {
        for (int other : others) {
            boolean same = true;
            boolean scored = false;
            for (int c = 0; same && c < characters; c++) {
                same = matrix.cell(row, c).equals(matrix.cell(other, c));
                scored |= isScored(matrix.cell(row, c));
            }
            if (same && scored) {
                return other;
            }
        }
        return -1;
    }

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
        for (ControllingCondition condition : matrix.character(dependent).appliesWhen()) {
            if (condition.character() == controller) {
                return true;
            }
        }
        return false;
    }

    private void imply(int c, int d, List<Finding> found) {
        int[] ofC = single[c];
        int[] ofD = single[d];
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
    private void touching(int c, List<Finding> found) {
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
                if (below >= 0 && matrix.row(below).name() != matrix.row(i).name()) {
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

    private void applicability(int c, List<Finding> found) {
        List<ControllingCondition> conditions = matrix.character(c).appliesWhen();
        for (int i = 0; i < rows && !conditions.isEmpty(); i++) {
            boolean met = true;
            boolean unmet = false;
            for (ControllingCondition condition : conditions) {
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

    private void unknown(int c, List<Finding> found) {
        int unknown = 0;
        for (int i = 0; i < rows; i++) {
            unknown += matrix.cell(i, c) instanceof Cell.Unknown ? 1 : 0;
        }
        if (unknown > MOSTLY * rows) {
            found.add(new Finding(Kind.UNKNOWN_CHARACTER, -1, -1, c, -1, -1, (double) unknown / rows));
        }
    }

    private void unknownRows(List<Finding> found) {
        for (int i = 0; i < rows; i++) {
            int unknown = 0;
            for (int c = 0; c < characters; c++) {
                unknown += matrix.cell(i, c) instanceof Cell.Unknown ? 1 : 0;
            }
            if (unknown > MOSTLY * characters) {
                found.add(new Finding(Kind.UNKNOWN_ROW, i, -1, -1, -1, -1, (double) unknown / characters));
            }
        }
    }
}
