package org.polyclave.study.measuring;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.measuring.IndividualMeans;
import org.polyclave.core.measuring.ProposedRange;
import org.polyclave.core.measuring.Slips;
import org.polyclave.core.statistics.Summary;
import org.polyclave.core.statistics.Tolerance;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.notation.NotationPrinter;
import org.polyclave.study.rules.InvalidInput;

/**
 * What the readings of a group of specimens come to, character by character: statistics of the individuals, readings that
 * should be looked at again, and the cell that the matrix should hold.
 *
 * <p>Repetitions are averaged to items and items to individuals before; flagged readings are part of everything until
 * somebody corrects them. Time O(n log n) in the readings, memory O(n).
 *
 * @param group the values of the fields by which readings were grouped, in their order
 * @param numbers empty for observations in words, and without readings
 * @param tolerance where 95 % of all individuals lie, with 95 % confidence; infinite for one individual
 * @param repeatability standard deviation of a reading about its item; empty if none was repeated
 * @param states how many individuals show what, the most frequent first; empty for numbers. An individual that was read
 *     twice with different results counts for both in halves
 * @param cell in the notation of cells; empty if there are too few individuals
 * @param provisional whether a range rests on fewer individuals than {@link ProposedRange#MANY}
 */
public record ReadingSummary(
        Map<String, String> group,
        String character,
        CharacterType type,
        String unit,
        Counts counts,
        Optional<Summary> numbers,
        Optional<Summary.Interval> tolerance,
        Optional<Double> repeatability,
        List<State> states,
        List<Flag> flagged,
        String cell,
        boolean provisional) {
    /**
     * @param missing readings that were not taken
     * @param collections collecting events, or 0 if the table does not tell them
     */
    public record Counts(int missing, int readings, int items, int individuals, int collections) {}

    /** @param individuals halves where readings of one individual differ */
    public record State(String label, double individuals) {}

    /**
     * A reading that should be looked at again.
     *
     * @param repaired what it would be without the slip, in the unit
     */
    public record Flag(int line, String specimen, String typed, Slips.Cause cause, Optional<Double> repaired) {}

    /** Fields by which readings are grouped unless somebody says otherwise: those of them that the table has. */
    public static List<String> usualFields(ReadingSheet readings) {
        // What is dried, kept in fluid or mounted has another size than what is fresh.
        return List.of("row", "stage", "sex", "material").stream()
                .filter(readings.fields()::contains)
                .toList();
    }

    /**
     * One summary for each group and character, groups in the order of their first readings.
     *
     * @param by fields of the table; empty: all readings are one group
     * @throws InvalidInput for a field that the table does not have
     */
    public static List<ReadingSummary> of(ReadingSheet readings, List<String> by) {
        for (String field : by) {
            if (!readings.fields().contains(field)) {
                throw new InvalidInput("The table has no column '" + field + "'. It has "
                        + (readings.fields().isEmpty()
                                ? "none that describes specimens"
                                : String.join(", ", readings.fields()))
                        + ".");
            }
        }
        Map<List<String>, Map<String, List<ReadingSheet.Measurement>>> groups = new LinkedHashMap<>();
        for (ReadingSheet.Column column : readings.columns()) {
            for (ReadingSheet.Measurement reading : column.readings()) {
                List<String> key = by.stream()
                        .map(f -> reading.about().getOrDefault(f, ""))
                        .toList();
                groups.computeIfAbsent(key, k -> new HashMap<>())
                        .computeIfAbsent(column.character(), c -> new ArrayList<>())
                        .add(reading);
            }
        }
        List<ReadingSummary> summaries = new ArrayList<>();
        groups.forEach((key, characters) -> {
            Map<String, String> group = new LinkedHashMap<>();
            for (int i = 0; i < by.size(); i++) {
                group.put(by.get(i), key.get(i));
            }
            for (ReadingSheet.Column column : readings.columns()) {
                List<ReadingSheet.Measurement> own = characters.get(column.character());
                if (own != null) {
                    summaries.add(of(group, column, own));
                }
            }
        });
        return summaries;
    }

    private static ReadingSummary of(
            Map<String, String> group, ReadingSheet.Column column, List<ReadingSheet.Measurement> all) {
        List<ReadingSheet.Measurement> taken = all.stream()
                .filter(r -> column.isNumeric() ? !Double.isNaN(r.number()) : !r.isMissing())
                .toList();
        List<IndividualMeans.ItemValue> readings = taken.stream()
                .map(r -> new IndividualMeans.ItemValue(r.specimen(), r.item(), r.number()))
                .toList();
        List<IndividualMeans.Mean> means = IndividualMeans.of(readings);
        Counts counts = new Counts(
                all.size() - taken.size(),
                taken.size(),
                means.stream().mapToInt(IndividualMeans.Mean::items).sum(),
                means.size(),
                collections(taken));
        return column.isNumeric() && !taken.isEmpty()
                ? measured(group, column, counts, taken, readings, means)
                : observed(group, column, counts, column.isNumeric() ? List.of() : states(taken));
    }

    private static ReadingSummary measured(
            Map<String, String> group,
            ReadingSheet.Column column,
            Counts counts,
            List<ReadingSheet.Measurement> taken,
            List<IndividualMeans.ItemValue> readings,
            List<IndividualMeans.Mean> means) {
        double[] individuals =
                means.stream().mapToDouble(IndividualMeans.Mean::value).toArray();
        Optional<ProposedRange> range = ProposedRange.of(individuals, column.step());
        double repeatability = IndividualMeans.repeatability(readings);
        return new ReadingSummary(
                group,
                column.character(),
                column.type(),
                column.unit(),
                counts,
                Optional.of(Summary.of(individuals)),
                Optional.of(Tolerance.of(individuals)),
                Double.isNaN(repeatability) ? Optional.empty() : Optional.of(repeatability),
                List.of(),
                flagged(column, taken),
                range.map(r -> cell(r, column.unit())).orElse(""),
                range.isPresent() && range.get().provisional());
    }

    private static ReadingSummary observed(
            Map<String, String> group, ReadingSheet.Column column, Counts counts, List<State> states) {
        return new ReadingSummary(
                group,
                column.character(),
                column.type(),
                column.unit(),
                counts,
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                states,
                List.of(),
                cell(states),
                false);
    }

    private static int collections(List<ReadingSheet.Measurement> readings) {
        Set<String> events = new HashSet<>();
        readings.forEach(r -> events.add(r.about().getOrDefault(ReadingSheet.EVENT, "")));
        events.remove("");
        return events.size();
    }

    private static List<State> states(List<ReadingSheet.Measurement> readings) {
        // "Red" and "red" are one state, named as it was first.
        Map<String, String> labels = new HashMap<>();
        Map<String, Set<String>> shown = new LinkedHashMap<>();
        for (ReadingSheet.Measurement reading : readings) {
            String label = labels.computeIfAbsent(reading.typed().toLowerCase(Locale.ROOT), l -> reading.typed());
            shown.computeIfAbsent(reading.specimen(), s -> new LinkedHashSet<>())
                    .add(label);
        }
        Map<String, Double> counts = new TreeMap<>();
        shown.values().forEach(of -> of.forEach(s -> counts.merge(s, 1.0 / of.size(), Double::sum)));
        return counts.entrySet().stream()
                .sorted(Map.Entry.<String, Double>comparingByValue().reversed())
                .map(e -> new State(e.getKey(), e.getValue()))
                .toList();
    }

    private static List<Flag> flagged(ReadingSheet.Column column, List<ReadingSheet.Measurement> readings) {
        double[] values =
                readings.stream().mapToDouble(ReadingSheet.Measurement::number).toArray();
        Map<String, Integer> numbers = new HashMap<>();
        int[] specimens = readings.stream()
                .mapToInt(r -> numbers.computeIfAbsent(r.specimen(), s -> numbers.size()))
                .toArray();
        List<Flag> flags = new ArrayList<>();
        for (Slips.Suspect suspect :
                Slips.of(values, column.step().doubleValue(), column.type() == CharacterType.COUNT, specimens)) {
            ReadingSheet.Measurement reading = readings.get(suspect.index());
            flags.add(
                    new Flag(reading.line(), reading.specimen(), reading.typed(), suspect.cause(), suspect.repaired()));
        }
        return flags;
    }

    private static String cell(ProposedRange range, String unit) {
        String text = NotationPrinter.range(range.min(), range.low(), range.high(), range.max());
        return unit.isEmpty() ? text : text + " " + unit;
    }

    private static String cell(List<State> states) {
        Map<String, Double> individuals = new LinkedHashMap<>();
        states.forEach(s -> individuals.put(s.label(), s.individuals()));
        return StateShares.of(individuals).stream()
                .map(s -> s.frequency() == ScoreValue.Frequency.PLAIN
                        ? s.state()
                        : s.frequency().name().toLowerCase(Locale.ROOT) + " " + s.state())
                .collect(Collectors.joining(", "));
    }
}
