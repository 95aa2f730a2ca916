package org.polyclave.formats.study;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;

/**
 * One individual that was kept, photographed or watched, on which scores rest.
 *
 * @param code its voucher code, as written on the label; no two specimens share one
 * @param determinations what it was named, oldest first; earlier names are kept
 */
public record Specimen(String id, String code, List<Determination> determinations, String note) {
    public Specimen {
        determinations = Missing.list(determinations);
        note = Missing.or(note, "");
    }

    /** What it is held to be now: the last determination. */
    public Optional<Determination> present() {
        return determinations.isEmpty() ? Optional.empty() : Optional.of(determinations.get(determinations.size() - 1));
    }

    /** Whether a character gave it its present name. It is no evidence for what its taxon shows in that one. */
    public boolean isDeterminedBy(String character) {
        return present().filter(d -> d.characters().contains(character)).isPresent();
    }

    public Specimen withId(String newId) {
        return new Specimen(newId, code, determinations, note);
    }

    /** The same specimen without what its note tells. */
    public Specimen withoutNote() {
        return new Specimen(id, code, determinations, "");
    }

    /** The same specimen with a new name; the earlier ones stay. */
    public Specimen with(Determination now) {
        List<Determination> all = new ArrayList<>(determinations);
        all.add(now);
        return new Specimen(id, code, all, note);
    }

    /** The same specimen with every determination changed. */
    public Specimen determined(UnaryOperator<Determination> change) {
        return new Specimen(id, code, determinations.stream().map(change).toList(), note);
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
    public record Determination(
            String row, String qualifier, Kind kind, String by, String date, String how, List<String> characters) {
        public Determination {
            qualifier = Missing.or(qualifier, "");
            kind = Missing.or(kind, Kind.DETERMINED);
            by = Missing.or(by, "");
            date = Missing.or(date, "");
            how = Missing.or(how, "");
            characters = Missing.list(characters);
        }

        public Determination withRow(String newRow) {
            return new Determination(newRow, qualifier, kind, by, date, how, characters);
        }

        public Determination withCharacters(List<String> newCharacters) {
            return new Determination(row, qualifier, kind, by, date, how, newCharacters);
        }
    }

    /** Whether somebody named a specimen, or confirmed the name that it had. */
    public enum Kind {
        DETERMINED,
        CONFIRMED
    }
}
