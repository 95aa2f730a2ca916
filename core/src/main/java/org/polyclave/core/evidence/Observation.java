package org.polyclave.core.evidence;

/** What a reader saw. */
public sealed interface Observation {
    /** One of these states; a single bit for a definite answer. */
    record Seen(int states) implements Observation {}

    /** A reading in the character's base unit, give or take {@code uncertainty}. */
    record MeasuredObservation(double value, double uncertainty) implements Observation {}
}
