package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Controller;
import org.polyclave.core.matrix.Matrix;

/**
 * The rows of a matrix, divided into classes of specimens for which every character surely applies or surely does not.
 *
 * <p>A row whose controlling character varies ("ligule present, rarely absent") has specimens with the dependent
 * characters and specimens without. Each combination becomes a class with a definite list of cells, so that splitting,
 * stopping and proof need no rule for dependencies beyond: an inapplicable character tells nothing and goes down every
 * lead. A row with k varying controllers has up to 2^k classes.
 */
final class SpecimenClasses {
    /** Beyond this many classes for one row the remaining conditions count as not surely met. */
    static final int MAX_CLASSES_PER_ROW = 64;

    /**
     * @param row the row the specimens belong to
     * @param readable restriction of the controllers, as (character, states) pairs
     * @param cells one cell a character, with {@link Cell#NOT_APPLICABLE} where it does not apply
     */
    record SpecimenClass(int row, List<Controller> readable, Cell[] cells) {}

    private final Matrix matrix;
    private final List<SpecimenClass> classes = new ArrayList<>();

    private SpecimenClasses(Matrix matrix) {
        this.matrix = matrix;
    }

    static List<SpecimenClass> of(Matrix matrix) {
        SpecimenClasses builder = new SpecimenClasses(matrix);
        for (int i = 0; i < matrix.rowCount(); i++) {
            builder.divide(i);
        }
        return builder.classes;
    }

    private void divide(int row) {
        List<List<Controller>> variants = new ArrayList<>();
        variants.add(List.of());
        for (Controller condition : conditionsThatVary(row)) {
            if (variants.size() * 2 > MAX_CLASSES_PER_ROW) {
                break;
            }
            variants = cross(row, variants, condition);
        }
        for (List<Controller> variant : variants) {
            classes.add(new SpecimenClass(row, variant, cellsOf(row, variant)));
        }
    }

    private List<Controller> conditionsThatVary(int row) {
        List<Controller> varying = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            if (matrix.cell(row, c) instanceof Cell.NotApplicable) {
                continue;
            }
            for (Controller condition : matrix.character(c).appliesWhen()) {
                int shown = readable(row, condition.character());
                boolean varies = (shown & condition.states()) != 0 && (shown & ~condition.states()) != 0;
                if (varies && !varying.contains(condition)) {
                    varying.add(condition);
                }
            }
        }
        return varying;
    }

    /** Splits every variant into specimens that meet the condition and specimens that do not. */
    private List<List<Controller>> cross(int row, List<List<Controller>> variants, Controller condition) {
        List<List<Controller>> crossed = new ArrayList<>();
        for (List<Controller> variant : variants) {
            int shown = restricted(row, condition.character(), variant);
            for (int states : new int[] {shown & condition.states(), shown & ~condition.states()}) {
                if (states != 0) {
                    List<Controller> narrowed = new ArrayList<>(variant);
                    narrowed.add(new Controller(condition.character(), states));
                    crossed.add(List.copyOf(narrowed));
                }
            }
        }
        return crossed;
    }

    private int readable(int row, int character) {
        return matrix.cell(row, character) instanceof Cell.Categorical shown
                ? shown.readable()
                : matrix.character(character).allStates();
    }

    private int restricted(int row, int character, List<Controller> variant) {
        int states = readable(row, character);
        for (Controller restriction : variant) {
            if (restriction.character() == character) {
                states &= restriction.states();
            }
        }
        return states;
    }

    private Cell[] cellsOf(int row, List<Controller> variant) {
        Cell[] cells = new Cell[matrix.characterCount()];
        for (int c = 0; c < cells.length; c++) {
            cells[c] = applies(row, c, variant, matrix.characterCount()) ? matrix.cell(row, c) : Cell.NOT_APPLICABLE;
        }
        return cells;
    }

    private boolean applies(int row, int character, List<Controller> variant, int depth) {
        if (matrix.cell(row, character) instanceof Cell.NotApplicable) {
            return false;
        }
        for (Controller condition : matrix.character(character).appliesWhen()) {
            boolean met = (restricted(row, condition.character(), variant) & ~condition.states()) == 0;
            if (!met || (depth > 0 && !applies(row, condition.character(), variant, depth - 1))) {
                return false;
            }
        }
        return true;
    }
}
