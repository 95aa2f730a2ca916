package org.polyclave.formats.study;

/**
 * What a further scorer holds of a cell. The accepted score stands apart; where both were settled, those on which it was
 * decided are kept.
 *
 * @param scorer name of who scored
 * @param date day as ISO 8601, or empty
 * @param settled whether the cell was decided since
 */
public record Opinion(
        String id,
        String row,
        String character,
        String scorer,
        ScoreValue value,
        String typed,
        boolean doubtful,
        String note,
        String date,
        boolean settled) {

    /** The identifier of what a scorer holds of a cell; slugs have no dot. */
    public static String idOf(String row, String character, String scorer) {
        return row + '.' + character + '.' + Slug.of(scorer);
    }

    public Opinion settle() {
        return new Opinion(id, row, character, scorer, value, typed, doubtful, note, date, true);
    }
}
