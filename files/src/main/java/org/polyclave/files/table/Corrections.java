package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.table.TableChoices.CellCorrection;

/** Puts what people corrected into the cells of a wide table before they are read. */
final class Corrections {
    private Corrections() {}

    static Sheet apply(Sheet sheet, TableChoices choices) {
        if (choices.corrections().isEmpty()) {
            return sheet;
        }
        Map<List<String>, CellCorrection> known = choices.byCell();
        Map<Sheet.Place, Sheet.Remark> remarks = new HashMap<>(sheet.remarks());
        List<List<String>> cells = new ArrayList<>();
        for (int r = 0; r < sheet.rows(); r++) {
            List<String> row = new ArrayList<>(sheet.row(r));
            String name = name(sheet, r);
            for (int c = 1; c < row.size() && r > 0 && !sheet.cell(r, 0).startsWith("#"); c++) {
                String heading = sheet.cell(0, c);
                String text = row.get(c);
                CellCorrection correction =
                        known.getOrDefault(List.of(heading, name, text), known.get(List.of(heading, "", text)));
                if (correction == null || text.isEmpty()) {
                    continue;
                }
                String as = correction.as();
                if (as == null) {
                    remarks.merge(sheet.place(r, c), Sheet.Remark.note(text), Sheet.Remark::and);
                }
                // What describes a taxon is empty where it is not known.
                row.set(c, as != null ? as : heading.startsWith("#") ? "" : "?");
            }
            cells.add(row);
        }
        return new Sheet(cells, sheet::place, remarks, sheet.marks());
    }

    /** The taxon of a line with its sex or stage, as people see it. */
    static String name(Sheet sheet, int row) {
        int stage = sheet.row(0).indexOf("#stage");
        String told = stage < 0 ? "" : sheet.cell(row, stage);
        return told.isEmpty() ? sheet.cell(row, 0) : sheet.cell(row, 0) + ", " + told;
    }
}
