package org.polyclave.core.separation;

/** What readers record of a row in a character, mixed with what all rows show. */
sealed interface Recorded permits MixedRange, Recorded.States, Recorded.Nothing {
    /** @param roots square roots of the shares */
    record States(double[] roots) implements Recorded {}

    /** Nothing that can be compared. */
    record Nothing() implements Recorded {}
}
