package org.polyclave.core.identify;

import java.util.List;
import org.polyclave.core.evidence.Observation;

/**
 * One answer of a reader. "Not sure" and "cannot see" are no evidence and make no answer.
 *
 * @param rough told by a rule of thumb: it is weighed, but settles nothing alone, strikes nothing out, and never speaks
 *     against a dangerous row
 * @param further other independent looks at the same character of the same individual: another flower, another person
 */
public record Answer(int character, Observation observation, Certainty certainty, boolean rough, List<Look> further) {
    public Answer {
        further = List.copyOf(further);
    }

    public Answer(int character, Observation observation, Certainty certainty, boolean rough) {
        this(character, observation, certainty, rough, List.of());
    }

    public Answer(int character, Observation observation, Certainty certainty) {
        this(character, observation, certainty, false);
    }

    /** Another look. */
    public record Look(Observation observation, Certainty certainty) {}

    /** How sure the reader is; less certainty is a higher rate of misreading. */
    public enum Certainty {
        SURE(0),
        LIKELY(0.10),
        UNSURE(0.25);

        private final double addedMisreading;

        Certainty(double addedMisreading) {
            this.addedMisreading = addedMisreading;
        }

        double addedMisreading() {
            return addedMisreading;
        }
    }
}
