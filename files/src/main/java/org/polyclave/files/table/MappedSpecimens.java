package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.table.SheetMapping.ColumnRole;

/** A list of specimens that nobody prepared, as it would be headed had somebody. */
final class MappedSpecimens {
    /** What a list of specimens tells, its code first, as such lists are recognised. */
    private static final List<ColumnRole> OF_SPECIMENS = List.of(
            ColumnRole.SPECIMEN,
            ColumnRole.TAXON,
            ColumnRole.QUALIFIER,
            ColumnRole.DETERMINED_BY,
            ColumnRole.DETERMINED_ON,
            ColumnRole.DETERMINED_WITH,
            ColumnRole.DATE,
            ColumnRole.PLACE,
            ColumnRole.COORDINATES,
            ColumnRole.UNCERTAINTY,
            ColumnRole.COLLECTOR,
            ColumnRole.HABITAT,
            ColumnRole.HOST,
            ColumnRole.SEX,
            ColumnRole.STAGE,
            ColumnRole.STORAGE,
            ColumnRole.NOTE);

    private MappedSpecimens() {}

    static Sheet of(Sheet from, SheetMapping mapping) {
        MappedTable table = new MappedTable(from, mapping);
        List<ColumnRole> used = OF_SPECIMENS.stream()
                .filter(role -> !table.columns(role).isEmpty())
                .toList();
        used.forEach(role -> table.addColumn(table.columns(role).get(0)));
        table.addRow(used.stream().map(ColumnRole::heading).toList(), mapping.titleRows());
        for (int r = table.first(); r < from.rows(); r++) {
            List<String> row = new ArrayList<>();
            for (ColumnRole role : used) {
                String text = table.joined(r, role);
                boolean day = role == ColumnRole.DATE || role == ColumnRole.DETERMINED_ON;
                row.add(day ? TypedDate.iso(text) : text);
            }
            if (row.stream().anyMatch(t -> !t.isEmpty())) {
                table.addRow(row, r);
            }
        }
        return table.sheet();
    }
}
