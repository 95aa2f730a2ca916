package org.polyclave.study.rules;

/**
 * Something that could not be read, or was read in a way that people should know.
 *
 * @param row line of the file counted from 1, 0 for the whole file
 * @param column column counted from 1, 0 for the whole row
 * @param heading heading of the column, or empty
 * @param text one sentence with the remedy
 * @param blocking whether nothing can be imported until it is corrected
 */
public record Problem(int row, int column, String heading, String text, boolean blocking) {
    public static Problem at(int row, int column, String heading, String text) {
        return new Problem(row, column, heading, text, true);
    }

    public static Problem file(String text) {
        return new Problem(0, 0, "", text, true);
    }

    /** "Row 3, column 5 (leaf width): ..." */
    public String sentence() {
        if (row == 0) {
            return text;
        }
        String place = "Row " + row + (column == 0 ? "" : ", column " + column);
        return place + (heading.isEmpty() ? "" : " (" + heading + ")") + ": " + text;
    }
}
