package org.polyclave.core.identify;

/**
 * One answer of a reader. "Not sure" and "cannot see" are no evidence and make no answer.
 *
 * @param rough told by a rule of thumb: it is weighed, but settles nothing alone, strikes nothing out, and never speaks
 *     against a dangerous row
 */
public record Answer(int character, Observation observation, Certainty certainty, boolean rough) {
    public Answer(int character, Observation observation, Certainty certainty) {
        this(character, observation, certainty, false);
    }

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
