package org.polyclave.core.matrix;

/**
 * Which states readers record of specimens of a cell.
 *
 * <p>A reader records the true state with probability 1 − ε and otherwise another: {@value #TO_CONFUSABLE} of ε goes to the states
 * that it is commonly mistaken for, the rest to the others, and an empty class gives its share to the other. A row's
 * {@code mistaken} states take {@value #MISTAKEN_RATE} of their own. The rows of this misreading matrix sum to 1.
 */
public final class RecordedStates {
    static final double MISTAKEN_RATE = 0.15;
    static final double TO_CONFUSABLE = 0.7;

    private RecordedStates() {}

    /** Distribution of the recorded state; sums to 1. */
    public static double[] of(MatrixCharacter character, Cell.Categorical cell, double misreading) {
        int n = character.stateCount();
        double[] outcomes = new double[n];
        int mistaken = cell.readable() & ~cell.support();
        for (int s = 0; s < n; s++) {
            double share = cell.shares()[s];
            if (share > 0) {
                int confusable = character.confusable(s);
                spread(outcomes, s, share, mistaken, confusable & ~mistaken, n == 1 ? 0 : misreading);
            }
        }
        return outcomes;
    }

    /**
     * Probability that one of some states is recorded of a specimen that shows a state.
     *
     * @param mistaken bit set of the states that its row is taken for
     * @param recorded bit set of the states in question
     */
    public static double given(
            MatrixCharacter character, int trueState, int mistaken, int recorded, double misreading) {
        int n = character.stateCount();
        double[] outcomes = new double[n];
        int confusable = character.confusable(trueState) & ~mistaken;
        spread(outcomes, trueState, 1, mistaken & ~(1 << trueState), confusable, n == 1 ? 0 : misreading);
        double sum = 0;
        for (int s = 0; s < n; s++) {
            sum += (recorded & (1 << s)) != 0 ? outcomes[s] : 0;
        }
        return sum;
    }

    private static void spread(
            double[] outcomes, int trueState, double share, int mistaken, int confusable, double misreading) {
        int n = outcomes.length;
        int mistakenCount = Integer.bitCount(mistaken);
        int alike = Integer.bitCount(confusable);
        int others = n - 1 - mistakenCount - alike;
        double toMistaken = mistakenCount == 0 ? 0 : MISTAKEN_RATE;
        double wrong = alike + others == 0 ? 0 : misreading * (1 - toMistaken);
        double toAlike = alike == 0 ? 0 : others == 0 ? wrong : wrong * TO_CONFUSABLE;
        for (int o = 0; o < n; o++) {
            if (o == trueState) {
                outcomes[o] += share * (1 - toMistaken - wrong);
            } else if ((mistaken & (1 << o)) != 0) {
                outcomes[o] += share * toMistaken / mistakenCount;
            } else if ((confusable & (1 << o)) != 0) {
                outcomes[o] += share * toAlike / alike;
            } else {
                outcomes[o] += share * (wrong - toAlike) / others;
            }
        }
    }
}
