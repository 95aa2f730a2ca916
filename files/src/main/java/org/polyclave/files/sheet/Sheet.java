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
    private final Map<Place, Mark> marks;

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

        /** Both: what this one says, and the note, doubt and source of another. */
        public Remark and(Remark more) {
            // Both halves of a cell with two measures have one note.
            String both = note.contains(more.note) ? note : (note + " " + more.note).strip();
            return new Remark(
                    more.basis.isEmpty() ? basis : more.basis,
                    more.source.isEmpty() ? source : more.source,
                    doubtful || more.doubtful,
                    both,
                    months,
                    scorer,
                    date,
                    concept);
        }
    }

    /**
     * How a cell is set apart by eye, which people use to say something.
     *
     * @param colour that it is filled with, as six hexadecimal digits; empty if it is not
     */
    public record Mark(boolean struck, String colour) {}

    public Sheet(List<List<String>> cells, Places places, Map<Place, Remark> remarks, Map<Place, Mark> marks) {
        this.cells = cells;
        this.places = places;
        this.remarks = remarks;
        this.marks = marks;
    }

    /** A sheet whose rows began on some lines, its columns as they stand in the file. */
    static Sheet ofLines(List<List<String>> cells, List<Integer> lines) {
        return ofLines(cells, lines, new HashMap<>());
    }

    static Sheet ofLines(List<List<String>> cells, List<Integer> lines, Map<Place, Remark> remarks) {
        return ofLines(cells, lines, remarks, Map.of());
    }

    static Sheet ofLines(
            List<List<String>> cells, List<Integer> lines, Map<Place, Remark> remarks, Map<Place, Mark> marks) {
        return new Sheet(cells, (row, column) -> new Place(lines.get(row), column + 1), remarks, marks);
    }

    public static Sheet empty() {
        return ofLines(new ArrayList<>(), List.of());
    }

    /** The same with rows and columns exchanged below its first {@code titles} rows, which stay. */
    public Sheet turned(int titles) {
        List<List<String>> turned = new ArrayList<>(cells.subList(0, Math.min(titles, cells.size())));
        int width = cells.stream().skip(titles).mapToInt(List::size).max().orElse(0);
        for (int c = 0; c < width; c++) {
            List<String> row = new ArrayList<>();
            for (int r = titles; r < cells.size(); r++) {
                row.add(cell(r, c));
            }
            turned.add(row);
        }
        return new Sheet(
                turned,
                (row, column) -> row < titles ? places.of(row, column) : places.of(titles + column, row - titles),
                remarks,
                marks);
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

    public Map<Place, Mark> marks() {
        return marks;
    }
}
