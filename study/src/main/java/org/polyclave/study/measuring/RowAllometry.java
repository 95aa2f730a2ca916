package org.polyclave.study.measuring;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.polyclave.core.measuring.Allometry;
import org.polyclave.study.measuring.Evidence.Item;
import org.polyclave.study.model.StudyCharacter;

/**
 * How one size goes with another over the individuals of a row: each of its own, a pair may still be out of proportion.
 *
 * @param row whose individuals they are
 * @param individuals of which both sizes were read, in the order of their specimens
 * @param relation of the sizes; empty for fewer than {@link Allometry#FEWEST} individuals, or if all are of one size
 */
public record RowAllometry(String row, List<Individual> individuals, Optional<Allometry> relation) {
    /**
     * @param x mean of the first size, in its base unit
     * @param y of the second
     * @param unforeseen whether the others do not foresee this pair
     */
    public record Individual(String specimen, double x, double y, boolean unforeseen) {}

    /**
     * Row by row, of the readings that count and are not far from the others by themselves; fresh, dried and other material
     * is not mixed.
     */
    public static List<RowAllometry> of(Evidence evidence, StudyCharacter x, StudyCharacter y) {
        Map<String, List<Item>> wholes = new HashMap<>();
        evidence.of(x).forEach(r -> wholes.put(r.row(), IndividualSizes.settled(r, x)));
        List<RowAllometry> found = new ArrayList<>();
        for (Evidence.RowReadings row : evidence.of(y)) {
            List<Item> parts = IndividualSizes.settled(row, y);
            Evidence.Material material = Proposals.mostUsual(parts);
            Map<String, Double> sizes = IndividualSizes.means(wholes.getOrDefault(row.row(), List.of()), material);
            List<Individual> pairs = new ArrayList<>();
            IndividualSizes.means(parts, material).forEach((specimen, size) -> {
                Double other = sizes.get(specimen);
                if (other != null && other > 0 && size > 0) {
                    pairs.add(new Individual(specimen, other, size, false));
                }
            });
            if (!row.row().isEmpty() && !pairs.isEmpty()) {
                found.add(of(row.row(), pairs));
            }
        }
        return found;
    }

    private static RowAllometry of(String row, List<Individual> pairs) {
        double[] x = pairs.stream().mapToDouble(Individual::x).toArray();
        double[] y = pairs.stream().mapToDouble(Individual::y).toArray();
        boolean[] unforeseen = Allometry.implausible(x, y);
        List<Individual> told = new ArrayList<>();
        for (int i = 0; i < x.length; i++) {
            told.add(new Individual(pairs.get(i).specimen(), x[i], y[i], unforeseen[i]));
        }
        boolean related = x.length >= Allometry.FEWEST
                && pairs.stream().mapToDouble(Individual::x).distinct().count() > 1;
        return new RowAllometry(row, List.copyOf(told), related ? Optional.of(Allometry.of(x, y)) : Optional.empty());
    }

    /** Specimens whose sizes do not go together as those of the others do. */
    public List<String> unforeseen() {
        return individuals.stream()
                .filter(Individual::unforeseen)
                .map(Individual::specimen)
                .toList();
    }
}
