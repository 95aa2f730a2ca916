package org.polyclave.study.measuring;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import org.polyclave.core.measuring.PooledCorrelation;
import org.polyclave.study.model.StudyCharacter;

/**
 * Measures that go together over the individuals of a row: what they say is not independent, so the author may make them one
 * feature. Sizes are compared by their logarithms, within rows and one material.
 */
public record GoingTogether(StudyCharacter first, StudyCharacter second, int individuals, double r) {
    private static final int FEWEST_INDIVIDUALS = 20;
    private static final double CLOSELY = 0.5;

    /** Pairs of the characters given of which enough individuals were measured, the closest first. Takes time O(measures² · individuals). */
    public static List<GoingTogether> of(Evidence evidence, List<StudyCharacter> measures) {
        List<Map<IndividualSizes.Group, Map<String, Double>>> sizes =
                measures.stream().map(c -> IndividualSizes.of(evidence, c)).toList();
        List<GoingTogether> found = new ArrayList<>();
        for (int a = 0; a < measures.size(); a++) {
            for (int b = a + 1; b < measures.size(); b++) {
                Optional<PooledCorrelation> correlation = PooledCorrelation.of(groups(sizes.get(a), sizes.get(b)));
                if (correlation.isPresent()
                        && correlation.get().individuals() >= FEWEST_INDIVIDUALS
                        && Math.abs(correlation.get().r()) >= CLOSELY) {
                    found.add(new GoingTogether(
                            measures.get(a),
                            measures.get(b),
                            correlation.get().individuals(),
                            correlation.get().r()));
                }
            }
        }
        found.sort(Comparator.comparingDouble((GoingTogether pair) -> -Math.abs(pair.r())));
        return found;
    }

    private static List<PooledCorrelation.Group> groups(
            Map<IndividualSizes.Group, Map<String, Double>> first,
            Map<IndividualSizes.Group, Map<String, Double>> second) {
        List<PooledCorrelation.Group> groups = new ArrayList<>();
        first.forEach((group, x) -> {
            Map<String, Double> y = second.getOrDefault(group, Map.of());
            TreeSet<String> both = new TreeSet<>(x.keySet());
            both.removeIf(s -> !(x.getOrDefault(s, 0.0) > 0 && y.getOrDefault(s, 0.0) > 0));
            groups.add(new PooledCorrelation.Group(
                    both.stream()
                            .mapToDouble(s -> Math.log(x.getOrDefault(s, 1.0)))
                            .toArray(),
                    both.stream()
                            .mapToDouble(s -> Math.log(y.getOrDefault(s, 1.0)))
                            .toArray()));
        });
        return groups;
    }
}
