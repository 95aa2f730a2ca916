package org.polyclave.formats.reading;

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
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.measure.IndividualMeans;
import org.polyclave.core.measure.ProposedRange;
import org.polyclave.core.measure.Slips;
import org.polyclave.core.measure.Summary;
import org.polyclave.formats.notation.NotationPrinter;

/**
 * What the readings of a group of specimens come to, character by character: statistics of the individuals, readings that
 * should be looked at again, and the cell that the matrix should hold.
 *
 * <p>Repetitions are averaged to items and items to individuals before; flagged readings are part of everything until
 * somebody mends them. Time O(n log n) in the readings, memory O(n).
 *
 * @param group the values of the fields by which readings were grouped, in their order
 * @param missing readings that were not taken
 * @param collections collecting events, or 0 if the table does not tell them
 * @param numbers empty for observations in words, and without readings
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
        int missing,
        int readings,
        int items,
        int individuals,
        int collections,
        Optional<Summary> numbers,
        Optional<Double> repeatability,
        List<State> states,
        List<Flag> flagged,
        String cell,
        boolean provisional) {
    private static final double USUALLY = 0.6;
    private static final double RARELY = 0.1;

    /** @param individuals halves where readings of one individual differ */
    public record State(String label, double individuals) {}

    /**
     * A reading that should be looked at again.
     *
     * @param cause {@code outlier}, {@code fraction} of a count, or the {@link Slips.Cause} in small letters
     * @param repaired what it would be without the slip, in the unit
     */
    public record Flag(int line, String specimen, String typed, String cause, Optional<Double> repaired) {}

    /** Fields by which readings are grouped unless somebody says otherwise: those of them that the table has. */
    public static List<String> usualFields(Readings readings) {
        // What is dried, kept in fluid or mounted has another size than what is fresh.
        return List.of("row", "stage", "sex", "material").stream()
                .filter(readings.fields()::contains)
                .toList();
    }

    /**
     * One summary for each group and character, groups in the order of their first readings.
     *
     * @param by fields of the table; empty: all readings are one group
     * @throws IllegalArgumentException for a field that the table does not have
     */
    public static List<ReadingSummary> of(Readings readings, List<String> by) {
        for (String field : by) {
            if (!readings.fields().contains(field)) {
                throw new IllegalArgumentException("The table has no column '" + field + "'. It has "
                        + (readings.fields().isEmpty()
                                ? "none that describes specimens"
                                : String.join(", ", readings.fields()))
                        + ".");
            }
        }
        Map<List<String>, Map<String, List<Readings.Reading>>> groups = new LinkedHashMap<>();
        for (Readings.Column column : readings.columns()) {
            for (Readings.Reading reading : column.readings()) {
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
            for (Readings.Column column : readings.columns()) {
                List<Readings.Reading> own = characters.get(column.character());
                if (own != null) {
                    summaries.add(of(group, column, own));
                }
            }
        });
        return summaries;
    }

    private static ReadingSummary of(Map<String, String> group, Readings.Column column, List<Readings.Reading> all) {
        List<Readings.Reading> taken = all.stream()
                .filter(r -> column.isNumeric() ? !Double.isNaN(r.number()) : !r.isMissing())
                .toList();
        List<IndividualMeans.Reading> numbers = taken.stream()
                .map(r -> new IndividualMeans.Reading(r.specimen(), r.item(), column.isNumeric() ? r.number() : 0))
                .toList();
        List<IndividualMeans.Mean> means = IndividualMeans.of(numbers);
        double[] individuals =
                means.stream().mapToDouble(IndividualMeans.Mean::value).toArray();
        boolean measured = column.isNumeric() && individuals.length > 0;
        List<State> states = column.isNumeric() ? List.of() : states(taken);
        double repeatability = measured ? IndividualMeans.repeatability(numbers) : Double.NaN;
        Optional<ProposedRange.Range> range = measured
                ? Optional.of(ProposedRange.of(individuals, column.step()))
                        .filter(ProposedRange.Range.class::isInstance)
                        .map(ProposedRange.Range.class::cast)
                : Optional.empty();
        return new ReadingSummary(
                group,
                column.character(),
                column.type(),
                column.unit(),
                all.size() - taken.size(),
                taken.size(),
                means.stream().mapToInt(IndividualMeans.Mean::items).sum(),
                individuals.length,
                collections(taken),
                measured ? Optional.of(Summary.of(individuals)) : Optional.empty(),
                Double.isNaN(repeatability) ? Optional.empty() : Optional.of(repeatability),
                states,
                column.isNumeric() ? flagged(column, taken) : List.of(),
                column.isNumeric() ? range.map(r -> cell(r, column.unit())).orElse("") : cell(states),
                range.map(ProposedRange.Range::provisional).orElse(false));
    }

    private static int collections(List<Readings.Reading> readings) {
        Set<String> events = new HashSet<>();
        readings.forEach(r -> events.add(r.about().getOrDefault(ReadingTable.EVENT, "")));
        events.remove("");
        return events.size();
    }

    private static List<State> states(List<Readings.Reading> readings) {
        // Several spellings of a state are told apart by nothing but their first one.
        Map<String, String> labels = new HashMap<>();
        Map<String, Set<String>> shown = new LinkedHashMap<>();
        for (Readings.Reading reading : readings) {
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

    private static List<Flag> flagged(Readings.Column column, List<Readings.Reading> readings) {
        double[] values =
                readings.stream().mapToDouble(Readings.Reading::number).toArray();
        Map<Integer, Flag> flags = new TreeMap<>();
        for (Slips.Suspect suspect : Slips.of(values, column.step().doubleValue())) {
            Readings.Reading reading = readings.get(suspect.index());
            String cause = suspect.repair()
                    .map(r -> r.cause().name().toLowerCase(Locale.ROOT).replace('_', '-'))
                    .orElse("outlier");
            flags.put(suspect.index(), flag(reading, cause, suspect.repair().map(Slips.Repair::value)));
        }
        for (int i = 0; i < values.length && column.type() == CharacterType.COUNT; i++) {
            if (values[i] % 1 != 0) {
                flags.putIfAbsent(i, flag(readings.get(i), "fraction", Optional.empty()));
            }
        }
        return List.copyOf(flags.values());
    }

    private static Flag flag(Readings.Reading reading, String cause, Optional<Double> repaired) {
        return new Flag(reading.line(), reading.specimen(), reading.typed(), cause, repaired);
    }

    private static String cell(ProposedRange.Range range, String unit) {
        String text = NotationPrinter.range(range.min(), range.low(), range.high(), range.max());
        return unit.isEmpty() ? text : text + " " + unit;
    }

    /** Shares in the words of cells; states that are about as frequent as each other stand without one. */
    private static String cell(List<State> states) {
        double all = states.stream().mapToDouble(State::individuals).sum();
        boolean usually = states.size() > 1 && states.get(0).individuals() >= USUALLY * all;
        List<String> parts = new ArrayList<>();
        for (State state : states) {
            double share = state.individuals() / all;
            String word =
                    share < RARELY ? "rarely " : share >= USUALLY && usually ? "usually " : usually ? "sometimes " : "";
            parts.add(word + state.label());
        }
        return String.join(", ", parts);
    }
}
