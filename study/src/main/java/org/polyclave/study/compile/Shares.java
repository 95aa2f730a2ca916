package org.polyclave.study.compile;

import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.ScoreValue.Frequency;
import org.polyclave.study.model.StudyCharacter;

/**
 * Words of frequency as shares of the states: always 1, usually 0.75, sometimes 0.2, rarely 0.04, shared over the listed
 * states; states without a word share equally what remains. Where only uncertain words are given ("sometimes toothed",
 * "usually toothed" alone), the remainder goes evenly to the states that are not listed, and the cell is incomplete.
 */
public final class Shares {
    private Shares() {}

    /** One share a state of the character, summing to 1. */
    public static double[] of(ScoreValue.States states, StudyCharacter character) {
        double[] shares = new double[character.states().size()];
        double worded = 0;
        int plain = 0;
        for (ScoreValue.Shown shown : states.shown()) {
            worded += shown.frequency().weight();
            plain += shown.frequency() == Frequency.PLAIN ? 1 : 0;
        }
        // However much the words leave, a state that is listed is shown at least as often as "rarely" says.
        double remaining = plain == 0 ? 0 : Math.max(1 - worded, plain * Frequency.RARELY.weight());
        for (ScoreValue.Shown shown : states.shown()) {
            double share = shown.frequency() == Frequency.PLAIN
                    ? remaining / plain
                    : shown.frequency().weight();
            shares[character.indexOf(shown.state())] += share;
        }
        if (isIncomplete(states)) {
            spreadOverUnlisted(shares, states, character, 1 - worded);
        }
        return normalised(shares);
    }

    /** Whether the words leave open what the organism shows otherwise. */
    public static boolean isIncomplete(ScoreValue.States states) {
        int shownStates = 0;
        boolean certain = false;
        boolean usually = false;
        for (ScoreValue.Shown shown : states.shown()) {
            shownStates += shown.frequency() == Frequency.MISTAKEN ? 0 : 1;
            certain |= shown.frequency() == Frequency.PLAIN || shown.frequency() == Frequency.ALWAYS;
            usually |= shown.frequency() == Frequency.USUALLY;
        }
        return !certain && !(usually && shownStates > 1);
    }

    private static void spreadOverUnlisted(
            double[] shares, ScoreValue.States states, StudyCharacter character, double remainder) {
        boolean[] listed = new boolean[shares.length];
        int unlisted = shares.length;
        for (ScoreValue.Shown shown : states.shown()) {
            listed[character.indexOf(shown.state())] = true;
            unlisted--;
        }
        for (int s = 0; s < shares.length && remainder > 0; s++) {
            shares[s] += listed[s] ? 0 : remainder / unlisted;
        }
    }

    private static double[] normalised(double[] shares) {
        double total = 0;
        for (double share : shares) {
            total += share;
        }
        for (int s = 0; s < shares.length; s++) {
            shares[s] /= total;
        }
        return shares;
    }
}
