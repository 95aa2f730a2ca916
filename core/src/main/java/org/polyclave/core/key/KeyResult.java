package org.polyclave.core.key;

import java.util.List;
import org.polyclave.core.run.Completion;

/** A generated key with its figures, its proof and the reasons of its couplets. */
public record KeyResult(Key key, Figures figures, Proof proof, List<CoupletReason> reasons) {
    public KeyResult {
        reasons = List.copyOf(reasons);
    }

    /**
     * Figures of a key.
     *
     * @param rows rows in scope
     * @param couplets number of couplets
     * @param terminals number of leads at which the key stops
     * @param expectedSteps mean over rows of the mean number of couplets over their specimens
     * @param longestPath most couplets that any specimen passes
     * @param entropyBound lower bound of {@code expectedSteps}, in couplets with two leads
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
            KeyRisk trained,
            KeyRisk novice,
            Completion completion) {}

    /**
     * Why a couplet asks what it asks.
     *
     * @param gain bits that the answer gives about the row
     * @param rows rows still in play
     * @param duplicated rows that stand in both leads
     * @param alternatives other characters that could be asked here, best first
     */
    public record CoupletReason(
            int couplet,
            int character,
            double gain,
            List<Integer> rows,
            List<Integer> duplicated,
            List<Alternative> alternatives) {}

    /** Another character for a couplet, with the gain of its best split and how many rows would stand in both leads. */
    public record Alternative(int character, double gain, int duplicated) {}
}
