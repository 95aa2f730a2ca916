package org.polyclave.core.matrix;

/** The kinds of character; sizes are compared in one base unit per kind (mm, g, degrees, percent). */
public enum CharacterType {
    STATES,
    ORDERED,
    LENGTH,
    MASS,
    ANGLE,
    PERCENT,
    COUNT,
    RATIO,
    MONTHS;

    /** True where a score is a range of numbers; false where it is a set of states or months. */
    public boolean isNumeric() {
        return this != STATES && this != ORDERED && this != MONTHS;
    }

    /** True where neighbouring states are alike: a graded series, or the circle of months. */
    public boolean isGraded() {
        return this == ORDERED || this == MONTHS;
    }
}
