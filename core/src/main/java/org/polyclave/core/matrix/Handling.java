package org.polyclave.core.matrix;

/** What a method does to a specimen, from looking, which is no handling at all, on. */
public enum Handling {
    /** Looking, photographing, measuring without contact. */
    NONE,
    TOUCH,
    DIG,
    CUT,
    CRUSH,
    SMELL;

    /** Whether it may be suggested. */
    public enum Advice {
        FREELY,
        /** With gloves and a tool, and with washed hands afterwards. */
        PROTECTED,
        NEVER
    }

    /** What to say of it where the specimen may do this harm. */
    public Advice advice(Harm harm) {
        if (this == NONE || harm.isNone()) {
            return Advice.FREELY;
        }
        boolean breathed = this == CRUSH || this == SMELL;
        return harm.attacks() || (breathed && harm.byBreathingGravely()) ? Advice.NEVER : Advice.PROTECTED;
    }
}
