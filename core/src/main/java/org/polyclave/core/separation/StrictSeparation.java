package org.polyclave.core.separation;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Controller;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/**
 * Which characters strictly separate two rows: both scored and surely applicable, and their readable supports disjoint.
 *
 * <p>Touching ranges do not separate, nor does a gap smaller than the reading uncertainty; unknown and not applicable
 * separate nothing. One pair takes time proportional to the number of characters.
 */
public final class StrictSeparation {
    private final Matrix matrix;
    private final boolean[][] comparable;

    public StrictSeparation(Matrix matrix) {
        this.matrix = matrix;
        comparable = new boolean[matrix.rowCount()][matrix.characterCount()];
        for (int i = 0; i < comparable.length; i++) {
            for (int c = 0; c < comparable[i].length; c++) {
                comparable[i][c] = isScored(i, c) && applies(i, c, matrix.characterCount());
            }
        }
    }

    private boolean isScored(int row, int character) {
        Cell cell = matrix.cell(row, character);
        return cell instanceof Cell.Categorical || cell instanceof Cell.Numeric;
    }

    private boolean applies(int row, int character, int depth) {
        for (Controller condition : matrix.character(character).appliesWhen()) {
            boolean met = matrix.cell(row, condition.character()) instanceof Cell.Categorical shown
                    && (shown.readable() & ~condition.states()) == 0;
            if (!met || (depth > 0 && !applies(row, condition.character(), depth - 1))) {
                return false;
            }
        }
        return true;
    }

    /** Whether {@code character} strictly separates rows {@code a} and {@code b}. */
    public boolean separates(int a, int b, int character) {
        if (!comparable[a][character] || !comparable[b][character]) {
            return false;
        }
        Cell first = matrix.cell(a, character);
        Cell second = matrix.cell(b, character);
        if (first instanceof Cell.Categorical p && second instanceof Cell.Categorical q) {
            return (p.readable() & q.readable()) == 0;
        }
        Cell.Numeric p = (Cell.Numeric) first;
        Cell.Numeric q = (Cell.Numeric) second;
        MatrixCharacter definition = matrix.character(character);
        double gap = Math.max(p.min(), q.min()) - Math.min(p.max(), q.max());
        return definition.type() == CharacterType.COUNT ? gap > 0 : gap > definition.uncertainty();
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
        return Verdict.of(groups(separating(a, b)));
    }

    /** Number of correlation groups among some characters. */
    public int groups(List<Integer> characters) {
        return (int) characters.stream()
                .map(c -> matrix.character(c).group())
                .distinct()
                .count();
    }

    /** How well two rows can be told apart. */
    public enum Verdict {
        NONE,
        THIN,
        FIRM;

        static Verdict of(int groups) {
            return groups == 0 ? NONE : groups == 1 ? THIN : FIRM;
        }
    }
}
