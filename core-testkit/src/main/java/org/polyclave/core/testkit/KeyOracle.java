package org.polyclave.core.testkit;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;

/**
 * The least expected steps of any key whose couplets have so many leads at most, by trying every key. Written from the definition alone: no memo, no
 * bound, no shared code with the builders. For matrices without unknown, inapplicable or dependent cells and with only
 * categorical characters; up to about six rows and four characters.
 */
public final class KeyOracle {
    private final Matrix matrix;

    /** One set of values per character: what the path has not excluded, as the list of atoms left. */
    private record Place(List<List<Integer>> atoms) {}

    private final int mostLeads;

    public KeyOracle(Matrix matrix, int mostLeads) {
        this.matrix = matrix;
        this.mostLeads = mostLeads;
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
            for (List<List<Integer>> leads : partitions(seen)) {
                boolean loses = false;
                double sum = mass;
                for (List<Integer> lead : leads) {
                    Place next = narrowed(place, c, lead);
                    loses |= inPlay(next).size() < rows.size();
                }
                // Of places that are as large as this one there is no end.
                for (int l = 0; loses && l < leads.size(); l++) {
                    sum += least(narrowed(place, c, leads.get(l)));
                }
                best = loses ? Math.min(best, sum) : best;
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

    /** All ways to share these out to two leads or more. */
    private List<List<List<Integer>>> partitions(List<Integer> seen) {
        List<List<List<Integer>>> found = new ArrayList<>();
        share(seen, 0, List.of(), found);
        return found;
    }

    private void share(List<Integer> seen, int next, List<List<Integer>> leads, List<List<List<Integer>>> found) {
        if (next == seen.size()) {
            if (leads.size() > 1) {
                found.add(leads);
            }
            return;
        }
        for (int l = 0; l <= leads.size() && l < mostLeads; l++) {
            List<List<Integer>> more = new ArrayList<>();
            leads.forEach(lead -> more.add(new ArrayList<>(lead)));
            if (l == leads.size()) {
                more.add(new ArrayList<>());
            }
            more.get(l).add(seen.get(next));
            share(seen, next + 1, more, found);
        }
    }

    private static Place narrowed(Place place, int c, List<Integer> kept) {
        List<List<Integer>> atoms = new ArrayList<>(place.atoms());
        atoms.set(c, kept);
        return new Place(atoms);
    }
}
