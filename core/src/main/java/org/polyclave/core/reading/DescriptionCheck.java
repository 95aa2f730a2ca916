package org.polyclave.core.reading;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.identify.Identification;
import org.polyclave.core.identify.Identification.Contribution;
import org.polyclave.core.identify.Identification.Standing;
import org.polyclave.core.matrix.Applicability;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterRole;
import org.polyclave.core.matrix.Matrix;

/** A name held against what was seen: its whole description, point by point. */
public final class DescriptionCheck {
    private DescriptionCheck() {}

    /** How a point of a description stands. */
    public enum Verdict {
        /** What was seen may be of this row, also by what readers take its states for. */
        AGREES,
        DISAGREES,
        /** Nobody looked: it is neither for nor against. */
        NOT_EXAMINED
    }

    /**
     * @param mustShow whether the row must show it, so that as long as nobody looked the name stays open
     * @param implied whether nobody looked at it itself, but it follows from what else was seen
     */
    public record Point(int character, Verdict verdict, boolean mustShow, boolean implied) {}

    /** One for each character that the row is scored for, in character order. */
    public static List<Point> of(Matrix matrix, int row, Identification found) {
        List<Contribution> seen = contributions(row, found);
        List<Point> points = new ArrayList<>();
        for (int c = 0; c < matrix.characterCount(); c++) {
            if (isDescribed(matrix, row, c)) {
                points.add(point(matrix, c, seen));
            }
        }
        return points;
    }

    private static Point point(Matrix matrix, int character, List<Contribution> seen) {
        boolean mustShow = matrix.character(character).role() == CharacterRole.NECESSARY;
        for (int k = 0; k < seen.size(); k++) {
            if (seen.get(k).character() == character) {
                Verdict verdict = seen.get(k).contradicts() ? Verdict.DISAGREES : Verdict.AGREES;
                return new Point(character, verdict, mustShow, seen.get(k).implied());
            }
        }
        return new Point(character, Verdict.NOT_EXAMINED, mustShow, false);
    }

    private static boolean isDescribed(Matrix matrix, int row, int character) {
        Cell cell = matrix.cell(row, character);
        return (cell instanceof Cell.Categorical || cell instanceof Cell.Numeric)
                && Applicability.of(matrix, row, character) != Applicability.IMPOSSIBLE;
    }

    private static List<Contribution> contributions(int row, Identification found) {
        List<Standing> standings = found.standings();
        for (int k = 0; k < standings.size(); k++) {
            if (standings.get(k).row() == row) {
                return standings.get(k).contributions();
            }
        }
        return new ArrayList<>();
    }
}
