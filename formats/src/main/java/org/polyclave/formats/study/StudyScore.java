package org.polyclave.formats.study;

/**
 * The accepted score of a cell.
 *
 * @param typed the notation as it was typed
 * @param basis where it comes from
 * @param source citation or other origin
 */
public record StudyScore(
        String row,
        String character,
        ScoreValue value,
        String typed,
        Basis basis,
        String source,
        boolean doubtful,
        String note) {
    /** Where a score comes from. */
    public enum Basis {
        SPECIMENS,
        REFERENCE,
        JUDGEMENT,
        IMPORT
    }
}
