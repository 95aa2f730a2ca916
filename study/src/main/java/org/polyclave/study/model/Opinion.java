package org.polyclave.study.model;

import io.soabase.recordbuilder.core.RecordBuilder;

/**
 * What a further scorer holds of a cell. The accepted score stands apart; where both were settled, those on which it was
 * decided are kept.
 *
 * @param scorer name of who scored
 * @param date day as ISO 8601, or empty
 * @param settled whether the cell was decided since
 */
@RecordBuilder
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
        boolean settled)
        implements OpinionBuilder.With {

    /**
     * The identifier of what an account holds of a cell; slugs have no dot.
     *
     * @param account its name, which nobody shares; names of people may be alike
     */
    public static String idOf(String row, String character, String account) {
        return row + '.' + character + '.' + account;
    }

    /** Whether an account holds it. */
    public boolean isOf(String account) {
        return id.equals(idOf(row, character, account));
    }

    public Opinion settle() {
        return withSettled(true);
    }
}
