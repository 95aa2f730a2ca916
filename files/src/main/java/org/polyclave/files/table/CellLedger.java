package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportAccount;
import org.polyclave.files.source.ImportAccount.Fate;
import org.polyclave.files.source.ImportAccount.FateCount;
import org.polyclave.files.source.ImportAccount.LeftOutColumn;
import org.polyclave.files.source.ImportAccount.LeftOutLine;
import org.polyclave.files.source.ImportAccount.Reason;

/**
 * Keeps the fate of every cell of a file that holds something, by its place there, so that none is lost silently. Takes one
 * reference a cell.
 */
final class CellLedger {
    private static final int SHOWN = 60;

    private final Sheet file;
    private final Map<Integer, Integer> rowOfLine = new HashMap<>();
    /** By row and column of the file; null while nobody has said. */
    private final @Nullable Fate[][] fates;

    private final List<LeftOutLine> leftOut = new ArrayList<>();

    CellLedger(Sheet file) {
        this.file = file;
        fates = new @Nullable Fate[file.rows()][];
        for (int r = 0; r < fates.length; r++) {
            rowOfLine.put(file.place(r, 0).line(), r);
            fates[r] = new @Nullable Fate[file.row(r).size()];
        }
    }

    /** Whether a sheet is only a view of the file. */
    boolean isOfAnother(Sheet sheet) {
        return file != sheet;
    }

    /** A cell has the fate that it was given last: a column that is read can still hold cells that are not. */
    void mark(Sheet.Place place, Fate fate) {
        int r = rowOfLine.getOrDefault(place.line(), -1);
        int c = place.column() - 1;
        if (r >= 0 && c >= 0 && c < fates[r].length) {
            fates[r][c] = fate;
        }
    }

    void markLine(Sheet sheet, int row, Fate fate) {
        for (int c = 0; c < sheet.row(row).size(); c++) {
            mark(sheet.place(row, c), fate);
        }
    }

    void leaveOut(Sheet sheet, int row, Reason reason) {
        markLine(sheet, row, Fate.LINE_LEFT_OUT);
        String text = String.join(" ", sheet.row(row)).strip().replaceAll("\\s+", " ");
        leftOut.add(new LeftOutLine(sheet.place(row, 0).line(), shortened(text), reason));
    }

    private interface Visit {
        void cell(int row, int column, @Nullable Fate fate);
    }

    /** Every cell that holds something, line by line. */
    private void visit(Visit visit) {
        for (int r = 0; r < fates.length; r++) {
            for (int c = 0; c < fates[r].length; c++) {
                if (!file.cell(r, c).isEmpty()) {
                    visit.cell(r, c, fates[r][c]);
                }
            }
        }
    }

    /** Places of cells of which nobody said what became of them. */
    List<Sheet.Place> unaccounted() {
        List<Sheet.Place> places = new ArrayList<>();
        visit((r, c, fate) -> {
            if (fate == null) {
                places.add(file.place(r, c));
            }
        });
        return places;
    }

    String text(Sheet.Place place) {
        return file.cell(rowOfLine.getOrDefault(place.line(), 0), place.column() - 1);
    }

    private static String shortened(String text) {
        return text.length() > SHOWN ? text.substring(0, SHOWN) + "…" : text;
    }

    ImportAccount account(int taxa) {
        Map<Fate, Integer> counts = new EnumMap<>(Fate.class);
        Map<Integer, LeftOutColumn> columns = new TreeMap<>();
        boolean[] holds = new boolean[fates.length];
        visit((r, c, fate) -> {
            holds[r] = true;
            if (fate != null) {
                counts.merge(fate, 1, Integer::sum);
            }
            if (fate == Fate.COLUMN_LEFT_OUT) {
                columns.merge(
                        c + 1,
                        new LeftOutColumn(c + 1, shortened(file.cell(r, c)), 1),
                        (before, one) -> new LeftOutColumn(before.column(), before.text(), before.cells() + 1));
            }
        });
        int lines = 0;
        for (boolean held : holds) {
            lines += held ? 1 : 0;
        }
        List<FateCount> cells = new ArrayList<>();
        counts.forEach((fate, count) -> cells.add(new FateCount(fate, count)));
        return new ImportAccount(lines, taxa, leftOut, List.copyOf(columns.values()), cells);
    }
}
