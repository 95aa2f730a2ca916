package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.statistics.Measured;

/**
 * The accepted score of a cell.
 *
 * @param typed the notation as it was typed
 * @param basis where it comes from
 * @param source citation or other origin; the id of a reference of the study where it is one
 * @param months numbers 1 to 12 in which the row shows the character, where they differ from the character's; else empty
 * @param scorer who scored it; empty if not known
 * @param date day of scoring as ISO 8601; empty if not known
 * @param concept the concept that the source used: "sensu Orrin", "s.l."
 * @param sample what it was measured on; null if not said
 * @param confirmed who looked at it again and stands for it: what was imported is not evidence against a danger before
 */
@RecordBuilder
public record StudyScore(
        String row,
        String character,
        ScoreValue value,
        String typed,
        Basis basis,
        String source,
        boolean doubtful,
        String note,
        List<Integer> months,
        String scorer,
        String date,
        String concept,
        @Nullable Sample sample,
        List<Confirmation> confirmed)
        implements StudyScoreBuilder.With {
    public StudyScore {
        months = Defaults.list(months);
        scorer = Defaults.or(scorer, "");
        date = Defaults.or(date, "");
        concept = Defaults.or(concept, "");
        confirmed = Defaults.list(confirmed);
    }

    public StudyScore(
            String row,
            String character,
            ScoreValue value,
            String typed,
            Basis basis,
            String source,
            boolean doubtful,
            String note) {
        this(row, character, value, typed, basis, source, doubtful, note, List.of(), "", "", "", null, List.of());
    }

    /** A score of which nobody said what it was measured on. */
    public StudyScore(
            String row,
            String character,
            ScoreValue value,
            String typed,
            Basis basis,
            String source,
            boolean doubtful,
            String note,
            List<Integer> months,
            String scorer,
            String date,
            String concept) {
        this(
                row, character, value, typed, basis, source, doubtful, note, months, scorer, date, concept, null,
                List.of());
    }

    /** A score that nobody has confirmed. */
    public StudyScore(
            String row,
            String character,
            ScoreValue value,
            String typed,
            Basis basis,
            String source,
            boolean doubtful,
            String note,
            List<Integer> months,
            String scorer,
            String date,
            String concept,
            @Nullable Sample sample) {
        this(
                row, character, value, typed, basis, source, doubtful, note, months, scorer, date, concept, sample,
                List.of());
    }

    /** Another value: whoever confirmed the old one has not confirmed this. */
    public StudyScore withValue(ScoreValue newValue, String newTyped) {
        return with().value(newValue).typed(newTyped).confirmed(List.of()).build();
    }

    public StudyScore withDoubt(boolean newDoubt) {
        return withDoubtful(newDoubt);
    }

    /**
     * Somebody looked at a score beside what it comes from, and stands for it.
     *
     * @param by account
     * @param date day as ISO 8601
     * @param source by what it was checked
     */
    public record Confirmation(String by, String date, String source) {}

    /**
     * How many things were measured. One individual has several items: leaves, spores.
     *
     * @param items null if not said
     * @param individuals null if not said
     * @param collections places and dates at which they were gathered; null if not said
     * @param specimens ids of the specimens of the study among them
     * @param mean of the individuals, in the base unit; null if not said
     * @param sd standard deviation of the individuals (n − 1); null if not said
     * @param provisional true if more individuals are likely to widen the range, else null
     * @param readings digest of the readings that the score was made of, by which a later one is noticed; empty if it was
     *     not made of readings
     */
    public record Sample(
            @Nullable Integer items,
            @Nullable Integer individuals,
            @Nullable Integer collections,
            List<String> specimens,
            @Nullable Double mean,
            @Nullable Double sd,
            @Nullable Boolean provisional,
            String readings) {
        public Sample {
            specimens = Defaults.list(specimens);
            readings = Defaults.or(readings, "");
            provisional = Boolean.TRUE.equals(provisional) ? true : null;
        }

        /** A sample that was not made of the study's readings. */
        public Sample(
                @Nullable Integer items,
                @Nullable Integer individuals,
                @Nullable Integer collections,
                List<String> specimens,
                @Nullable Double mean,
                @Nullable Double sd,
                @Nullable Boolean provisional) {
            this(items, individuals, collections, specimens, mean, sd, provisional, "");
        }

        /** A sample of which nothing but its size is known. */
        public static Sample of(
                @Nullable Integer items,
                @Nullable Integer individuals,
                @Nullable Integer collections,
                List<String> specimens) {
            return new Sample(items, individuals, collections, specimens, null, null, null);
        }

        /** The same sample; which specimens it was is not told, but how many individuals is. */
        public Sample withoutSpecimens() {
            return new Sample(items, knownIndividuals(), collections, List.of(), mean, sd, provisional);
        }

        /** The same sample as one that was made of readings. */
        public Sample madeOf(String newReadings) {
            return new Sample(items, individuals, collections, specimens, mean, sd, provisional, newReadings);
        }

        /** Spread of the individuals, if mean, standard deviation and number are known. */
        public Optional<Measured> measured() {
            Integer n = individuals;
            return mean == null || sd == null || n == null || n < 2 || sd <= 0
                    ? Optional.empty()
                    : Optional.of(new Measured(n, mean, sd));
        }

        /** Individuals as far as they are known: those counted, or at least the specimens named; 0 if nothing was said. */
        public int knownIndividuals() {
            return individuals == null ? specimens.size() : Math.max(individuals, specimens.size());
        }
    }

    /** Where a score comes from. */
    public enum Basis {
        SPECIMENS,
        REFERENCE,
        JUDGEMENT,
        IMPORT
    }
}
