package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;

/**
 * The rows of a matrix, divided into classes of specimens for which every character surely applies or surely does not.
 *
 * <p>A row whose controlling character varies ("ligule present, rarely absent") has specimens with the dependent
 * characters and specimens without. Controllers are taken in order, each after those it depends on itself: where one
 * applies, its states are divided into blocks that meet the same conditions, and each block makes a class; where it does
 * not apply there is nothing to divide. So splitting and stopping need no rule for dependencies beyond: an inapplicable
 * character tells nothing and goes down every lead. The classes of a row are at most the product of the blocks.
 */
final class SpecimenClasses {
    /** Beyond this many classes for one row the remaining conditions count as not surely met. */
    static final int MAX_CLASSES_PER_ROW = 512;

    /**
     * @param row the row the specimens belong to
     * @param readable what is left of the controllers that vary, as (character, states) pairs, one a character
     * @param cells one cell a character, with {@link Cell#NOT_APPLICABLE} where it does not apply
     */
    record SpecimenClass(int row, List<ControllingCondition> readable, Cell[] cells) {}

    private final Matrix matrix;
    private final List<Integer> controllers;
    private final List<SpecimenClass> classes = new ArrayList<>();
    private boolean complete = true;

    private SpecimenClasses(Matrix matrix) {
        this.matrix = matrix;
        controllers = controllersInOrder(matrix);
        for (int i = 0; i < matrix.rowCount(); i++) {
            divide(i);
        }
    }

    static SpecimenClasses of(Matrix matrix) {
        return new SpecimenClasses(matrix);
    }

    List<SpecimenClass> classes() {
        return classes;
    }

    /** False if a row has more classes than are told apart here. */
    boolean complete() {
        return complete;
    }

    /** Every character on which another depends, after those on which it depends itself. */
    private static List<Integer> controllersInOrder(Matrix matrix) {
        List<Integer> order = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            for (ControllingCondition condition : matrix.character(c).appliesWhen()) {
                addAfterItsOwn(matrix, condition.character(), order);
            }
        }
        return order;
    }

    private static void addAfterItsOwn(Matrix matrix, int controller, List<Integer> order) {
        if (!order.contains(controller)) {
            for (ControllingCondition condition : matrix.character(controller).appliesWhen()) {
                addAfterItsOwn(matrix, condition.character(), order);
            }
            order.add(controller);
        }
    }

    private void divide(int row) {
        List<List<ControllingCondition>> variants = new ArrayList<>();
        variants.add(List.of());
        for (int controller : controllers) {
            List<List<ControllingCondition>> divided = new ArrayList<>();
            for (List<ControllingCondition> variant : variants) {
                divided.addAll(divided(row, controller, variant));
            }
            if (divided.size() > MAX_CLASSES_PER_ROW) {
                complete = false;
                break;
            }
            variants = divided;
        }
        for (List<ControllingCondition> variant : variants) {
            classes.add(new SpecimenClass(row, variant, cellsOf(row, variant)));
        }
    }

    /** A variant once for every block of states of a controller; as it is where there is one block, or none. */
    private List<List<ControllingCondition>> divided(int row, int controller, List<ControllingCondition> variant) {
        if (!applies(row, controller, variant)) {
            return List.of(variant);
        }
        Map<List<Boolean>, Integer> blocks = new LinkedHashMap<>();
        for (int bits = readable(row, controller); bits != 0; bits &= bits - 1) {
            int state = Integer.lowestOneBit(bits);
            blocks.merge(conditionsMet(row, controller, state), state, (a, b) -> a | b);
        }
        if (blocks.size() < 2) {
            return List.of(variant);
        }
        List<List<ControllingCondition>> divided = new ArrayList<>();
        for (int states : blocks.values()) {
            List<ControllingCondition> narrowed = new ArrayList<>(variant);
            narrowed.add(new ControllingCondition(controller, states));
            divided.add(List.copyOf(narrowed));
        }
        return divided;
    }

    private List<Boolean> conditionsMet(int row, int controller, int state) {
        List<Boolean> met = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            for (ControllingCondition condition : matrix.character(c).appliesWhen()) {
                if (condition.character() == controller && !(matrix.cell(row, c) instanceof Cell.NotApplicable)) {
                    met.add((condition.states() & state) != 0);
                }
            }
        }
        return met;
    }

    private int readable(int row, int character) {
        return matrix.cell(row, character) instanceof Cell.Categorical shown
                ? shown.readable()
                : matrix.character(character).allStates();
    }

    private int restricted(int row, int character, List<ControllingCondition> variant) {
        for (ControllingCondition restriction : variant) {
            if (restriction.character() == character) {
                return restriction.states();
            }
        }
        return readable(row, character);
    }

    private Cell[] cellsOf(int row, List<ControllingCondition> variant) {
        Cell[] cells = new Cell[matrix.characterCount()];
        for (int c = 0; c < cells.length; c++) {
            cells[c] = applies(row, c, variant) ? matrix.cell(row, c) : Cell.NOT_APPLICABLE;
        }
        return cells;
    }

    private boolean applies(int row, int character, List<ControllingCondition> variant) {
        if (matrix.cell(row, character) instanceof Cell.NotApplicable) {
            return false;
        }
        for (ControllingCondition condition : matrix.character(character).appliesWhen()) {
            int shown = restricted(row, condition.character(), variant);
            if ((shown & ~condition.states()) != 0 || !applies(row, condition.character(), variant)) {
                return false;
            }
        }
        return true;
    }
}
