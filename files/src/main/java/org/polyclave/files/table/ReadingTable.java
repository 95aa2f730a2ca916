package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.sheet.SheetFile;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.study.measuring.ReadingSheet;
import org.polyclave.study.rules.NeverAsked;
import org.polyclave.study.rules.Problem;

/**
 * Reads readings from CSV, TSV or XLSX. Wide: one specimen, or one item of it, a line, and a column for each character, with
 * its unit in the heading. Long, where there are columns {@code character} and {@code value}: one reading a line. Either has
 * columns that describe specimens; without a column {@code specimen} every line is a specimen.
 *
 * <p>Time and memory linear in the cells.
 */
public final class ReadingTable {
    static final String SPECIMEN = "specimen";
    static final String ITEM = "item";

    private static final String CHARACTER = "character";
    private static final String VALUE = "value";
    private static final String UNIT = "unit";
    private static final Set<String> LONG = Set.of(CHARACTER, VALUE, UNIT);
    private static final Set<String> FIELDS = Set.of(
            SPECIMEN,
            ITEM,
            ReadingSheet.EVENT,
            "repetition",
            "row",
            "stage",
            "sex",
            "material",
            "date",
            "place",
            "collector",
            "habitat",
            "host",
            "instrument",
            "note");
    private static final Set<String> MISSING = Set.of("", "?", "-", "–", "na", "n/a");

    private final Sheet sheet;
    private final List<Problem> problems;
    /** Places of the described fields, in the table's order. */
    private final Map<String, Integer> fields = new LinkedHashMap<>();
    /** Cells of each character, by its heading or name. */
    private final Map<String, List<ReadingColumn.Typed>> characters = new LinkedHashMap<>();

    private ReadingTable(Sheet sheet, List<Problem> problems) {
        this.sheet = sheet;
        this.problems = problems;
    }

    /** @param fileName its ending tells the format */
    public static ReadingSheet read(byte[] bytes, String fileName) {
        List<Problem> problems = new ArrayList<>();
        return new ReadingTable(SheetFile.read(bytes, fileName, "", problems, ReadingWatch.NONE), problems).run();
    }

    private ReadingSheet run() {
        if (sheet.rows() == 0) {
            if (problems.isEmpty()) {
                problems.add(Problem.file("The table is empty. Its first row must name the columns."));
            }
            return new ReadingSheet(List.of(), List.of(), problems);
        }
        Map<String, Integer> others = headings();
        Integer character = others.get(CHARACTER);
        Integer value = others.get(VALUE);
        for (int r = 1; r < sheet.rows(); r++) {
            String specimen = specimen(r);
            if (specimen.isEmpty()) {
                problem(r, at(SPECIMEN), "this line has no specimen. Name it, or remove the line.");
            } else if (character != null && value != null) {
                readLong(r, specimen, character, value, others.get(UNIT));
            } else {
                readWide(r, specimen, others);
            }
        }
        List<ReadingSheet.Column> columns = new ArrayList<>();
        characters.forEach((name, cells) -> columns.add(ReadingColumn.of(name, cells, this::problem)));
        if (columns.isEmpty() && problems.isEmpty()) {
            problems.add(Problem.file("The table has no readings. A column that is not one of "
                    + String.join(", ", FIELDS.stream().sorted().toList()) + " is taken as a character."));
        }
        return new ReadingSheet(List.copyOf(fields.keySet()), columns, problems);
    }

    /** Finds the columns that describe specimens; the others by their headings. */
    private Map<String, Integer> headings() {
        Map<String, Integer> others = new LinkedHashMap<>();
        for (int c = 0; c < sheet.columns(); c++) {
            String heading = sheet.cell(0, c).strip();
            String name = SpecimenHeadings.nameOf(heading);
            if (heading.isEmpty()) {
                continue;
            }
            if (NeverAsked.isHeading(heading)) {
                Sheet.Place place = sheet.place(0, c);
                problems.add(new Problem(
                        place.line(),
                        place.column(),
                        heading,
                        "this column was set aside: taste and edibility are never asked or shown.",
                        false));
                continue;
            }
            boolean described = FIELDS.contains(name);
            String key = described || LONG.contains(name) ? name : heading;
            if ((described ? fields : others).put(key, c) != null) {
                problem(0, c, "there are two columns for '" + key + "'. Rename one of them.");
            }
        }
        return others;
    }

    private void readWide(int row, String specimen, Map<String, Integer> others) {
        Map<String, String> about = about(row);
        others.forEach((heading, column) -> add(row, column, specimen, about, heading, sheet.cell(row, column)));
    }

    private void readLong(int row, String specimen, int at, int valueAt, @Nullable Integer unit) {
        String character = sheet.cell(row, at).strip();
        if (character.isEmpty()) {
            problem(row, at, "this line names no character. Name it, or remove the line.");
            return;
        }
        if (NeverAsked.isHeading(character)) {
            return;
        }
        String value = sheet.cell(row, valueAt).strip();
        String withUnit = unit == null || isMissing(value) ? value : value + " " + sheet.cell(row, unit);
        add(row, valueAt, specimen, about(row), character, withUnit.strip());
    }

    private void add(int row, int column, String specimen, Map<String, String> about, String character, String cell) {
        String typed = isMissing(cell.strip()) ? "" : cell.strip();
        ReadingSheet.Measurement reading = new ReadingSheet.Measurement(
                sheet.place(row, column).line(), specimen, field(row, ITEM), about, typed, Double.NaN);
        characters
                .computeIfAbsent(character, c -> new ArrayList<>())
                .add(new ReadingColumn.Typed(row, column, reading));
    }

    private static boolean isMissing(String text) {
        return MISSING.contains(text.toLowerCase(Locale.ROOT));
    }

    private String specimen(int row) {
        return fields.containsKey(SPECIMEN)
                ? field(row, SPECIMEN)
                : "line " + sheet.place(row, 0).line();
    }

    private Map<String, String> about(int row) {
        Map<String, String> about = new TreeMap<>();
        fields.forEach(
                (field, column) -> about.put(field, sheet.cell(row, column).strip()));
        return about;
    }

    private String field(int row, String field) {
        Integer column = fields.get(field);
        return column == null ? "" : sheet.cell(row, column).strip();
    }

    private int at(String field) {
        return fields.getOrDefault(field, 0);
    }

    private void problem(int row, int column, String text) {
        Sheet.Place place = sheet.place(row, column);
        problems.add(Problem.at(place.line(), place.column(), sheet.cell(0, column), text));
    }
}
