package org.polyclave.core.key;

/**
 * How a key is to be generated.
 *
 * @param objective what the key is to be good at
 * @param evenWeights whether every row counts the same, instead of by how common it is
 * @param nodeBudget how many positions the exact search may open
 * @param confirming how many confirming statements a lead may carry
 */
public record KeyOptions(KeyObjective objective, boolean evenWeights, int nodeBudget, int confirming) {
    public static final KeyOptions DEFAULT = new KeyOptions(KeyObjective.FEWEST, true, 200_000, 3);
    /** Positions with more rows than this are split greedily. */
    public static final int EXACT_ROWS = 8;

    public KeyOptions {
        if (nodeBudget < 0 || confirming < 0 || confirming > 3) {
            throw new IllegalArgumentException("The node budget must be at least 0, and confirming statements 0 to 3");
        }
    }

    public KeyOptions withObjective(KeyObjective wanted) {
        return new KeyOptions(wanted, evenWeights, nodeBudget, confirming);
    }

    public KeyOptions withEvenWeights(boolean even) {
        return new KeyOptions(objective, even, nodeBudget, confirming);
    }

    public KeyOptions withNodeBudget(int nodes) {
        return new KeyOptions(objective, evenWeights, nodes, confirming);
    }
}
