package org.polyclave.core.matrix;

/** What is recorded about the physical harm a taxon can do; the default is {@link #NOT_ASSESSED}, never "harmless". */
public enum Hazard {
    NOT_ASSESSED,
    NONE_KNOWN,
    CAUTION,
    SERIOUS,
    LIFE_THREATENING;

    /** Dangerous: a recorded hazard of severity serious or life-threatening. */
    public boolean isDangerous() {
        return this == SERIOUS || this == LIFE_THREATENING;
    }
}
