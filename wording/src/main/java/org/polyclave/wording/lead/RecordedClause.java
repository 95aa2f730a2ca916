package org.polyclave.wording.lead;

import org.polyclave.core.evidence.Observation;
import org.polyclave.core.key.Atoms;
import org.polyclave.study.model.StudyCharacter;

/** What somebody saw, as a clause: "Leaf margin toothed", "Leaf 5 mm wide". */
public final class RecordedClause {
    private RecordedClause() {}

    public static String of(StudyCharacter character, Observation seen, boolean plain) {
        Clause clause = Clause.of(character, plain);
        Atoms atoms = seen instanceof Observation.MeasuredObservation reading
                ? Atoms.Interval.closed(reading.value(), reading.value())
                : new Atoms.States(((Observation.Seen) seen).states());
        Seen words = Seen.of(character, clause, atoms);
        return English.capital(clause.fill(words.words(), words.count(), false));
    }
}
