package org.polyclave.core.separation;

/** How a character stands between two rows. */
public enum Difference {
    /** No reader who sees the character can take one for the other. */
    STRICT,
    /** Measured on too few individuals to be sure: apart so far. */
    SO_FAR,
    /** It would separate them, but its author lets it only confirm. */
    CONFIRMS,
    /** What each usually shows differs. */
    TENDENCY,
    /** Both may show the same. */
    SHARED,
    /** One of them is not scored for it. */
    UNKNOWN,
    /** It does not exist, or may not, on one of them. */
    NOT_APPLICABLE,
    /** It cannot be seen on both at a time, with what is in the hand. */
    OUT_OF_CONTEXT;

    /** Whether it separates the rows by itself. */
    public boolean separates() {
        return this == STRICT;
    }

    /** Whether both rows' states can be compared now. */
    public boolean isSeen() {
        return this == STRICT || tends() || this == SHARED;
    }

    /** Whether it speaks for one of them, but may be wrong. */
    public boolean tends() {
        return this == SO_FAR || this == CONFIRMS || this == TENDENCY;
    }
}
