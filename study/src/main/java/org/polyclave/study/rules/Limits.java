package org.polyclave.study.rules;

/** Sizes up to which studies are read; more is refused by name. */
public final class Limits {
    public static final long TABLE_BYTES = 25L * 1024 * 1024;
    public static final long STUDY_BYTES = 256L * 1024 * 1024;
    public static final int TAXA = 5_000;
    public static final int CHARACTERS = 1_000;
    public static final int STATES = 32;
    public static final int SPECIMENS = 5_000;

    private Limits() {}
}
