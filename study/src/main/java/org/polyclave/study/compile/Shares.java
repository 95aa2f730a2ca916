package org.polyclave.study.compile;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.matrix.Cell;
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
        List<Frequency> words =
                states.shown().stream().map(ScoreValue.Shown::frequency).toList();
        double[] listed = listed(words);
        for (int k = 0; k < listed.length; k++) {
            shares[character.indexOf(states.shown().get(k).state())] += listed[k];
        }
        if (isIncomplete(states)) {
            spreadOverUnlisted(shares, states, character, 1 - worded(words));
        }
        return normalised(shares);
    }

    /**
     * Counts with their shares: those of a part evenly. What "usually 5" alone leaves open goes to the counts beside it, as far
     * as the range reaches.
     */
    public static List<Cell.Part> of(ScoreValue.Range range) {
        List<Frequency> words =
                range.counts().stream().map(ScoreValue.Count::frequency).toList();
        double[] listed = listed(words);
        List<Cell.Part> parts = new ArrayList<>();
        for (int k = 0; k < listed.length; k++) {
            ScoreValue.Count count = range.counts().get(k);
            parts.add(new Cell.Part(count.from(), count.to(), listed[k]));
        }
        if (parts.size() == 1 && range.max() != null && range.high() != null) {
            boolean below = range.min() < range.low();
            boolean above = range.max() > range.high();
            double each = (1 - worded(words)) / ((below ? 1 : 0) + (above ? 1 : 0));
            if (below) {
                parts.add(new Cell.Part(range.min(), range.low() - 1, each));
            }
            if (above) {
                parts.add(new Cell.Part(range.high() + 1, range.max(), each));
            }
        }
        double total = parts.stream().mapToDouble(Cell.Part::share).sum();
        return parts.stream()
                .map(p -> new Cell.Part(p.low(), p.high(), p.share() / total))
                .toList();
    }

    private static double worded(List<Frequency> words) {
        return words.stream().mapToDouble(Frequency::weight).sum();
    }

    /** What each word comes to; not yet summing to 1. */
    private static double[] listed(List<Frequency> words) {
        long plain = words.stream().filter(w -> w == Frequency.PLAIN).count();
        // However much the words leave, a state that is listed is shown at least as often as "rarely" says.
        double remaining = Math.max(1 - worded(words), plain * Frequency.RARELY.weight());
        return words.stream()
                .mapToDouble(w -> w == Frequency.PLAIN ? remaining / plain : w.weight())
                .toArray();
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
