package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.UnreadCell;
import org.polyclave.study.rules.Problem;

/**
 * Collects what is wrong with a wide table. Rows and columns are those of the sheet, counted from 0; what is told names their
 * place in the file, and a text as the file has it, so that a correction finds it again.
 */
final class TableReport {
    private final Sheet sheet;
    private final List<Problem> problems;
    private final List<UnreadCell> unread = new ArrayList<>();

    /** @param problems what was found before; what is found here is added to it */
    TableReport(Sheet sheet, List<Problem> problems) {
        this.sheet = sheet;
        this.problems = problems;
    }

    /** What stands above a column; nothing above the names. */
    String heading(int column) {
        return column == 0 ? "" : sheet.cell(0, column);
    }

    void problem(int row, int column, String sentence) {
        String capital = sentence.substring(0, 1).toUpperCase(Locale.ROOT) + sentence.substring(1);
        Sheet.Place place = sheet.place(row, column);
        problems.add(Problem.at(place.line(), place.column(), heading(column), capital));
    }

    /** Something that people should know. */
    void notice(int row, int column, String sentence) {
        Sheet.Place place = sheet.place(row, column);
        problems.add(new Problem(place.line(), place.column(), heading(column), sentence, false));
    }

    /** Something of the file as a whole. */
    void add(Problem problem) {
        problems.add(problem);
    }

    /** A cell that people can correct without the file. */
    void unread(int row, int column, String reason, List<String> nearest) {
        Sheet.Place place = sheet.place(row, column);
        unread.add(new UnreadCell(
                place.line(),
                place.column(),
                heading(column),
                Corrections.name(sheet, row),
                sheet.cell(row, column),
                reason,
                nearest));
    }

    boolean blocks() {
        return problems.stream().anyMatch(Problem::blocking);
    }

    /** What is wrong, cells that cannot be read apart. */
    List<Problem> problems() {
        return problems;
    }

    List<UnreadCell> unread() {
        return unread;
    }
}
