package org.polyclave.core.evidence;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.matrix.Applicability;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Matrix;
import org.polyclave.core.matrix.MatrixCharacter;

/**
 * What may count against a danger: the one notion of it, for verdicts, the map and its cards, the gate before an edition, safe
 * questions and the margin. Both cells must be scored, and somebody must vouch for them; and it must be a sign that is
 * there: no absence, no odour, season, place or behaviour.
 */
public final class UsableEvidence {
    /** Characters on parts of which neither lies in the other: fewer never rule out a danger. */
    public static final int NEEDED = 2;

    private final Matrix matrix;

    public UsableEvidence(Matrix matrix) {
        this.matrix = matrix;
    }

    /** Whether both rows are scored for a character that surely exists on both. */
    public boolean isCompared(int a, int b, int character) {
        return isKnown(a, character) && isKnown(b, character);
    }

    private boolean isKnown(int row, int character) {
        Cell cell = matrix.cell(row, character);
        return (cell instanceof Cell.Categorical || cell instanceof Cell.Numeric)
                && Applicability.of(matrix, row, character) == Applicability.CERTAIN;
    }

    /** Whether what a specimen shows in a character may count against a danger, in favour of another row. */
    public boolean isUsable(int danger, int other, int character) {
        return matrix.character(character).countsForSafety()
                && matrix.isUsable(danger, character)
                && matrix.isUsable(other, character)
                && isCompared(danger, other, character);
    }

    /** Whether a reader who sees a character rightly cannot take one row for the other. */
    public boolean isDisjoint(int a, int b, int character) {
        if (matrix.cell(a, character) instanceof Cell.Categorical p
                && matrix.cell(b, character) instanceof Cell.Categorical q) {
            return (p.readable() & q.readable()) == 0;
        }
        if (matrix.cell(a, character) instanceof Cell.Numeric p
                && matrix.cell(b, character) instanceof Cell.Numeric q) {
            MatrixCharacter definition = matrix.character(character);
            double from = p.min() > q.min() ? p.min() : q.min();
            double gap = definition.type() == CharacterType.COUNT ? 0 : definition.giveOrTake(from);
            double to = p.max() < q.max() ? p.max() : q.max();
            return from - to > gap;
        }
        return false;
    }

    /** Whether nothing that a row shows in a character is an absence. */
    public boolean showsPresence(int row, int character) {
        int absence = matrix.character(character).absence();
        return matrix.cell(row, character) instanceof Cell.Categorical shown
                ? (shown.readable() & absence) == 0
                : absence == 0 || (matrix.cell(row, character) instanceof Cell.Numeric range && range.min() > 0);
    }

    /** Whether seeing what {@code other} shows in a character counts against {@code danger}. */
    public boolean separates(int danger, int other, int character) {
        return isUsable(danger, other, character) && wouldSeparate(danger, other, character);
    }

    /** Whether it would if somebody vouched for both cells. */
    public boolean wouldSeparate(int danger, int other, int character) {
        return matrix.character(character).countsForSafety()
                && isCompared(danger, other, character)
                && isDisjoint(danger, other, character)
                && showsPresence(other, character);
    }

    /** Every character that does, in order. */
    public List<Integer> separating(int danger, int other) {
        List<Integer> found = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            if (separates(danger, other, c)) {
                found.add(c);
            }
        }
        return found;
    }

    /** Whether an observation says that something is not there. */
    public boolean isAbsence(int character, Observation observation) {
        int absence = matrix.character(character).absence();
        if (observation instanceof Observation.Seen seen) {
            return (seen.states() & absence) != 0;
        }
        return absence != 0 && observation instanceof Observation.MeasuredObservation reading && reading.value() < 0.5;
    }

    /** Whether two of some characters are seen on parts of which neither lies in the other. */
    public boolean areOfTwoParts(List<Integer> characters) {
        List<MatrixCharacter> ofEachPart = new ArrayList<>();
        for (int i = 0; i < characters.size(); i++) {
            MatrixCharacter character = matrix.character(characters.get(i));
            boolean another = true;
            for (int k = 0; k < ofEachPart.size(); k++) {
                MatrixCharacter known = ofEachPart.get(k);
                if (character.isApartFrom(known)) {
                    return true;
                }
                another &= character.organ() != known.organ()
                        || !character.around().equals(known.around());
            }
            if (another) {
                ofEachPart.add(character);
            }
        }
        return false;
    }

    /** How many count, up to {@link #NEEDED}: several on one part, or on parts that lie in one another, count once. */
    public int features(List<Integer> characters) {
        return characters.isEmpty() ? 0 : areOfTwoParts(characters) ? NEEDED : 1;
    }
}
