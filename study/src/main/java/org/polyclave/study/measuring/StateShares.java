package org.polyclave.study.measuring;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import org.polyclave.study.model.ScoreValue.Frequency;

/** How often individuals show a state, in the words of cells. */
public final class StateShares {
    private static final double USUALLY = 0.6;
    private static final double RARELY = 0.1;

    private StateShares() {}

    /** @param individuals halves where readings of one individual differ */
    public record Share(String state, double individuals, Frequency frequency) {}

    /**
     * The most frequent first, then by name. States that are about as frequent as each other stand without a word.
     *
     * @param individuals how many show each state
     */
    public static List<Share> of(Map<String, Double> individuals) {
        double all = individuals.values().stream().mapToDouble(i -> i).sum();
        double most = individuals.values().stream().mapToDouble(i -> i).max().orElse(0);
        boolean usually = individuals.size() > 1 && most >= USUALLY * all;
        List<Share> shares = new ArrayList<>();
        individuals.forEach((state, n) -> shares.add(new Share(state, n, frequency(n / all, usually))));
        shares.sort(Comparator.comparingDouble(Share::individuals).reversed().thenComparing(Share::state));
        return shares;
    }

    private static Frequency frequency(double share, boolean usually) {
        if (share < RARELY) {
            return Frequency.RARELY;
        }
        return !usually ? Frequency.PLAIN : share >= USUALLY ? Frequency.USUALLY : Frequency.SOMETIMES;
    }
}
