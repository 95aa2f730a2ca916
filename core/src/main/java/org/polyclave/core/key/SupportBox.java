package org.polyclave.core.key;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SortedSet;
import java.util.TreeSet;
import org.polyclave.core.key.Atoms.Interval;
import org.polyclave.core.key.Atoms.States;
import org.polyclave.core.key.Key.Couplet;
import org.polyclave.core.key.Key.Lead;
import org.polyclave.core.key.Key.Statement;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.ControllingCondition;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/**
 * What some specimens of one row may still show, one set a character; narrowed and restored along a path.
 *
 * <p>Whether a character exists on them follows from what is left of its controllers: it may be certain, impossible, or open as
 * long as a controller is left with states of both kinds ({@link #firstOpenCondition}).
 */
final class SupportBox {
    /** A set as it was before narrowing. */
    record Saved(int character, Atoms atoms) {}

    /** Whether a character exists on the specimens of a box. */
    enum Existence {
        CERTAIN,
        IMPOSSIBLE,
        OPEN
    }

    private final Matrix matrix;
    private final int row;
    private final Atoms[] atoms;

    SupportBox(Matrix matrix, int row) {
        this.matrix = matrix;
        this.row = row;
        atoms = new Atoms[matrix.characterCount()];
        for (int c = 0; c < atoms.length; c++) {
            atoms[c] = support(matrix.character(c), matrix.cell(row, c));
        }
    }

    private SupportBox(SupportBox other) {
        matrix = other.matrix;
        row = other.row;
        atoms = other.atoms.clone();
    }

    /** The box as it is now. */
    SupportBox copy() {
        return new SupportBox(this);
    }

    private static Atoms support(MatrixCharacter character, Cell cell) {
        if (cell instanceof Cell.Categorical shown) {
            return new States(shown.readable());
        }
        if (cell instanceof Cell.Numeric range) {
            return Interval.closed(character.least(range.min()), character.greatest(range.max()));
        }
        return everything(character);
    }

    private static Atoms everything(MatrixCharacter character) {
        return character.type().isNumeric() ? Interval.ALL : new States(character.allStates());
    }

    int row() {
        return row;
    }

    Atoms atoms(int character) {
        return atoms[character];
    }

    boolean isKnown(int character) {
        Cell cell = matrix.cell(row, character);
        return cell instanceof Cell.Categorical || cell instanceof Cell.Numeric;
    }

    boolean isCertain(int character) {
        return existence(character) == Existence.CERTAIN;
    }

    Existence existence(int character) {
        if (matrix.cell(row, character) instanceof Cell.NotApplicable) {
            return Existence.IMPOSSIBLE;
        }
        Existence found = Existence.CERTAIN;
        for (ControllingCondition condition : matrix.character(character).appliesWhen()) {
            int shown = ((States) atoms[condition.character()]).mask();
            Existence controller = existence(condition.character());
            if (controller == Existence.IMPOSSIBLE || (shown & condition.states()) == 0) {
                return Existence.IMPOSSIBLE;
            }
            if (controller == Existence.OPEN || (shown & ~condition.states()) != 0) {
                found = Existence.OPEN;
            }
        }
        return found;
    }

    /** A condition that leaves the existence of a character open, on a controller that certainly exists; empty if none does. */
    Optional<ControllingCondition> firstOpenCondition(int character) {
        if (existence(character) != Existence.OPEN) {
            return Optional.empty();
        }
        for (ControllingCondition condition : matrix.character(character).appliesWhen()) {
            Optional<ControllingCondition> above = firstOpenCondition(condition.character());
            if (above.isPresent()) {
                return above;
            }
            int shown = ((States) atoms[condition.character()]).mask();
            if ((shown & ~condition.states()) != 0) {
                return Optional.of(condition);
            }
        }
        return Optional.empty();
    }

    /** Keeps these states of a character. */
    void restrict(int character, int states, List<Saved> saved) {
        saved.add(new Saved(character, atoms[character]));
        atoms[character] = new States(((States) atoms[character]).mask() & states);
    }

    /** Keeps what agrees with the statement; false when nothing is left. What does not exist agrees with everything. */
    boolean narrow(Statement statement, List<Saved> saved) {
        int c = statement.character();
        if (!isCertain(c)) {
            return true;
        }
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
     * The present set of a character, cut so finely that no lead's limit passes through a piece. A character that does not
     * exist shows nothing: one piece that agrees with every lead.
     */
    List<Atoms> observations(int character, Couplet couplet) {
        if (!isCertain(character)) {
            return List.of(everything(matrix.character(character)));
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

    /** Whether nothing that these specimens show lies outside a statement. */
    boolean isWithin(Statement statement) {
        Atoms shown = atoms[statement.character()];
        if (shown instanceof States states && statement.atoms() instanceof States wanted) {
            return (states.mask() & ~wanted.mask()) == 0;
        }
        return shown instanceof Interval range
                && statement.atoms() instanceof Interval wanted
                && range.and(wanted).equals(range);
    }

    /** Whether a character certainly exists on both, is scored for both, and what is left of it has nothing in common. */
    boolean isApartFrom(SupportBox other, int character) {
        if (!isKnown(character) || !other.isKnown(character)) {
            return false;
        }
        boolean common = atoms[character] instanceof States shown
                ? (shown.mask() & ((States) other.atoms[character]).mask()) != 0
                : !((Interval) atoms[character])
                        .and((Interval) other.atoms[character])
                        .isEmpty(isWhole(character));
        return !common && isCertain(character) && other.isCertain(character);
    }
}
