package org.polyclave.core.key;

import org.polyclave.core.matrix.MatrixCharacter;

/**
 * How a key is to be generated.
 *
 * @param objective what the key is to be good at
 * @param evenWeights whether every row counts the same, instead of by how common it is
 * @param nodeBudget how many positions may be opened to improve the key of each objective
 * @param confirming how many confirming statements a lead may carry
 * @param months bit set of the months in which the key is to be used
 */
public record KeyOptions(KeyObjective objective, boolean evenWeights, int nodeBudget, int confirming, int months) {
    public static final KeyOptions DEFAULT =
            new KeyOptions(KeyObjective.FEWEST, true, 5_000, 3, MatrixCharacter.ALL_MONTHS);

    public KeyOptions {
        if ((months & MatrixCharacter.ALL_MONTHS) == 0) {
            throw new IllegalArgumentException("A key is to be used in some month");
        }
        if (nodeBudget < 0 || confirming < 0 || confirming > 3) {
            throw new IllegalArgumentException("The node budget must be at least 0, and confirming statements 0 to 3");
        }
    }

    public KeyOptions withObjective(KeyObjective wanted) {
        return new KeyOptions(wanted, evenWeights, nodeBudget, confirming, months);
    }

    public KeyOptions withEvenWeights(boolean even) {
        return new KeyOptions(objective, even, nodeBudget, confirming, months);
    }

    public KeyOptions withNodeBudget(int nodes) {
        return new KeyOptions(objective, evenWeights, nodes, confirming, months);
    }

    public KeyOptions inMonths(int wanted) {
        return new KeyOptions(objective, evenWeights, nodeBudget, confirming, wanted);
    }
}
