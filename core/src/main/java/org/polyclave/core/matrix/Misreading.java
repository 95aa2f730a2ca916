package org.polyclave.core.matrix;

import java.util.ArrayList;
import java.util.List;

/**
 * How often readers record another state of a character than the specimen shows, by observer. In some groups a character
 * cannot be trusted as elsewhere: their rows have rates of their own.
 *
 * @param trained rate of a trained observer
 * @param novice rate of a novice
 * @param trainedOf by row of the matrix, negative where the row has no rate of its own; empty if none has
 * @param noviceOf the same for novices
 */
public record Misreading(double trained, double novice, List<Double> trainedOf, List<Double> noviceOf) {
    /** Rate of a trained observer where nothing is known. */
    public static final double TRAINED_DEFAULT = 0.05;
    /** Rate of a novice where nothing is known. */
    public static final double NOVICE_DEFAULT = 0.12;

    public Misreading {
        trainedOf = List.copyOf(trainedOf);
        noviceOf = List.copyOf(noviceOf);
    }

    /** The same for all rows; novices misread as usual, and no less often than trained observers. */
    public static Misreading of(double trained) {
        double novice = trained > NOVICE_DEFAULT ? trained : NOVICE_DEFAULT;
        return new Misreading(trained, novice, List.of(), List.of());
    }

    /** The same for some of the rows, in the order given. */
    public Misreading of(List<Integer> rows) {
        List<Double> trainedHere = new ArrayList<>();
        List<Double> noviceHere = new ArrayList<>();
        for (int row : rows) {
            if (!trainedOf.isEmpty()) {
                trainedHere.add(trainedOf.get(row));
            }
            if (!noviceOf.isEmpty()) {
                noviceHere.add(noviceOf.get(row));
            }
        }
        return new Misreading(trained, novice, trainedHere, noviceHere);
    }

    public boolean isAlikeInAllRows() {
        return trainedOf.isEmpty() && noviceOf.isEmpty();
    }

    /** The rate for the specimens of one row. */
    public double rate(Observer observer, int row) {
        boolean isTrained = observer == Observer.TRAINED;
        List<Double> own = isTrained ? trainedOf : noviceOf;
        double rate = own.isEmpty() ? -1 : own.get(row);
        return rate >= 0 ? rate : isTrained ? trained : novice;
    }
}
