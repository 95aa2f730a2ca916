package org.polyclave.core.separation;

/** How well two rows are told apart, from badly to well. */
public enum Verdict {
    /** Nothing tells them apart. */
    NONE,
    /** Something usually does, or does so far; never enough alone. */
    TENDENCY,
    /** Characters of one correlation group do. */
    THIN,
    /** Characters of two or more independent groups do. */
    FIRM
}
