package org.polyclave.study.measuring;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.measuring.Ratio;
import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.TypedNumber;
import org.polyclave.study.notation.TypedRule;
import org.polyclave.study.rules.StudyRules;

/**
 * The readings of one character, row by row: those that are evidence for what the row shows, and the others with the reason
 * why they are not.
 *
 * <p>A specimen counts for the taxon that it is identified as now, or for its sex or stage where the matrix has a row for it. It
 * says nothing about a character by which it was named, or that was altered by what was done to it before it was read. A ratio
 * is taken for each item of which both parts were read, never from summaries. Time and memory linear in the study's readings.
 */
public final class Evidence {
    private final Study study;
    private final Map<String, Specimen> specimens = new HashMap<>();
    private final Map<String, StudyRow> rows = new HashMap<>();
    private final Map<String, StudyCharacter> characters = new HashMap<>();
    private final Map<String, List<StudyRow>> stagesOf = new HashMap<>();
    private final Map<String, List<Reading>> byCharacter = new HashMap<>();

    public Evidence(Study study) {
        this.study = study;
        study.specimens().forEach(s -> specimens.put(s.id(), s));
        study.characters().forEach(c -> characters.put(c.id(), c));
        for (StudyRow row : study.rows()) {
            rows.put(row.id(), row);
            if (row.isSemaphoront() && row.parent() != null) {
                stagesOf.computeIfAbsent(row.parent(), p -> new ArrayList<>()).add(row);
            }
        }
        study.readings()
                .forEach(r -> byCharacter
                        .computeIfAbsent(r.character(), c -> new ArrayList<>())
                        .add(r));
    }

    public Study study() {
        return study;
    }

    /** Characters of which anything was read, or can be worked out, in the study's order. */
    public List<StudyCharacter> read() {
        return study.characters().stream()
                .filter(c -> byCharacter.containsKey(c.id())
                        || (c.ratioOf().size() == 2 && c.ratioOf().stream().allMatch(byCharacter::containsKey)))
                .toList();
    }

    /** Why a reading is not evidence. */
    public enum Barred {
        SET_ASIDE,
        NOT_DETERMINED,
        DOUBTFULLY_DETERMINED,
        /** The character gave the specimen its name. */
        CIRCULAR,
        /** What was done to the specimen alters the character. */
        ALTERED,
        /** Told by a rule of thumb: on record, but too rough for a range. */
        ROUGH
    }

    /** What a specimen was when it was read: sizes differ between these, so they are summarised apart. */
    public enum Material {
        FRESH,
        DRIED,
        FLUID,
        MOUNTED
    }

    /**
     * One reading, or a ratio of two.
     *
     * @param readings ids of the readings that it is made of
     * @param item empty: an item of its own
     * @param value in the base unit; NaN for states
     * @param uncertainty standard uncertainty in the base unit; 0 if not known
     * @param kind sex or stage of the specimen; empty if not known
     * @param event where and when the specimen was found; specimens of one event are not independent
     * @param standing as the reading's; a ratio is looked at again if both parts were
     * @param barred null if it is evidence
     */
    public record Item(
            List<String> readings,
            String specimen,
            String item,
            double value,
            List<String> states,
            double uncertainty,
            BigDecimal step,
            String kind,
            String event,
            Material material,
            Reading.Standing standing,
            @Nullable Barred barred) {
        public boolean counts() {
            return barred == null;
        }
    }

    /** What was read of a character in the specimens of one row; {@code row} is empty where they have no name. */
    public record RowReadings(String row, List<Item> items) {
        public List<Item> counting() {
            return items.stream().filter(Item::counts).toList();
        }
    }

    /** Row by row in the study's order; those of specimens without a name last. */
    public List<RowReadings> of(StudyCharacter character) {
        Map<String, List<Item>> found = new HashMap<>();
        for (Item item : items(character)) {
            found.computeIfAbsent(rowOf(specimens.get(item.specimen())), r -> new ArrayList<>())
                    .add(item);
        }
        List<RowReadings> ordered = new ArrayList<>();
        study.rows()
                .forEach(r -> Optional.ofNullable(found.remove(r.id()))
                        .ifPresent(i -> ordered.add(new RowReadings(r.id(), i))));
        found.values().forEach(i -> ordered.add(new RowReadings("", i)));
        return ordered;
    }

    private List<Item> items(StudyCharacter character) {
        List<Item> items = new ArrayList<>(items(character, character));
        if (character.ratioOf().size() == 2) {
            StudyCharacter part = characters.get(character.ratioOf().get(0));
            StudyCharacter whole = characters.get(character.ratioOf().get(1));
            if (part != null && whole != null) {
                items.addAll(ratios(character, items(part, character), items(whole, character)));
            }
        }
        return items;
    }

    /** @param used for which the readings are used: their own character, or a ratio of it */
    private List<Item> items(StudyCharacter character, StudyCharacter used) {
        return byCharacter.getOrDefault(character.id(), List.of()).stream()
                .map(r -> item(r, character, used))
                .toList();
    }

    private Item item(Reading reading, StudyCharacter character, StudyCharacter used) {
        Specimen specimen = specimens.get(reading.specimen());
        Double value = reading.value();
        Double uncertainty = reading.uncertainty();
        Barred barred = barred(reading, specimen, character);
        return new Item(
                List.of(reading.id()),
                reading.specimen(),
                reading.item(),
                value == null ? Double.NaN : value,
                reading.states(),
                uncertainty == null ? 0 : uncertainty,
                step(reading, character),
                specimen == null ? "" : kind(specimen),
                specimen == null ? "" : event(specimen),
                specimen == null ? Material.FRESH : material(specimen, reading.date()),
                reading.standing(),
                barred == null ? barred(reading, specimen, used) : barred);
    }

    private static BigDecimal step(Reading reading, StudyCharacter character) {
        Optional<TypedNumber> typed = TypedNumber.parse(reading.typed());
        if (typed.isEmpty() || character.type() == CharacterType.COUNT) {
            return BigDecimal.ONE;
        }
        String unit =
                typed.get().unit().isEmpty() ? character.unit() : typed.get().unit();
        double factor = Units.factor(character.type(), unit).orElse(1.0);
        return typed.get().step().multiply(BigDecimal.valueOf(factor));
    }

    private static String kind(Specimen specimen) {
        return (specimen.sex() + " " + specimen.stage()).strip().toLowerCase(Locale.ROOT);
    }

    /** Place and date by which specimens are told to be from one gathering. */
    private static String event(Specimen specimen) {
        Specimen.Event event = specimen.event();
        String where = event.place().isBlank() ? event.coordinates() : event.place();
        return where.isBlank() && event.date().isBlank() ? "" : StudyRules.folded(where) + " " + event.date();
    }

    private static @Nullable Barred barred(Reading reading, @Nullable Specimen specimen, StudyCharacter character) {
        if (reading.standing() == Reading.Standing.SET_ASIDE) {
            return Barred.SET_ASIDE;
        }
        Optional<Specimen.Determination> present = specimen == null ? Optional.empty() : specimen.present();
        if (specimen == null || present.isEmpty()) {
            return Barred.NOT_DETERMINED;
        }
        if (!present.get().qualifier().isEmpty()) {
            return Barred.DOUBTFULLY_DETERMINED;
        }
        if (specimen.isDeterminedBy(character.id())
                || character.ratioOf().stream().anyMatch(specimen::isDeterminedBy)) {
            return Barred.CIRCULAR;
        }
        boolean altered = specimen.treatments().stream()
                .anyMatch(t -> character.looking().alteredBy().contains(t.how()) && isBefore(t, reading.date()));
        if (altered) {
            return Barred.ALTERED;
        }
        return TypedRule.parse(reading.typed()).isPresent() ? Barred.ROUGH : null;
    }

    /** What is not known to have been done later was done before. */
    private static boolean isBefore(Specimen.Treatment treatment, String read) {
        return read.isEmpty() || treatment.date().isEmpty() || treatment.date().compareTo(read) <= 0;
    }

    private static Material material(Specimen specimen, String read) {
        Material material = Material.FRESH;
        for (Specimen.Treatment treatment : specimen.treatments()) {
            if (isBefore(treatment, read)) {
                material = switch (treatment.how()) {
                    case DRIED -> Material.DRIED;
                    case FLUID -> Material.FLUID;
                    case MOUNTED -> Material.MOUNTED;
                    case CUT, DISSECTED -> material;
                };
            }
        }
        return material;
    }

    /** The row for which a specimen speaks; empty if it has no name. */
    public String rowOf(String specimen) {
        return rowOf(specimens.get(specimen));
    }

    private String rowOf(@Nullable Specimen specimen) {
        String row = specimen == null
                ? ""
                : specimen.present().map(Specimen.Determination::row).orElse("");
        if (specimen == null || !rows.containsKey(row)) {
            return "";
        }
        return stagesOf.getOrDefault(row, List.of()).stream()
                .filter(s -> isOf(s, specimen.sex()) || isOf(s, specimen.stage()))
                .map(StudyRow::id)
                .findFirst()
                .orElse(row);
    }

    private static boolean isOf(StudyRow stage, String told) {
        return !told.isBlank() && StudyRules.folded(stage.stage()).equals(StudyRules.folded(told));
    }

    private static List<Item> ratios(StudyCharacter character, List<Item> parts, List<Item> wholes) {
        Map<List<String>, List<Item>> byThing = byThing(wholes);
        List<Item> ratios = new ArrayList<>();
        byThing(parts).forEach((thing, of) -> {
            List<Item> to = byThing.getOrDefault(thing, List.of());
            double whole = mean(to);
            if (!to.isEmpty() && whole > 0) {
                Ratio ratio = Ratio.of(mean(of), uncertainty(of), whole, uncertainty(to));
                ratios.add(ratio(character, of, to, ratio));
            }
        });
        return ratios;
    }

    /** What can be compared: items that bear a name, else all that was read of a specimen, in one material. */
    private static Map<List<String>, List<Item>> byThing(List<Item> items) {
        Map<List<String>, List<Item>> byThing = new LinkedHashMap<>();
        for (Item item : items) {
            if (item.barred() != Barred.SET_ASIDE) {
                byThing.computeIfAbsent(
                                List.of(
                                        item.specimen(),
                                        item.item(),
                                        item.material().name()),
                                t -> new ArrayList<>())
                        .add(item);
            }
        }
        return byThing;
    }

    private static double mean(List<Item> items) {
        return items.stream().mapToDouble(Item::value).average().orElse(0);
    }

    private static double uncertainty(List<Item> items) {
        double squares = items.stream()
                .mapToDouble(i -> i.uncertainty() * i.uncertainty())
                .sum();
        return Math.sqrt(squares) / items.size();
    }

    private static Item ratio(StudyCharacter character, List<Item> of, List<Item> to, Ratio ratio) {
        Item first = of.get(0);
        List<Item> both = new ArrayList<>(of);
        both.addAll(to);
        List<String> ids = both.stream().flatMap(i -> i.readings().stream()).toList();
        boolean kept = both.stream().allMatch(i -> i.standing() == Reading.Standing.KEPT);
        Barred barred = both.stream()
                .map(Item::barred)
                .filter(Objects::nonNull)
                .findFirst()
                .orElse(null);
        return new Item(
                ids,
                first.specimen(),
                first.item(),
                ratio.value(),
                List.of(),
                Math.max(ratio.uncertainty(), character.uncertainty()),
                new BigDecimal("0.01"),
                first.kind(),
                first.event(),
                first.material(),
                kept ? Reading.Standing.KEPT : Reading.Standing.TAKEN,
                barred);
    }
}
