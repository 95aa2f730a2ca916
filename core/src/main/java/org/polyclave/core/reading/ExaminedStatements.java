package org.polyclave.core.reading;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Observation;
import org.polyclave.core.identify.Answer;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.Matrix;

/**
 * What a reader of a couplet key examined, statement by statement, as answers. Couplets that ask the same character again only
 * narrow what was seen: all that is said of one character is one look, the states or numbers that every examined statement
 * admits. Where none is left, the reader contradicted themselves, and the character is no evidence. Statements that were not
 * examined are none either.
 */
public final class ExaminedStatements {
    private final Matrix matrix;
    /** By character: what is admitted so far. */
    private final int[] states;

    private final double[] from;
    private final double[] to;
    private final boolean[] examined;

    public ExaminedStatements(Matrix matrix) {
        this.matrix = matrix;
        int n = matrix.characterCount();
        states = new int[n];
        from = new double[n];
        to = new double[n];
        examined = new boolean[n];
        for (int c = 0; c < n; c++) {
            states[c] = matrix.character(c).allStates();
            from[c] = Double.NEGATIVE_INFINITY;
            to[c] = Double.POSITIVE_INFINITY;
        }
    }

    /**
     * One of some states is shown.
     *
     * @param mask bit set of states or months
     */
    public void shows(int character, int mask) {
        states[character] &= mask;
        examined[character] = true;
    }

    /** None of some states is shown. */
    public void showsNone(int character, int mask) {
        shows(character, matrix.character(character).allStates() & ~mask);
    }

    /** A number from {@code least} to {@code most} in the character's base unit, either of which may be infinite. */
    public void measures(int character, double least, double most) {
        from[character] = least > from[character] ? least : from[character];
        to[character] = most < to[character] ? most : to[character];
        examined[character] = true;
    }

    /** One for each character that was examined without contradiction and tells something, in character order. */
    public List<Answer> answers() {
        List<Answer> answers = new ArrayList<>();
        for (int c = 0; c < examined.length; c++) {
            if (examined[c] && !isContradicted(c)) {
                if (matrix.character(c).type().isNumeric()) {
                    addRange(c, answers);
                } else if (states[c] != matrix.character(c).allStates()) {
                    answers.add(new Answer(c, new Observation.Seen(states[c]), Certainty.SURE));
                }
            }
        }
        return answers;
    }

    /** Characters of which the reader said what cannot be true together. */
    public List<Integer> contradicted() {
        List<Integer> found = new ArrayList<>();
        for (int c = 0; c < examined.length; c++) {
            if (examined[c] && isContradicted(c)) {
                found.add(c);
            }
        }
        return found;
    }

    /** Statements on either side of one limit meet in it, and contradict each other all the same. */
    private boolean isContradicted(int c) {
        return switch (matrix.character(c).type()) {
            case STATES, ORDERED, MONTHS -> states[c] == 0;
            case COUNT -> from[c] > to[c];
            default -> from[c] >= to[c];
        };
    }

    /** Between the limits, or from one of them to the end of what any row shows: nobody saw a number without end. */
    private void addRange(int c, List<Answer> answers) {
        double least = Double.POSITIVE_INFINITY;
        double greatest = Double.NEGATIVE_INFINITY;
        for (int i = 0; i < matrix.rowCount(); i++) {
            if (matrix.cell(i, c) instanceof Cell.Numeric shown) {
                least = shown.min() < least ? shown.min() : least;
                greatest = shown.max() > greatest ? shown.max() : greatest;
            }
        }
        double low = from[c] > least ? from[c] : least;
        double high = to[c] < greatest ? to[c] : greatest;
        boolean tellsNothing = low <= least && high >= greatest;
        if (!tellsNothing && low <= high) {
            Observation seen = new Observation.MeasuredObservation((low + high) / 2, (high - low) / 2);
            answers.add(new Answer(c, seen, Certainty.SURE));
        }
    }
}
