package org.polyclave.core.identify;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.core.evidence.Certainty;
import org.polyclave.core.evidence.Look;
import org.polyclave.core.evidence.Observation;

/**
 * One answer of a reader. "Not sure" and "cannot see" are not evidence and make no answer.
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

    /** All looks, the first one first. */
    List<Look> looks() {
        List<Look> looks = new ArrayList<>();
        looks.add(new Look(observation, certainty));
        looks.addAll(further);
        return looks;
    }

    /** All looks at a number, the least reading first. */
    List<Look> byValue() {
        List<Look> looks = looks();
        looks.sort((a, b) -> Double.compare(value(a), value(b)));
        return looks;
    }

    private static double value(Look look) {
        return ((Observation.MeasuredObservation) look.observation()).value();
    }
}
