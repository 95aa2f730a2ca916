package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/**
 * One individual that was kept, photographed or watched, on which scores rest.
 *
 * @param code its voucher code, as written on the label; no two specimens share one
 * @param determinations what it was named, oldest first; earlier names are kept
 * @param stage life stage; empty if not known
 * @param sex empty if not known
 * @param treatments what was done to it, oldest first
 * @param storage where it is kept: collection, cupboard, box
 */
@RecordBuilder
public record Specimen(
        String id,
        String code,
        List<Determination> determinations,
        Event event,
        String stage,
        String sex,
        List<Treatment> treatments,
        String storage,
        String note)
        implements SpecimenBuilder.With {
    public Specimen {
        determinations = Defaults.list(determinations);
        event = Defaults.or(event, Event.UNKNOWN);
        stage = Defaults.or(stage, "");
        sex = Defaults.or(sex, "");
        treatments = Defaults.list(treatments);
        storage = Defaults.or(storage, "");
        note = Defaults.or(note, "");
    }

    /** A specimen of which only its names are known. */
    public Specimen(String id, String code, List<Determination> determinations, String note) {
        this(id, code, determinations, Event.UNKNOWN, "", "", List.of(), "", note);
    }

    /** What it is identified as now: the last determination. */
    public Optional<Determination> present() {
        return determinations.isEmpty() ? Optional.empty() : Optional.of(determinations.get(determinations.size() - 1));
    }

    /** All dates that are told of it; some may be empty, or a year. */
    public Stream<String> dates() {
        return Stream.of(
                        Stream.of(event.date()),
                        treatments.stream().map(Treatment::date),
                        determinations.stream().map(Determination::date))
                .flatMap(d -> d);
    }

    /** Whether a character gave it its present name. It is not evidence for what its taxon shows in that one. */
    public boolean isDeterminedBy(String character) {
        return present().filter(d -> d.characters().contains(character)).isPresent();
    }

    /** The same specimen without what tells its place, or may: its note, and all of the event but the date. */
    public Specimen withoutPlace() {
        return with().event(event.withoutPlace()).note("").build();
    }

    /** The same specimen with a new name; the earlier ones stay. */
    public Specimen with(Determination now) {
        List<Determination> all = new ArrayList<>(determinations);
        all.add(now);
        return withDeterminations(all);
    }

    /** The same specimen with every determination changed. */
    public Specimen determined(UnaryOperator<Determination> change) {
        return withDeterminations(determinations.stream().map(change).toList());
    }

    /**
     * A name given to it.
     *
     * @param row the taxon, sex or stage
     * @param qualifier "cf.", "aff." or empty
     * @param kind whether somebody named it, or confirmed the name
     * @param by who
     * @param date day as ISO 8601, or empty
     * @param how with what, after which book: "lens, after Orrin"
     * @param characters ids of the characters that were used
     */
    @RecordBuilder
    public record Determination(
            String row, String qualifier, Kind kind, String by, String date, String how, List<String> characters)
            implements SpecimenDeterminationBuilder.With {
        public Determination {
            qualifier = Defaults.or(qualifier, "");
            kind = Defaults.or(kind, Kind.DETERMINED);
            by = Defaults.or(by, "");
            date = Defaults.or(date, "");
            how = Defaults.or(how, "");
            characters = Defaults.list(characters);
        }
    }

    /**
     * When and where it was found. What is not known is empty.
     *
     * @param date day as ISO 8601, or the year
     * @param coordinates as written on the label
     * @param uncertainty of the coordinates in metres; null if not known
     * @param host what it grew on or lived in: host, substrate
     */
    public record Event(
            String date,
            String place,
            String coordinates,

            @Nullable Double uncertainty,

            String collector,
            String habitat,
            String host) {
        static final Event UNKNOWN = new Event("", "", "", null, "", "", "");

        public Event {
            date = Defaults.or(date, "");
            place = Defaults.or(place, "");
            coordinates = Defaults.or(coordinates, "");
            collector = Defaults.or(collector, "");
            habitat = Defaults.or(habitat, "");
            host = Defaults.or(host, "");
        }

        Event withoutPlace() {
            return new Event(date, "", "", null, "", "", "");
        }
    }

    /** @param date day as ISO 8601, or the year, or empty */
    public record Treatment(Treated how, String date, String note) {
        public Treatment {
            date = Defaults.or(date, "");
            note = Defaults.or(note, "");
        }
    }

    /** What may alter how a specimen looks. */
    public enum Treated {
        CUT,
        DISSECTED,
        MOUNTED,
        FLUID,
        DRIED
    }

    /** Whether somebody named a specimen, or confirmed the name that it had. */
    public enum Kind {
        DETERMINED,
        CONFIRMED
    }
}
