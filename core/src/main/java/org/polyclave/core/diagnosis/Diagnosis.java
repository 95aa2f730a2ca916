package org.polyclave.core.diagnosis;

import java.util.List;
import org.polyclave.core.run.Completion;

/**
 * The cheapest characters that together tell a row from every other.
 *
 * @param characters ascending
 * @param cost of looking at all of them
 * @param bound no set that does the same costs less
 * @param completion OPTIMAL where {@code cost} is proven least, else BUDGET_EXHAUSTED
 * @param shortfalls rows that fewer independent groups separate than was asked for, whatever is looked at
 */
public record Diagnosis(
        int row,
        List<Integer> characters,
        double cost,
        double bound,
        Completion completion,
        List<Shortfall> shortfalls) {
    public Diagnosis {
        characters = List.copyOf(characters);
        shortfalls = List.copyOf(shortfalls);
    }

    /** @param groups independent groups that tell it apart; 0: nothing does */
    public record Shortfall(int rival, int groups) {}
}
