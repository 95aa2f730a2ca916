package org.polyclave.files.table;

import java.util.List;
import java.util.Locale;

/**
 * How a table that nobody prepared is to be read.
 *
 * @param titleRows rows above the headings that say nothing of a column
 * @param headingRows rows of headings; upper ones group the columns below them
 * @param decimalComma whether "4,5" is four and a half
 * @param fillDown whether an empty name of a taxon is that of the row above
 * @param blanks texts that mean nothing was looked at: "-", "."
 * @param columns one for each column of the table, in its order
 * @param transposed whether taxa stand across and characters down; all other fields are of the table turned about below its titles
 * @param footnotes whether lines that look like remarks below the table, or like numbers of specimens, are left out
 * @param marks what colours and struck-through texts say
 */
public record SheetMapping(
        int titleRows,
        int headingRows,
        boolean decimalComma,
        boolean fillDown,
        List<String> blanks,
        List<MappedColumn> columns,
        boolean transposed,
        boolean footnotes,
        List<MarkMeaning> marks) {
    public SheetMapping {
        marks = List.copyOf(marks);
        blanks = List.copyOf(blanks);
        columns = List.copyOf(columns);
    }

    /** What a mark says of a score. */
    public enum Meaning {
        NOTHING,
        DOUBT,
        NOTE
    }

    /**
     * @param mark {@link #STRUCK}, or a colour as six hexadecimal digits
     * @param note what the mark stands for, kept with each score
     */
    public record MarkMeaning(String mark, Meaning meaning, String note) {
        public static final String STRUCK = "struck";
    }

    /** What a column holds. */
    public enum ColumnRole {
        /** Name of the taxon; several are joined: genus, epithet. */
        TAXON,
        STAGE,
        RANK,
        PARENT,
        HAZARD,
        CHARACTER,
        /** A character that is there or not: "yes", "x", "+", "1" and their opposites are present and absent. */
        PRESENCE,
        /** Two measures in one cell: "7-9 x 4-5" is a length and a width. */
        SIZE,
        AUTHORSHIP,
        SYNONYM,
        VERNACULAR,
        STATUS,
        COMMONNESS,
        /** Months in which the taxon is there. */
        MONTHS_PRESENT,
        /** Where the scores of the row come from. */
        SOURCE,
        /** A remark on the row. */
        IGNORED,
        /** Code of a specimen: then each row is one, and what it shows is left out. */
        SPECIMEN,
        QUALIFIER,
        DETERMINED_BY,
        DETERMINED_ON,
        DETERMINED_WITH,
        DATE,
        /** Several are joined: parish, wood. */
        PLACE,
        /** Several are joined: latitude, longitude. */
        COORDINATES,
        UNCERTAINTY,
        COLLECTOR,
        HABITAT,
        HOST,
        SEX,
        STORAGE,
        NOTE;

        /** As the column is headed in a table of specimens. */
        String heading() {
            return name().toLowerCase(Locale.ROOT).replace('_', ' ');
        }
    }

    /** Whether the rows of the table are specimens. */
    boolean listsSpecimens() {
        return columns.stream().anyMatch(c -> c.role() == ColumnRole.SPECIMEN);
    }

    /** @param unit in which its bare numbers are; empty if it has none */
    public record MappedColumn(ColumnRole role, String label, String organ, String unit) {}
}
