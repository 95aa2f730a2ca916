package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What was once read of one item of a specimen in one character: a size, a count, or what it shows. Readings belong to the
 * specimen, so a new name of the specimen moves them to another taxon.
 *
 * @param item which leaf, which spore; readings of the same item are repetitions. Empty: an item of its own
 * @param typed as it was typed, with the unit; for a mark on a picture what the mark came to
 * @param value in the base unit; null for states
 * @param states ids of the states that it shows; empty for numbers
 * @param uncertainty standard uncertainty in the base unit; null if not known
 * @param instrument with what it was read
 * @param by who read it
 * @param date day on which it was read, as ISO 8601; empty if not known
 * @param mark where on a picture it was read; null if on none
 * @param standing whether it counts
 */
@RecordBuilder
public record Reading(
        String id,
        String specimen,
        String character,
        String item,
        String typed,
        @Nullable Double value,
        List<String> states,

        @Nullable Double uncertainty,

        String instrument,
        String by,
        String date,
        @Nullable Mark mark,
        Standing standing,
        String note)
        implements ReadingBuilder.With {
    public Reading {
        item = Defaults.or(item, "");
        states = Defaults.list(states);
        instrument = Defaults.or(instrument, "");
        by = Defaults.or(by, "");
        date = Defaults.or(date, "");
        standing = Defaults.or(standing, Standing.TAKEN);
        note = Defaults.or(note, "");
    }

    /** Whether a reading counts, and whether somebody looked at it again. */
    public enum Standing {
        TAKEN,
        /** Looked at again, and right: it is not flagged any more. */
        KEPT,
        /** Looked at again, and wrong: it stays on record and counts for nothing. */
        SET_ASIDE
    }

    /** The same reading in another study: identifiers there. */
    public Reading of(String newSpecimen, String newCharacter, List<String> newStates) {
        return with().specimen(newSpecimen)
                .character(newCharacter)
                .states(newStates)
                .build();
    }

    /** The same reading, read again. */
    public Reading read(
            String newTyped, @Nullable Double newValue, List<String> newStates, @Nullable Double newUncertainty) {
        return with().typed(newTyped)
                .value(newValue)
                .states(newStates)
                .uncertainty(newUncertainty)
                .build();
    }

    /** The same reading with what somebody held of it who looked at it again. */
    public Reading standing(Standing newStanding, String newNote) {
        return with().standing(newStanding).note(newNote).build();
    }
}
