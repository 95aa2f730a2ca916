package org.polyclave.core.key;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.polyclave.core.matrix.MatrixCharacter;
import org.polyclave.core.matrix.Observer;

/**
 * How a key is to be generated.
 *
 * @param objective what the key is to be good at
 * @param evenWeights whether every row counts the same, instead of by how common it is
 * @param nodeBudget how many positions may be opened to improve the key of each objective
 * @param confirming how many confirming statements a lead may carry
 * @param months bit set of the months in which the key is to be used
 * @param hazardsFirst whether what is dangerous is to be separated early from what is not; where only steps count it is not
 * @param questions what must be asked in some places
 * @param leads how many leads a couplet may have
 * @param readers who is to read it; empty: as the objective has it
 */
public record KeyOptions(
        KeyObjective objective,
        boolean evenWeights,
        int nodeBudget,
        int confirming,
        int months,
        boolean hazardsFirst,
        List<SetQuestion> questions,
        int leads,
        Optional<Observer> readers) {
    public static final int TWO_LEADS = 2;
    public static final int MOST_LEADS = 8;

    public static final KeyOptions DEFAULT = new KeyOptions(
            KeyObjective.FEWEST,
            true,
            5_000,
            3,
            MatrixCharacter.ALL_MONTHS,
            false,
            List.of(),
            TWO_LEADS,
            Optional.empty());

    public KeyOptions {
        if ((months & MatrixCharacter.ALL_MONTHS) == 0) {
            throw new IllegalArgumentException("A key is to be used in some month");
        }
        if (nodeBudget < 0 || confirming < 0 || confirming > 3) {
            throw new IllegalArgumentException("The node budget must be at least 0, and confirming statements 0 to 3");
        }
        if (leads < TWO_LEADS || leads > MOST_LEADS) {
            throw new IllegalArgumentException("Couplets have 2 to " + MOST_LEADS + " leads");
        }
        questions = List.copyOf(questions);
    }

    /**
     * A character that is asked wherever exactly these rows are in play, if it can be asked there.
     *
     * @param rows none: all rows, which are in play at the first couplet
     */
    public record SetQuestion(Set<Integer> rows, int character) {
        public SetQuestion {
            rows = Set.copyOf(rows);
        }
    }

    public KeyOptions withObjective(KeyObjective wanted) {
        return copy(wanted, evenWeights, nodeBudget, months, hazardsFirst, questions);
    }

    public KeyOptions withEvenWeights(boolean even) {
        return copy(objective, even, nodeBudget, months, hazardsFirst, questions);
    }

    public KeyOptions withNodeBudget(int nodes) {
        return copy(objective, evenWeights, nodes, months, hazardsFirst, questions);
    }

    public KeyOptions inMonths(int wanted) {
        return copy(objective, evenWeights, nodeBudget, wanted, hazardsFirst, questions);
    }

    public KeyOptions withHazardsFirst(boolean first) {
        return copy(objective, evenWeights, nodeBudget, months, first, questions);
    }

    public KeyOptions withQuestions(List<SetQuestion> wanted) {
        return copy(objective, evenWeights, nodeBudget, months, hazardsFirst, wanted);
    }

    public KeyOptions withLeads(int most) {
        return new KeyOptions(
                objective, evenWeights, nodeBudget, confirming, months, hazardsFirst, questions, most, readers);
    }

    public KeyOptions withReaders(Optional<Observer> wanted) {
        return new KeyOptions(
                objective, evenWeights, nodeBudget, confirming, months, hazardsFirst, questions, leads, wanted);
    }

    private KeyOptions copy(
            KeyObjective aim, boolean even, int nodes, int inMonths, boolean first, List<SetQuestion> asked) {
        return new KeyOptions(aim, even, nodes, confirming, inMonths, first, asked, leads, readers);
    }
}
