package org.polyclave.files.table;

import java.util.Collection;
import java.util.List;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportAccount;
import org.polyclave.files.source.ImportAccount.Fate;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.study.rules.Problem;

/** Says of every cell of a wide table what became of it, and of one of which nobody can say it that it was not read. */
final class CellFates {
    private final Sheet sheet;
    private final CellLedger ledger;
    private final TableReport report;

    CellFates(Sheet sheet, CellLedger ledger, TableReport report) {
        this.sheet = sheet;
        this.ledger = ledger;
        this.report = report;
    }

    /**
     * @param characters columns that hold scores
     * @param setAside headings of columns that are never asked or shown
     * @param taxa how many rows of the study the table has
     */
    ImportAccount account(Collection<Integer> characters, List<String> setAside, int taxa, ReadingWatch watch) {
        for (int c = 0; c < sheet.columns(); c++) {
            watch.at(c, sheet.columns());
            boolean describes = c == 0 || sheet.cell(0, c).startsWith("#");
            boolean out = setAside.contains(report.heading(c));
            if (describes || out || characters.contains(c)) {
                column(c, describes, out);
            }
        }
        report.unread().forEach(u -> ledger.mark(new Sheet.Place(u.line(), u.column()), Fate.UNREAD));
        if (!report.blocks()) {
            for (Sheet.Place place : ledger.unaccounted()) {
                report.add(new Problem(
                        place.line(), place.column(), "", "'" + ledger.text(place) + "' was not read.", false));
            }
        }
        return ledger.account(taxa);
    }

    private void column(int c, boolean describes, boolean out) {
        for (int r = 0; r < sheet.rows(); r++) {
            boolean about = r == 0 || sheet.cell(r, 0).startsWith("#");
            if (out) {
                ledger.mark(sheet.place(r, c), Fate.COLUMN_LEFT_OUT);
            } else if (!sheet.cell(r, c).isEmpty()) {
                ledger.mark(sheet.place(r, c), about ? Fate.HEADING : describes ? Fate.NAME : Fate.SCORE);
            }
        }
    }

    /** A prepared table says nothing by colours and lines; where there are some, their author is told that they were not read. */
    void tellMarks(List<Integer> taxonRows, Collection<Integer> characters) {
        if (sheet.marks().isEmpty()) {
            return;
        }
        int struck = 0;
        int filled = 0;
        for (int r : taxonRows) {
            for (int c : characters) {
                Sheet.Mark mark = sheet.marks().get(sheet.place(r, c));
                struck += mark != null && mark.struck() ? 1 : 0;
                filled += mark != null && !mark.colour().isEmpty() ? 1 : 0;
            }
        }
        if (struck + filled > 0) {
            report.add(new Problem(
                    0,
                    0,
                    "",
                    "Scores with a line through them: " + struck + "; with a colour behind them: " + filled
                            + ". What that means was not read. Choose how the columns are read to take it as doubt or as a note.",
                    false));
        }
    }
}
