package org.polyclave.files.source;

import java.util.List;

/**
 * What became of every line and every cell of a table that holds something.
 *
 * @param lines that hold something
 * @param taxa lines that became taxa, sexes or stages
 * @param leftOut lines that were left out, each with its reason
 * @param columns that were left out, each with what it begins with
 * @param cells how many had each fate
 */
public record ImportAccount(
        int lines, int taxa, List<LeftOutLine> leftOut, List<LeftOutColumn> columns, List<FateCount> cells) {
    public ImportAccount {
        leftOut = List.copyOf(leftOut);
        columns = List.copyOf(columns);
        cells = List.copyOf(cells);
    }

    /** What became of a cell. */
    public enum Fate {
        /** Titles, headings, and what describes characters. */
        HEADING,
        /** Names of taxa and what describes them. */
        NAME,
        SCORE,
        /** A mark that says that nothing was looked at. */
        NOTHING_SEEN,
        /** In a column that is not taken. */
        COLUMN_LEFT_OUT,
        /** In a line that is not taken. */
        LINE_LEFT_OUT,
        /** To be corrected. */
        UNREAD
    }

    public record FateCount(Fate fate, int cells) {}

    /** Why a line was left out. */
    public enum Reason {
        NO_NAME,
        /** A remark below the table. */
        FOOTNOTE,
        /** How many were looked at: "n = 16". */
        COUNTS
    }

    /**
     * @param column of the file, counted from 1
     * @param text first of its cells that holds something, below its heading
     * @param cells that hold something
     */
    public record LeftOutColumn(int column, String text, int cells) {}

    /** @param text what it begins with */
    public record LeftOutLine(int line, String text, Reason reason) {}
}
