package org.polyclave.study.measuring;

import java.math.BigDecimal;
import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.HashSet;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.measuring.IndividualMeans;
import org.polyclave.core.measuring.Pooling;
import org.polyclave.core.measuring.ProposedRange;
import org.polyclave.core.measuring.Slips;
import org.polyclave.core.statistics.Sampling;
import org.polyclave.core.statistics.Summary;
import org.polyclave.study.measuring.Evidence.Item;
import org.polyclave.study.measuring.Evidence.Material;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.model.StudyScore.Sample;
import org.polyclave.study.notation.NotationPrinter;

/**
 * What the readings of a row come to: statistics of its individuals, readings to be looked at again, and the cell that the
 * matrix should hold. Time O(n log n) in the readings.
 */
public final class Proposals {
    private static final HexFormat HEX = HexFormat.of();
    private static final int DIGEST = 8;

    private Proposals() {}

    /** How a cell stands to what was read. */
    public enum Standing {
        /** Too few individuals for a cell. */
        TOO_FEW,
        /** The cell was made of just these readings. */
        MADE_OF_THESE,
        /** The cell was made of other readings, or before some of these. */
        OUT_OF_DATE,
        /** The cell has another origin and says the same. */
        AGREES,
        /** The cell has another origin, and admits all that was read and more. */
        WITHIN,
        /** The cell has another origin, and shuts out some of what was read. */
        BEYOND,
        /** Nothing is known of the cell. */
        EMPTY
    }

    /**
     * One that should be looked at again.
     *
     * @param item its place among the row's items
     * @param repaired what it would be without the slip, in the base unit
     */
    public record Flag(int item, Slips.Cause cause, Optional<Double> repaired) {}

    /** @param collections collecting events that are told */
    public record ReadCounts(int readings, int items, int individuals, int collections) {
        /** The probability with which the next individual may lie outside a range that holds. */
        private static final double OUTSIDE = 0.05;

        /** Individuals still to be measured until one of twenty at most lies outside the range. */
        public int more() {
            return Sampling.untilRangeHolds(individuals, OUTSIDE);
        }

        /** Whether several individuals come from one gathering only, so that they are hardly more than one. */
        public boolean areOneGathering() {
            return collections == 1 && individuals > 1;
        }
    }

    /**
     * Two sexes or stages of one row that should not be measured as one.
     *
     * @param apart difference of their means in standard deviations within them
     */
    public record Unlike(String first, String second, double apart) {}

    /**
     * What the items of one row come to.
     *
     * @param material of the items that count; those in other material are left out
     * @param leftOut items in other material
     * @param numbers statistics of the individuals in the base unit; empty for states
     * @param repeatability standard deviation of a reading about its item; empty if none was repeated
     * @param unlike sexes or stages that the row mixes and should not; empty if it may
     * @param shares for states
     * @param flags by place among {@code items}, of all that are not settled
     * @param value proposed; null if there are too few individuals
     * @param notation of the proposed value; empty if there is none
     * @param sample what goes with it; null if there is none
     */
    public record Proposal(
            String row,
            String character,
            List<Item> items,
            Material material,
            int leftOut,
            ReadCounts counts,
            Optional<Summary> numbers,
            Optional<Double> repeatability,
            Optional<Unlike> unlike,
            List<StateShares.Share> shares,
            List<Flag> flags,
            @Nullable ScoreValue value,
            String notation,
            @Nullable Sample sample,
            Standing standing) {
        /** Whether the cell should be looked at. */
        public boolean isNews() {
            return standing == Standing.OUT_OF_DATE || standing == Standing.BEYOND || standing == Standing.EMPTY;
        }

        /**
         * The proposed value as a score made of these readings; what was noted of the cell, and its months, stay. Empty if
         * nothing is proposed.
         *
         * @param old score of the cell; null if it had none
         */
        public Optional<StudyScore> score(@Nullable StudyScore old, String scorer, String date) {
            return Optional.ofNullable(value)
                    .map(v -> new StudyScore(
                            row,
                            character,
                            v,
                            notation,
                            StudyScore.Basis.SPECIMENS,
                            "",
                            false,
                            old == null ? "" : old.note(),
                            old == null ? List.of() : old.months(),
                            scorer,
                            date,
                            "",
                            sample));
        }
    }

    /** @param score that the cell has now, of its own or inherited; null if it has none */
    public static Proposal of(Evidence.RowReadings evidence, StudyCharacter character, @Nullable StudyScore score) {
        List<Item> counting = evidence.counting();
        Material material = mostUsual(counting);
        List<Item> used =
                counting.stream().filter(i -> i.material() == material).toList();
        boolean numeric = character.type().isNumeric();
        List<IndividualMeans.ItemValue> readings = used.stream()
                .map(i -> new IndividualMeans.ItemValue(i.specimen(), i.item(), i.value()))
                .toList();
        List<IndividualMeans.Mean> means = IndividualMeans.of(readings);
        ReadCounts counts = new ReadCounts(
                used.stream().mapToInt(i -> i.readings().size()).sum(),
                means.stream().mapToInt(IndividualMeans.Mean::items).sum(),
                means.size(),
                events(used));
        double[] individuals =
                means.stream().mapToDouble(IndividualMeans.Mean::value).toArray();
        Optional<Summary> summary =
                numeric && individuals.length > 0 ? Optional.of(Summary.of(individuals)) : Optional.empty();
        double repeatability = numeric ? IndividualMeans.repeatability(readings) : Double.NaN;
        List<StateShares.Share> shares = numeric ? List.of() : shares(used);
        boolean few = counts.individuals() < ProposedRange.FEW;
        ScoreValue value = few ? null : numeric ? range(individuals, used) : states(shares);
        Sample sample = few ? null : sample(counts, used, summary);
        return new Proposal(
                evidence.row(),
                character.id(),
                evidence.items(),
                material,
                counting.size() - used.size(),
                counts,
                summary,
                Double.isNaN(repeatability) ? Optional.empty() : Optional.of(repeatability),
                numeric ? unlike(used) : Optional.empty(),
                shares,
                numeric ? flags(evidence.items(), used, character) : List.of(),
                value,
                value == null ? "" : NotationPrinter.print(value, character),
                sample,
                standing(evidence.row(), value, used, score, character));
    }

    private static Optional<Unlike> unlike(List<Item> used) {
        Map<String, List<IndividualMeans.ItemValue>> kinds = new TreeMap<>();
        used.stream()
                .filter(i -> !i.kind().isEmpty())
                .forEach(i -> kinds.computeIfAbsent(i.kind(), k -> new ArrayList<>())
                        .add(new IndividualMeans.ItemValue(i.specimen(), i.item(), i.value())));
        List<String> names = new ArrayList<>();
        List<double[]> groups = new ArrayList<>();
        kinds.forEach((kind, readings) -> {
            double[] means = IndividualMeans.of(readings).stream()
                    .mapToDouble(IndividualMeans.Mean::value)
                    .toArray();
            if (means.length > 1) {
                names.add(kind);
                groups.add(means);
            }
        });
        if (groups.size() < 2) {
            return Optional.empty();
        }
        Pooling pooling = Pooling.of(groups);
        return pooling.isHonest()
                ? Optional.empty()
                : Optional.of(new Unlike(names.get(pooling.first()), names.get(pooling.last()), pooling.apart()));
    }

    /** The material of most individuals; of several with as many the first. */
    static Material mostUsual(List<Item> items) {
        Map<Material, Set<String>> specimens = new EnumMap<>(Material.class);
        items.forEach(i ->
                specimens.computeIfAbsent(i.material(), m -> new HashSet<>()).add(i.specimen()));
        return specimens.entrySet().stream()
                .max(Comparator.<Map.Entry<Material, Set<String>>>comparingInt(
                                e -> e.getValue().size())
                        .thenComparing(Map.Entry::getKey, Comparator.reverseOrder()))
                .map(Map.Entry::getKey)
                .orElse(Material.FRESH);
    }

    private static int events(List<Item> items) {
        Set<String> events = new HashSet<>();
        items.forEach(i -> events.add(i.event()));
        events.remove("");
        return events.size();
    }

    private static @Nullable ScoreValue range(double[] individuals, List<Item> used) {
        BigDecimal step =
                used.stream().map(Item::step).min(Comparator.naturalOrder()).orElse(BigDecimal.ONE);
        return ProposedRange.of(individuals, step)
                .map(r -> new ScoreValue.Range(r.min(), r.low(), r.high(), r.max()))
                .orElse(null);
    }

    private static List<StateShares.Share> shares(List<Item> used) {
        Map<String, Set<List<String>>> shown = new LinkedHashMap<>();
        used.forEach(i ->
                shown.computeIfAbsent(i.specimen(), s -> new LinkedHashSet<>()).add(i.states()));
        Map<String, Double> individuals = new TreeMap<>();
        for (Set<List<String>> readings : shown.values()) {
            Set<String> states = new LinkedHashSet<>();
            readings.forEach(states::addAll);
            states.forEach(s -> individuals.merge(s, 1.0 / states.size(), Double::sum));
        }
        return StateShares.of(individuals);
    }

    private static ScoreValue states(List<StateShares.Share> shares) {
        return new ScoreValue.States(
                shares.stream()
                        .map(s -> new ScoreValue.Shown(s.state(), s.frequency()))
                        .toList(),
                ScoreValue.Combination.VARY);
    }

    private static Sample sample(ReadCounts counts, List<Item> used, Optional<Summary> summary) {
        List<String> specimens =
                used.stream().map(Item::specimen).distinct().sorted().toList();
        Double sd = summary.map(Summary::sd).filter(s -> !Double.isNaN(s)).orElse(null);
        return new Sample(
                counts.items(),
                counts.individuals(),
                counts.collections() == 0 ? null : counts.collections(),
                specimens,
                sd == null ? null : summary.map(Summary::mean).orElse(null),
                sd,
                summary.isPresent() && counts.individuals() < ProposedRange.MANY,
                digest(used));
    }

    /** Names just these readings with what they say: any other, more or fewer, or corrected, and it is another name. */
    private static String digest(List<Item> used) {
        try {
            MessageDigest digest = MessageDigest.getInstance("SHA-256");
            List<String> lines = new ArrayList<>();
            used.forEach(i -> lines.add(String.join(",", i.readings()) + " " + i.specimen() + " " + i.item() + " "
                    + i.value() + " " + String.join("+", i.states())));
            lines.sort(Comparator.naturalOrder());
            lines.forEach(line -> digest.update((line + "\n").getBytes(StandardCharsets.UTF_8)));
            return HEX.formatHex(digest.digest(), 0, DIGEST);
        } catch (NoSuchAlgorithmException impossible) {
            throw new IllegalStateException("Every Java has SHA-256", impossible);
        }
    }

    private static List<Flag> flags(List<Item> all, List<Item> used, StudyCharacter character) {
        double[] values = used.stream().mapToDouble(Item::value).toArray();
        if (values.length == 0) {
            return List.of();
        }
        double spread = used.stream()
                .mapToDouble(i -> Math.max(i.step().doubleValue(), i.uncertainty()))
                .min()
                .orElse(1);
        int[] places = IntStream.range(0, all.size())
                .filter(i -> all.get(i).counts()
                        && all.get(i).material() == used.get(0).material())
                .toArray();
        Map<String, Integer> numbers = new HashMap<>();
        int[] specimens = used.stream()
                .mapToInt(i -> numbers.computeIfAbsent(i.specimen(), s -> numbers.size()))
                .toArray();
        List<Flag> flags = new ArrayList<>();
        for (Slips.Suspect suspect : Slips.of(values, spread, character.type() == CharacterType.COUNT, specimens)) {
            Item item = used.get(suspect.index());
            if (item.standing() == Reading.Standing.TAKEN) {
                // A mean of several readings is not one that somebody wrote with its digits swapped.
                boolean meant = item.readings().size() > 1 && suspect.cause() == Slips.Cause.TRANSPOSED_DIGITS;
                flags.add(new Flag(
                        places[suspect.index()],
                        meant ? Slips.Cause.OUTLIER : suspect.cause(),
                        meant ? Optional.empty() : suspect.repaired()));
            }
        }
        return flags;
    }

    private static Standing standing(
            String row,
            @Nullable ScoreValue value,
            List<Item> used,
            @Nullable StudyScore score,
            StudyCharacter character) {
        boolean own = score != null && score.row().equals(row);
        String made = !own || score == null || score.sample() == null
                ? ""
                : score.sample().readings();
        if (!made.isEmpty()) {
            return made.equals(digest(used)) ? Standing.MADE_OF_THESE : Standing.OUT_OF_DATE;
        }
        if (value == null) {
            return Standing.TOO_FEW;
        }
        if (score == null || score.value() instanceof ScoreValue.Unknown) {
            return Standing.EMPTY;
        }
        // As people read it: a state that is told in another order, or a digit behind the last, is no news.
        if (NotationPrinter.print(score.value(), character).equals(NotationPrinter.print(value, character))) {
            return Standing.AGREES;
        }
        return admits(score.value(), value) ? Standing.WITHIN : Standing.BEYOND;
    }

    private static boolean admits(ScoreValue cell, ScoreValue read) {
        if (cell instanceof ScoreValue.Range range && read instanceof ScoreValue.Range of) {
            Double most = range.max();
            return range.min() <= of.min() && (most == null || (of.max() != null && of.max() <= most));
        }
        if (cell instanceof ScoreValue.States states && read instanceof ScoreValue.States of) {
            Set<String> admitted = new HashSet<>();
            states.shown().stream()
                    .filter(s -> s.frequency() != ScoreValue.Frequency.MISTAKEN)
                    .forEach(s -> admitted.add(s.state()));
            return of.shown().stream().allMatch(s -> admitted.contains(s.state()));
        }
        return cell instanceof ScoreValue.Any;
    }
}
