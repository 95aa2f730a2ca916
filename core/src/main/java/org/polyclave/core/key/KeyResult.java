package org.polyclave.core.key;

import java.util.List;
import org.polyclave.core.run.Completion;

/**
 * A generated key with its figures, its proof and the reasons of its couplets.
 *
 * @param compared the keys of all objectives, this one's among them
 */
public record KeyResult(Key key, Figures figures, Proof proof, List<CoupletReason> reasons, List<Compared> compared) {
    public KeyResult {
        reasons = List.copyOf(reasons);
        compared = List.copyOf(compared);
    }

    /** What the key of an objective would be like, of the keys that were found in the same search. */
    public record Compared(
            KeyObjective objective,
            int couplets,
            double expectedSteps,
            int longestPath,
            KeyRisk trained,
            KeyRisk novice) {}

    /**
     * Figures of a key.
     *
     * @param rows rows in scope
     * @param couplets number of couplets
     * @param terminals number of leads at which the key stops
     * @param expectedSteps mean over rows of the mean number of couplets over their specimens
     * @param longestPath most couplets that any specimen passes
     * @param entropyBound lower bound of {@code expectedSteps}, in couplets with two leads
     * @param leastSteps no key with questions of the kinds that are tried has fewer expected steps; at least the entropy bound
     * @param trained what becomes of trained readers
     * @param novice what becomes of novices
     */
    public record Figures(
            int rows,
            int couplets,
            int terminals,
            double expectedSteps,
            int longestPath,
            double entropyBound,
            double leastSteps,
            KeyRisk trained,
            KeyRisk novice,
            Completion completion) {}

    /**
     * Why a couplet asks what it asks.
     *
     * @param gain bits that the answer gives about the row
     * @param misread share of the specimens that come here which readers take down the wrong lead
     * @param rows rows still in play
     * @param duplicated rows that stand in both leads
     * @param prices what was held against the question; empty where only steps count
     * @param alternatives other characters that could be asked here, best first
     */
    public record CoupletReason(
            int couplet,
            int character,
            double gain,
            double misread,
            List<Integer> rows,
            List<Integer> duplicated,
            List<Price> prices,
            List<Alternative> alternatives) {}

    /** What readers find awkward about a question. */
    public enum PriceKind {
        /** The character was asked before on the way here. */
        ASKED_AGAIN,
        /** The states of a series are divided otherwise than at one place. */
        OUT_OF_ORDER,
        /** Both leads join states, and one joins three or more. */
        MANY_STATES,
        /** It cannot be seen in all the months in which the key is to be used. */
        OUT_OF_SEASON,
        /** Some individuals do not have it to show. */
        SELDOM_THERE
    }

    /** @param couplets how much it costs each specimen, in couplets without such trouble */
    public record Price(PriceKind kind, double couplets) {}

    /**
     * Another character for a couplet, with its best split.
     *
     * @param duplicated how many rows would stand in both leads
     * @param misread as in {@link CoupletReason}
     */
    public record Alternative(int character, double gain, int duplicated, double misread, List<Price> prices) {}
}
