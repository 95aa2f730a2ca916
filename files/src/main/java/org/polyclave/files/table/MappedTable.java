package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.table.SheetMapping.ColumnRole;
import org.polyclave.files.table.SheetMapping.MappedColumn;

/** A table that nobody prepared, with what is put into the place of it: rows that know where in the original they come from. */
final class MappedTable {
    private static final Map<ColumnRole, String> JOINED = Map.of(
            ColumnRole.PLACE, ", ",
            ColumnRole.COORDINATES, ", ",
            ColumnRole.NOTE, "; ",
            ColumnRole.SYNONYM, "|",
            ColumnRole.VERNACULAR, "|",
            ColumnRole.STATUS, "|",
            ColumnRole.HABITAT, "; ",
            ColumnRole.SOURCE, "; ");

    private final Sheet from;
    private final SheetMapping mapping;
    private final Map<ColumnRole, List<Integer>> columns = new EnumMap<>(ColumnRole.class);
    private final List<List<String>> cells = new ArrayList<>();
    /** Original row of each row. */
    private final List<Integer> rowOf = new ArrayList<>();
    /** Original column of each column. */
    private final List<Integer> columnOf = new ArrayList<>();

    private final Map<Sheet.Place, Sheet.Remark> remarks;

    MappedTable(Sheet from, SheetMapping mapping) {
        this.from = from;
        this.mapping = mapping;
        remarks = new HashMap<>(from.remarks());
        int width = from.width();
        for (int c = 0; c < width; c++) {
            columns.computeIfAbsent(column(c).role(), r -> new ArrayList<>()).add(c);
        }
    }

    MappedColumn column(int c) {
        return mapping.columns().get(c);
    }

    /** Columns of the original with a role. */
    List<Integer> columns(ColumnRole role) {
        return columns.getOrDefault(role, List.of());
    }

    /** What the columns of a role say in a row of the original. */
    List<String> texts(int r, ColumnRole role) {
        return columns(role).stream()
                .map(c -> from.cell(r, c).strip())
                .filter(t -> !t.isEmpty() && !mapping.blanks().contains(t))
                .toList();
    }

    String joined(int r, ColumnRole role) {
        return texts(r, role).stream().collect(Collectors.joining(JOINED.getOrDefault(role, " ")));
    }

    /** First row of the original below titles and headings. */
    int first() {
        return mapping.titleRows() + mapping.headingRows();
    }

    Map<Sheet.Place, Sheet.Remark> remarks() {
        return remarks;
    }

    /** @param original column that the next column is made of */
    void addColumn(int original) {
        columnOf.add(original);
    }

    int columns() {
        return columnOf.size();
    }

    int original(int column) {
        return columnOf.get(column);
    }

    void addRow(List<String> row, int original) {
        cells.add(row);
        rowOf.add(original);
    }

    Sheet sheet() {
        return new Sheet(
                cells,
                (row, column) -> from.place(rowOf.get(row), column < columnOf.size() ? columnOf.get(column) : column),
                remarks,
                from.marks());
    }
}
