package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.List;
import java.util.SortedSet;
import java.util.TreeSet;
import org.polyclave.core.key.Atoms.Interval;
import org.polyclave.core.key.Atoms.States;
import org.polyclave.core.key.Key.Couplet;
import org.polyclave.core.key.Key.Lead;
import org.polyclave.core.key.Key.Statement;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Controller;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/** What the specimens of one class may still show, one set a character; narrowed and restored along a path. */
final class SupportBox {
    /** A set as it was before narrowing. */
    record Saved(int character, Atoms atoms) {}

    private final Matrix matrix;
    private final Atoms[] atoms;
    private final boolean[] inapplicable;

    SupportBox(Matrix matrix, SpecimenClasses.SpecimenClass specimens) {
        this.matrix = matrix;
        int n = matrix.characterCount();
        atoms = new Atoms[n];
        inapplicable = new boolean[n];
        for (int c = 0; c < n; c++) {
            inapplicable[c] = specimens.cells()[c] instanceof Cell.NotApplicable;
            atoms[c] = support(matrix.character(c), specimens.cells()[c]);
        }
        for (Controller restriction : specimens.readable()) {
            States shown = (States) atoms[restriction.character()];
            atoms[restriction.character()] = new States(shown.mask() & restriction.states());
        }
    }

    private static Atoms support(MatrixCharacter character, Cell cell) {
        if (cell instanceof Cell.Categorical shown) {
            return new States(shown.readable());
        }
        if (cell instanceof Cell.Numeric range) {
            double half = character.margin();
            return Interval.closed(range.min() - half, range.max() + half);
        }
        return character.type().isNumeric() ? Interval.ALL : new States(character.allStates());
    }

    boolean isInapplicable(int character) {
        return inapplicable[character];
    }

    Atoms atoms(int character) {
        return atoms[character];
    }

    /** Keeps what agrees with the statement; false when nothing is left. */
    boolean narrow(Statement statement, List<Saved> saved) {
        int c = statement.character();
        Atoms before = atoms[c];
        if (before instanceof States shown && statement.atoms() instanceof States wanted) {
            saved.add(new Saved(c, before));
            int both = shown.mask() & wanted.mask();
            atoms[c] = new States(both);
            return both != 0;
        }
        if (before instanceof Interval shown && statement.atoms() instanceof Interval wanted) {
            saved.add(new Saved(c, before));
            Interval both = shown.and(wanted);
            atoms[c] = both;
            return !both.isEmpty(isWhole(c));
        }
        return false;
    }

    void restore(List<Saved> saved) {
        for (int i = saved.size() - 1; i >= 0; i--) {
            atoms[saved.get(i).character()] = saved.get(i).atoms();
        }
    }

    private boolean isWhole(int character) {
        return matrix.character(character).type() == CharacterType.COUNT;
    }

    /**
     * The present set of a character, cut so finely that no lead's limit passes through a piece. An inapplicable character
     * shows nothing: its whole set is one piece, which agrees with every lead that leaves anything of it.
     */
    List<Atoms> observations(int character, Couplet couplet) {
        if (inapplicable[character]) {
            return List.of(atoms[character]);
        }
        List<Atoms> pieces = new ArrayList<>();
        if (atoms[character] instanceof States shown) {
            for (int bits = shown.mask(); bits != 0; bits &= bits - 1) {
                pieces.add(new States(Integer.lowestOneBit(bits)));
            }
            return pieces;
        }
        Interval range = (Interval) atoms[character];
        double from = Double.NEGATIVE_INFINITY;
        for (double limit : limits(character, couplet)) {
            addPiece(pieces, range, new Interval(from, limit, true, true), character);
            addPiece(pieces, range, Interval.closed(limit, limit), character);
            from = limit;
        }
        addPiece(pieces, range, new Interval(from, Double.POSITIVE_INFINITY, true, false), character);
        return pieces;
    }

    private void addPiece(List<Atoms> pieces, Interval range, Interval piece, int character) {
        Interval both = range.and(piece);
        if (!both.isEmpty(isWhole(character))) {
            pieces.add(both);
        }
    }

    private static SortedSet<Double> limits(int character, Couplet couplet) {
        SortedSet<Double> limits = new TreeSet<>();
        for (Lead lead : couplet.leads()) {
            for (Statement statement : lead.statements()) {
                if (statement.character() == character && statement.atoms() instanceof Interval interval) {
                    addFinite(limits, interval.min());
                    addFinite(limits, interval.max());
                }
            }
        }
        return limits;
    }

    private static void addFinite(SortedSet<Double> limits, double limit) {
        if (Double.isFinite(limit)) {
            limits.add(limit);
        }
    }

    /** Whether a piece made by {@link #observations} agrees with a statement. */
    static boolean meets(Atoms piece, Atoms wanted) {
        if (piece instanceof States shown) {
            return wanted instanceof States states && (shown.mask() & states.mask()) != 0;
        }
        Interval range = (Interval) piece;
        return wanted instanceof Interval interval && !range.and(interval).isEmpty(false);
    }
}
