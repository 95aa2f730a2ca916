package org.polyclave.core.matrix;

/** What part a character may play, as its author says. */
public enum CharacterRole {
    /** Anything. */
    DECIDES,
    /** It may confirm, but nothing rests on it: it separates nothing, settles no name and rules no danger out. */
    CONFIRMS,
    /** Anything, but nobody is asked it first. */
    NEVER_FIRST,
    /** Its absence ends the group: it is none of these. Its presence proves nothing. */
    NECESSARY;

    /** Whether a name may rest on it. */
    public boolean decides() {
        return this == DECIDES || this == NEVER_FIRST;
    }
}
