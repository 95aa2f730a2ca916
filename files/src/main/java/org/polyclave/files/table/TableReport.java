package org.polyclave.files.table;

import java.util.List;

/** Takes what is wrong with a wide table, by row of the sheet and column, both counted from 0. */
interface TableReport {
    void problem(int row, int column, String sentence);

    /** Something that people should know. */
    void notice(int row, int column, String sentence);

    /** A cell that people can correct without the file. */
    void unread(int row, int column, String reason, List<String> nearest);
}
