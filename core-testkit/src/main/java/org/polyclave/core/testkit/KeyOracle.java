package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;

/**
 * The least expected steps of any dichotomous key, by trying every key. Written from the definition alone: no memo, no
 * bound, no shared code with the builders. For matrices without unknown, inapplicable or dependent cells and with only
 * categorical characters; up to about six rows and four characters.
 */
public final class KeyOracle {
    private final Matrix matrix;

    /** One set of values per character: what the path has not excluded, as the list of atoms left. */
    private record Place(List<List<Integer>> atoms) {}

    public KeyOracle(Matrix matrix) {
        this.matrix = matrix;
    }

    /** Mean number of couplets over rows, all rows alike. */
    public double leastSteps() {
        List<List<Integer>> all = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            List<Integer> atoms = new ArrayList<>();
            for (int a = 0; a < matrix.character(c).stateCount(); a++) {
                atoms.add(a);
            }
            all.add(atoms);
        }
        return least(new Place(all)) / matrix.rowCount();
    }

    private double least(Place place) {
        List<Integer> rows = inPlay(place);
        if (isTerminal(place, rows)) {
            return 0;
        }
        double mass = 0;
        for (int row : rows) {
            mass += mass(row, place);
        }
        double best = Double.POSITIVE_INFINITY;
        for (int c = 0; c < matrix.characterCount(); c++) {
            List<Integer> seen = seen(place, rows, c);
            for (List<Integer> first : parts(seen)) {
                List<Integer> second = new ArrayList<>(seen);
                second.removeAll(first);
                Place a = narrowed(place, c, first);
                Place b = narrowed(place, c, second);
                boolean loses = inPlay(a).size() < rows.size() || inPlay(b).size() < rows.size();
                if (loses) {
                    best = Math.min(best, mass + least(a) + least(b));
                }
            }
        }
        return best;
    }

    private List<Integer> inPlay(Place place) {
        List<Integer> rows = new ArrayList<>();
        for (int row = 0; row < matrix.rowCount(); row++) {
            boolean in = true;
            for (int c = 0; c < matrix.characterCount(); c++) {
                in &= !left(row, c, place).isEmpty();
            }
            if (in) {
                rows.add(row);
            }
        }
        return rows;
    }

    private List<Integer> left(int row, int c, Place place) {
        List<Integer> left = new ArrayList<>();
        for (int atom : place.atoms().get(c)) {
            if (shows(cell(row, c), atom)) {
                left.add(atom);
            }
        }
        return left;
    }

    private Cell.Categorical cell(int row, int c) {
        return (Cell.Categorical) matrix.cell(row, c);
    }

    private static boolean shows(Cell.Categorical cell, int atom) {
        return (cell.readable() & (1 << atom)) != 0;
    }

    private double mass(int row, Place place) {
        double product = 1;
        for (int c = 0; c < matrix.characterCount(); c++) {
            double sum = 0;
            for (int atom : place.atoms().get(c)) {
                sum += cell(row, c).shares()[atom];
            }
            product *= sum;
        }
        return product;
    }

    private boolean isTerminal(Place place, List<Integer> rows) {
        for (int a : rows) {
            for (int b : rows) {
                for (int c = 0; a < b && c < matrix.characterCount(); c++) {
                    List<Integer> common = left(a, c, place);
                    common.retainAll(left(b, c, place));
                    if (common.isEmpty()) {
                        return false;
                    }
                }
            }
        }
        return true;
    }

    private List<Integer> seen(Place place, List<Integer> rows, int c) {
        List<Integer> seen = new ArrayList<>();
        for (int atom : place.atoms().get(c)) {
            boolean any = false;
            for (int row : rows) {
                any |= shows(cell(row, c), atom);
            }
            if (any) {
                seen.add(atom);
            }
        }
        return seen;
    }

    /** First halves of all bipartitions. */
    private static List<List<Integer>> parts(List<Integer> seen) {
        List<List<Integer>> parts = new ArrayList<>();
        for (int bits = 1; bits < (1 << seen.size()) - 1; bits += 2) {
            List<Integer> part = new ArrayList<>();
            for (int k = 0; k < seen.size(); k++) {
                if ((bits & (1 << k)) != 0) {
                    part.add(seen.get(k));
                }
            }
            parts.add(part);
        }
        return parts;
    }

    private static Place narrowed(Place place, int c, List<Integer> kept) {
        List<List<Integer>> atoms = new ArrayList<>(place.atoms());
        atoms.set(c, kept);
        return new Place(atoms);
    }
}
