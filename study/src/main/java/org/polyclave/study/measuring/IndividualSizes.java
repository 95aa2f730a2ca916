package org.polyclave.study.measuring;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.polyclave.core.measuring.IndividualMeans;
import org.polyclave.study.measuring.Evidence.Item;
import org.polyclave.study.model.StudyCharacter;

/** Means of individuals, of the readings that count and are not far from the others by themselves. */
final class IndividualSizes {
    private IndividualSizes() {}

    /** Individuals that can be compared: of one row, in one material. */
    record Group(String row, Evidence.Material material) {}

    /** By group, then by specimen. */
    static Map<Group, Map<String, Double>> of(Evidence evidence, StudyCharacter character) {
        Map<Group, Map<String, Double>> sizes = new HashMap<>();
        for (Evidence.RowReadings row : evidence.of(character)) {
            List<Item> items = settled(row, character);
            for (Evidence.Material material : Evidence.Material.values()) {
                Map<String, Double> means = means(items, material);
                if (!row.row().isEmpty() && !means.isEmpty()) {
                    sizes.put(new Group(row.row(), material), means);
                }
            }
        }
        return sizes;
    }

    static List<Item> settled(Evidence.RowReadings row, StudyCharacter character) {
        Proposals.Proposal proposal = Proposals.of(row, character, null);
        Set<Integer> flagged =
                proposal.flags().stream().map(Proposals.Flag::item).collect(Collectors.toSet());
        return IntStream.range(0, proposal.items().size())
                .filter(i -> !flagged.contains(i) && proposal.items().get(i).counts())
                .mapToObj(proposal.items()::get)
                .toList();
    }

    static Map<String, Double> means(List<Item> items, Evidence.Material material) {
        Map<String, Double> means = new TreeMap<>();
        IndividualMeans.of(items.stream()
                        .filter(i -> i.material() == material && !Double.isNaN(i.value()))
                        .map(i -> new IndividualMeans.ItemValue(i.specimen(), i.item(), i.value()))
                        .toList())
                .forEach(m -> means.put(m.individual(), m.value()));
        return means;
    }
}
