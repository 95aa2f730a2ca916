package org.polyclave.wording.lead;

import org.polyclave.core.evidence.Observation;
import org.polyclave.core.key.Atoms;
import org.polyclave.study.model.StudyCharacter;

/** What somebody saw, as a clause: "Leaf margin toothed", "Leaf 5 mm wide", "Leaf 5–9 mm wide". */
public final class RecordedClause {
    private RecordedClause() {}

    /** @param usual give or take of a single number; what is wider was told as a range, and is said as one */
    public static String of(StudyCharacter character, Observation seen, double usual, boolean plain) {
        Clause clause = Clause.of(character, plain);
        Atoms atoms = seen instanceof Observation.MeasuredObservation reading
                ? interval(reading, usual)
                : new Atoms.States(((Observation.Seen) seen).states());
        Seen words = Seen.of(character, clause, atoms);
        return English.capital(clause.fill(words.words(), words.count(), false));
    }

    private static Atoms interval(Observation.MeasuredObservation reading, double usual) {
        double spread = reading.uncertainty() > usual ? reading.uncertainty() : 0;
        return Atoms.Interval.closed(reading.value() - spread, reading.value() + spread);
    }
}
