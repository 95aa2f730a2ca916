package org.polyclave.study.advice;

import java.util.List;

/**
 * What would help a study most now. Where it is done and how it is said is for whoever shows it.
 *
 * @param subject names of what it is about, or empty
 * @param rows identifiers of the rows that it is about, if it is about some
 * @param count how many things of its kind there are
 * @param month in which it is so, 1 to 12; 0: it does not depend on it
 * @param open pairs of rows that nothing separates, at any time and by any means
 * @param thin those that one feature separates
 * @param dangers dangerous rows that keys cannot rule out as things stand
 */
public record NextStep(
        Kind kind, String subject, List<String> rows, int count, int month, int open, int thin, int dangers) {
    /** What is to be done. */
    public enum Kind {
        /** There are fewer than two taxa, or no characters. */
        IMPORT,
        ASSESS_HAZARDS,
        /** A pair that nothing separates. */
        SEPARATE_PAIR,
        /** The characters of a danger do not say which part they are of. */
        NAME_PARTS,
        /** Cells of a danger that somebody has to vouch for. */
        CONFIRM_DANGER,
        /** More characters are needed between a danger and others. */
        SEPARATE_DANGER,
        /** The cell that is likeliest to give a pair its second feature. */
        SCORE_CELL,
        /** The same, and it can be seen now but not all year. */
        SCORE_CELL_NOW,
        /** The month in which most pairs are not separated. */
        SEPARATE_IN_MONTH,
        /** The character that is least scored. */
        SCORE_CHARACTER,
        PUBLISH,
        /** Nothing is left but to look at the key. */
        REVIEW
    }
}
