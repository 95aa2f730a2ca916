package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportAccount;
import org.polyclave.files.source.ImportAccount.Fate;
import org.polyclave.files.source.ImportAccount.FateCount;
import org.polyclave.files.source.ImportAccount.LeftOutColumn;
import org.polyclave.files.source.ImportAccount.LeftOutLine;
import org.polyclave.files.source.ImportAccount.Reason;

/** Keeps the fate of every cell of a file that holds something, by its place there, so that none is lost silently. */
final class CellLedger {
    private static final int SHOWN = 60;
    private static final Comparator<Sheet.Place> BY_PLACE =
            Comparator.comparingInt(Sheet.Place::line).thenComparingInt(Sheet.Place::column);

    private final Map<Sheet.Place, String> cells = new HashMap<>();
    private final Map<Sheet.Place, Fate> fates = new HashMap<>();
    private final List<LeftOutLine> leftOut = new ArrayList<>();
    private final Sheet file;
    private int lines;

    CellLedger(Sheet file) {
        this.file = file;
        for (int r = 0; r < file.rows(); r++) {
            boolean holds = false;
            for (int c = 0; c < file.row(r).size(); c++) {
                if (!file.cell(r, c).isEmpty()) {
                    cells.put(file.place(r, c), file.cell(r, c));
                    holds = true;
                }
            }
            lines += holds ? 1 : 0;
        }
    }

    /** Whether a sheet is only a view of the file. */
    boolean isOfAnother(Sheet sheet) {
        return file != sheet;
    }

    /** A cell has the fate that it was given last: a column that is read can still hold cells that are not. */
    void mark(Sheet.Place place, Fate fate) {
        if (cells.containsKey(place)) {
            fates.put(place, fate);
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
        leftOut.add(new LeftOutLine(
                sheet.place(row, 0).line(), text.length() > SHOWN ? text.substring(0, SHOWN) + "…" : text, reason));
    }

    /** Places of cells of which nobody said what became of them. */
    List<Sheet.Place> unaccounted() {
        return cells.keySet().stream()
                .filter(p -> !fates.containsKey(p))
                .sorted(BY_PLACE)
                .toList();
    }

    String text(Sheet.Place place) {
        return cells.getOrDefault(place, "");
    }

    /** Columns of which cells were left out. */
    private List<LeftOutColumn> columns() {
        Map<Integer, LeftOutColumn> found = new TreeMap<>();
        cells.keySet().stream()
                .filter(p -> fates.get(p) == Fate.COLUMN_LEFT_OUT)
                .sorted(BY_PLACE)
                .forEach(p -> found.merge(
                        p.column(),
                        new LeftOutColumn(p.column(), shortened(text(p)), 1),
                        (a, b) -> new LeftOutColumn(a.column(), a.text(), a.cells() + 1)));
        return List.copyOf(found.values());
    }

    private static String shortened(String text) {
        return text.length() > SHOWN ? text.substring(0, SHOWN) + "…" : text;
    }

    ImportAccount account(int taxa) {
        Map<Fate, Integer> counts = new EnumMap<>(Fate.class);
        fates.values().forEach(f -> counts.merge(f, 1, Integer::sum));
        return new ImportAccount(
                lines,
                taxa,
                leftOut,
                columns(),
                counts.entrySet().stream()
                        .map(e -> new FateCount(e.getKey(), e.getValue()))
                        .toList());
    }
}
