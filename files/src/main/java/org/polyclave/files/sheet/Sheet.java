package org.polyclave.files.sheet;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/**
 * The cells of a table as text. Every cell knows its place in the file it came from, whatever was done to the table
 * since, so that problems are told where people find them.
 */
public final class Sheet {
    private final List<List<String>> cells;
    private final Places places;
    private final Map<Place, Remark> remarks;

    /** Where a cell stands in its file, both counted from 1. */
    public record Place(int line, int column) {}

    /** Tells the place of a cell by its row and column in the sheet, counted from 0. */
    public interface Places {
        Place of(int row, int column);
    }

    /** What a file says of a cell beside the score. */
    public record Remark(
            String basis,
            String source,
            boolean doubtful,
            String note,
            String months,
            String scorer,
            String date,
            String concept) {
        public static Remark note(String text) {
            return new Remark("", "", false, text, "", "", "", "");
        }

        /** The same with another note and doubt. */
        public Remark with(String newNote, boolean doubt) {
            return new Remark(basis, source, doubt, newNote, months, scorer, date, concept);
        }
    }

    public Sheet(List<List<String>> cells, Places places, Map<Place, Remark> remarks) {
        this.cells = cells;
        this.places = places;
        this.remarks = remarks;
    }

    /** A sheet whose rows began on some lines, its columns as they stand in the file. */
    static Sheet ofLines(List<List<String>> cells, List<Integer> lines) {
        return ofLines(cells, lines, new HashMap<>());
    }

    static Sheet ofLines(List<List<String>> cells, List<Integer> lines, Map<Place, Remark> remarks) {
        return new Sheet(cells, (row, column) -> new Place(lines.get(row), column + 1), remarks);
    }

    public static Sheet empty() {
        return ofLines(new ArrayList<>(), List.of());
    }

    public int rows() {
        return cells.size();
    }

    public List<String> row(int row) {
        return cells.get(row);
    }

    /** Number of columns of the first row, which names them. */
    public int columns() {
        return cells.isEmpty() ? 0 : cells.get(0).size();
    }

    public int width() {
        return cells.stream().mapToInt(List::size).max().orElse(0);
    }

    public String cell(int row, int column) {
        return column < cells.get(row).size() ? cells.get(row).get(column) : "";
    }

    public Place place(int row, int column) {
        return places.of(row, column);
    }

    @Nullable
    public Remark remark(int row, int column) {
        return remarks.get(places.of(row, column));
    }

    public Map<Place, Remark> remarks() {
        return remarks;
    }
}
