package org.polyclave.core.measuring;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.statistics.Sums;

/**
 * Readings averaged to items, and items to individuals: a plant of which forty leaves were measured counts once, like one
 * of which two were.
 *
 * <p>Time and memory linear in the readings.
 */
public final class IndividualMeans {
    private IndividualMeans() {}

    /**
     * One reading.
     *
     * @param individual the specimen
     * @param item this leaf, this spore; readings of the same item are repetitions. Empty: an item of its own
     */
    public record ItemValue(String individual, String item, double value) {}

    /** The mean of an individual's items. */
    public record Mean(String individual, int readings, int items, double value) {}

    /** One mean an individual, in the order of their first readings. */
    public static List<Mean> of(List<ItemValue> readings) {
        Map<String, Map<Object, List<Double>>> individuals = byItem(readings);
        List<Mean> means = new ArrayList<>();
        individuals.forEach((individual, items) -> {
            double[] ofItems = items.values().stream()
                    .mapToDouble(values -> Sums.mean(array(values)))
                    .toArray();
            int count = items.values().stream().mapToInt(List::size).sum();
            means.add(new Mean(individual, count, ofItems.length, Sums.mean(ofItems)));
        });
        return means;
    }

    /**
     * Standard deviation of one reading about the mean of its item: how well a reading can be repeated. The root of the
     * mean square within items of a one-way analysis of variance.
     *
     * @return {@link Double#NaN} if no item was read twice
     */
    public static double repeatability(List<ItemValue> readings) {
        Sums squares = new Sums();
        int degrees = 0;
        for (Map<Object, List<Double>> items : byItem(readings).values()) {
            for (List<Double> values : items.values()) {
                if (values.size() > 1) {
                    double[] repeated = array(values);
                    double sd = Sums.standardDeviation(repeated, Sums.mean(repeated));
                    squares.add(sd * sd * (repeated.length - 1));
                    degrees += repeated.length - 1;
                }
            }
        }
        return degrees == 0 ? Double.NaN : Math.sqrt(squares.total() / degrees);
    }

    private static Map<String, Map<Object, List<Double>>> byItem(List<ItemValue> readings) {
        Map<String, Map<Object, List<Double>>> individuals = new LinkedHashMap<>();
        for (ItemValue reading : readings) {
            Object item = reading.item().isEmpty() ? new Object() : reading.item();
            individuals
                    .computeIfAbsent(reading.individual(), i -> new LinkedHashMap<>())
                    .computeIfAbsent(item, i -> new ArrayList<>())
                    .add(reading.value());
        }
        return individuals;
    }

    private static double[] array(List<Double> values) {
        return values.stream().mapToDouble(v -> v).toArray();
    }
}
