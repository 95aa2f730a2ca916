package org.polyclave.study.measuring;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.polyclave.core.measuring.IndividualMeans;
import org.polyclave.core.measuring.Threshold;
import org.polyclave.core.statistics.Sampling;
import org.polyclave.study.measuring.Evidence.Item;

/** Where to cut between the individuals of two rows. */
public final class Thresholds {
    /** Wished of the error of a threshold. */
    public static final double WISH = 0.05;

    private Thresholds() {}

    /**
     * @param n individuals of both rows
     * @param more individuals to be measured until the error is known to be below {@link #WISH}; −1 if never
     */
    public record Cut(Threshold threshold, int n, int more) {}

    /** Empty if one of the rows has no individual that counts. Readings in another material than the usual are left out. */
    public static Optional<Cut> between(Proposals.Proposal first, Proposals.Proposal second) {
        if (used(first).isEmpty() || used(second).isEmpty()) {
            return Optional.empty();
        }
        Threshold.Group one = group(first);
        Threshold.Group other = group(second);
        double uncertainty = Math.max(uncertainty(first), uncertainty(second));
        Threshold threshold = Threshold.between(one, other, uncertainty);
        int n = one.values().length + other.values().length;
        double error = Double.isNaN(threshold.crossValidated()) ? threshold.error() : threshold.crossValidated();
        return Optional.of(new Cut(threshold, n, Sampling.untilErrorIsBelow(n, error, WISH)));
    }

    private static List<Item> used(Proposals.Proposal proposal) {
        return proposal.items().stream()
                .filter(i -> i.counts() && i.material() == proposal.material() && !Double.isNaN(i.value()))
                .toList();
    }

    private static Threshold.Group group(Proposals.Proposal proposal) {
        Map<String, String> events = new LinkedHashMap<>();
        List<IndividualMeans.ItemValue> readings = used(proposal).stream()
                .map(i -> {
                    // Of what nobody knows where it was found, each is a gathering of its own.
                    events.put(i.specimen(), i.event().isEmpty() ? "of " + i.specimen() : i.event());
                    return new IndividualMeans.ItemValue(i.specimen(), i.item(), i.value());
                })
                .toList();
        List<IndividualMeans.Mean> means = IndividualMeans.of(readings);
        return new Threshold.Group(
                means.stream().mapToDouble(IndividualMeans.Mean::value).toArray(),
                means.stream().map(m -> events.getOrDefault(m.individual(), "")).toArray(String[]::new));
    }

    private static double uncertainty(Proposals.Proposal proposal) {
        return used(proposal).stream().mapToDouble(Item::uncertainty).average().orElse(0);
    }
}
