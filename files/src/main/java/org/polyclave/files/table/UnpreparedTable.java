package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.table.SheetMapping.ColumnRole;
import org.polyclave.files.table.SheetMapping.MappedColumn;
import org.polyclave.study.model.Units;
import org.polyclave.study.rules.Problem;

/**
 * Tables that nobody prepared: titles above, several rows of headings, merged cells, units in headings, remarks in cells,
 * decimal commas. They are brought into the wide form by a {@link SheetMapping} and then read like every other table;
 * problems are told at their place in the original.
 */
public final class UnpreparedTable {
    private static final int SAMPLE = 14;
    private static final int LONGEST = 80;
    /** A bracket with a word in it is a remark; one with numbers belongs to a range. */
    private static final Pattern REMARK =
            Pattern.compile("\\s*(?:\\(([^()]*\\p{L}{3,}[^()]*)\\)|\\[([^\\[\\]]+)]|;\\s*(\\p{L}{3,}.*)|(\\*+))\\s*$");

    private static final Pattern DECIMAL_COMMA = Pattern.compile("(?<=\\d),(?=\\d)");

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

    private static final Map<ColumnRole, String> JOINED =
            Map.of(ColumnRole.TAXON, " ", ColumnRole.PLACE, ", ", ColumnRole.COORDINATES, ", ", ColumnRole.NOTE, "; ");

    private UnpreparedTable() {}

    /**
     * A table as it stands, with what it may mean.
     *
     * @param rows its first rows
     * @param signature the same for tables with the same headings, so that a mapping is found again
     */
    public record TableSample(List<List<String>> rows, SheetMapping proposal, String signature) {}

    /** What cannot be read shows no rows; reading it tells why. */
    public static TableSample look(byte[] bytes, String fileName) {
        return look(bytes, fileName, "");
    }

    /** @param sheetName sheet of a workbook; empty: the first that holds something */
    public static TableSample look(byte[] bytes, String fileName, String sheetName) {
        Sheet sheet = TableReader.opened(bytes, fileName, sheetName, new ArrayList<>())
                .sheet();
        List<List<String>> rows = new ArrayList<>();
        for (int r = 0; r < Math.min(SAMPLE, sheet.rows()); r++) {
            List<String> row = new ArrayList<>();
            for (int c = 0; c < sheet.width(); c++) {
                String text = sheet.cell(r, c);
                row.add(text.length() > LONGEST ? text.substring(0, LONGEST) + "…" : text);
            }
            rows.add(row);
        }
        SheetMapping proposal = MappingProposal.of(sheet);
        int headings = proposal.titleRows() + proposal.headingRows();
        // A mapping counts title rows, so it serves tables with as many of them.
        StringBuilder signature =
                new StringBuilder().append(proposal.titleRows()).append('|');
        for (int r = proposal.titleRows(); r < Math.min(headings, sheet.rows()); r++) {
            sheet.row(r)
                    .forEach(t -> signature.append(t.toLowerCase(Locale.ROOT)).append('|'));
        }
        return new TableSample(rows, proposal, signature.toString());
    }

    public static ImportedStudy read(byte[] bytes, String fileName, SheetMapping mapping) {
        return read(bytes, fileName, "", mapping);
    }

    /** @param sheetName sheet of a workbook; empty: the first that holds something */
    public static ImportedStudy read(byte[] bytes, String fileName, String sheetName, SheetMapping mapping) {
        List<Problem> problems = new ArrayList<>();
        Sheet sheet = TableReader.opened(bytes, fileName, sheetName, problems).sheet();
        boolean fits = mapping.columns().size() >= sheet.width()
                && mapping.titleRows() >= 0
                && mapping.headingRows() >= 0
                && mapping.titleRows() + mapping.headingRows() < sheet.rows();
        boolean named =
                mapping.listsSpecimens() || mapping.columns().stream().anyMatch(c -> c.role() == ColumnRole.TAXON);
        if (!fits) {
            problems.add(Problem.file("The headings leave no row for taxa. Say which rows are titles and headings."));
        } else if (!named) {
            problems.add(Problem.file("No column holds the names of the taxa, or the codes of specimens. Choose it."));
        }
        return TableReader.read(
                fits && named ? new Mapped(sheet, mapping, problems).sheet() : Sheet.empty(), fileName, problems);
    }

    /** The work of one table. */
    private static final class Mapped {
        private final Sheet from;
        private final SheetMapping mapping;
        private final List<Problem> problems;
        private final List<List<String>> cells = new ArrayList<>();
        /** Original row of each row; -1 for rows that the file does not have. */
        private final List<Integer> rowOf = new ArrayList<>();
        /** Original column of each column. */
        private final List<Integer> columnOf = new ArrayList<>();

        private final Map<Sheet.Place, Sheet.Remark> remarks;

        Mapped(Sheet from, SheetMapping mapping, List<Problem> problems) {
            this.from = from;
            this.mapping = mapping;
            this.problems = problems;
            remarks = new HashMap<>(from.remarks());
        }

        Sheet sheet() {
            return mapping.listsSpecimens() ? specimens() : matrix();
        }

        /** A list of specimens, as it would be headed had somebody prepared it. */
        private Sheet specimens() {
            Map<ColumnRole, List<Integer>> used = new LinkedHashMap<>();
            for (ColumnRole role : OF_SPECIMENS) {
                List<Integer> found = columns(role);
                if (!found.isEmpty()) {
                    used.put(role, JOINED.containsKey(role) ? found : found.subList(0, 1));
                    columnOf.add(found.get(0));
                }
            }
            add(used.keySet().stream().map(ColumnRole::heading).toList(), mapping.titleRows());
            for (int r = mapping.titleRows() + mapping.headingRows(); r < from.rows(); r++) {
                List<String> row = new ArrayList<>();
                for (Map.Entry<ColumnRole, List<Integer>> one : used.entrySet()) {
                    row.add(told(r, one.getKey(), one.getValue()));
                }
                if (row.stream().anyMatch(t -> !t.isEmpty())) {
                    add(row, r);
                }
            }
            return placed();
        }

        private String told(int r, ColumnRole role, List<Integer> from) {
            String text = from.stream()
                    .map(c -> this.from.cell(r, c).strip())
                    .filter(t -> !t.isEmpty() && !mapping.blanks().contains(t))
                    .collect(Collectors.joining(JOINED.getOrDefault(role, "")));
            return role == ColumnRole.DATE || role == ColumnRole.DETERMINED_ON ? TypedDate.iso(text) : text;
        }

        private Sheet placed() {
            return new Sheet(
                    cells,
                    (row, column) -> from.place(
                            Math.max(0, rowOf.get(row)), column < columnOf.size() ? columnOf.get(column) : column),
                    remarks);
        }

        private Sheet matrix() {
            List<Integer> taxon = columns(ColumnRole.TAXON);
            columnOf.add(taxon.get(0));
            List<String> heading = new ArrayList<>(List.of("taxon"));
            for (ColumnRole role : List.of(ColumnRole.RANK, ColumnRole.PARENT, ColumnRole.STAGE, ColumnRole.HAZARD)) {
                for (int c : columns(role).stream().limit(1).toList()) {
                    columnOf.add(c);
                    heading.add("#" + role.name().toLowerCase(Locale.ROOT));
                }
            }
            int first = columnOf.size();
            for (int c : characters()) {
                columnOf.add(c);
                heading.add(mapping.columns().get(c).label().strip());
            }
            add(heading, mapping.titleRows());
            describe("#organ", first, c -> c.organ().strip());
            describe("#unit", first, c -> c.unit().strip());
            describe("#type", first, UnpreparedTable::typeOf);
            describe("#states", first, c -> c.role() == ColumnRole.PRESENCE ? Presence.STATES : "");
            taxa(taxon, first);
            return placed();
        }

        private List<Integer> columns(ColumnRole role) {
            List<Integer> found = new ArrayList<>();
            for (int c = 0; c < from.width(); c++) {
                if (mapping.columns().get(c).role() == role) {
                    found.add(c);
                }
            }
            return found;
        }

        private List<Integer> characters() {
            List<Integer> found = new ArrayList<>(columns(ColumnRole.CHARACTER));
            found.addAll(columns(ColumnRole.PRESENCE));
            found.sort(null);
            return found;
        }

        private void add(List<String> row, int original) {
            cells.add(row);
            rowOf.add(original);
        }

        private void describe(String name, int first, java.util.function.Function<MappedColumn, String> said) {
            List<String> row = new ArrayList<>(List.of(name));
            boolean says = false;
            for (int c = 1; c < columnOf.size(); c++) {
                String text = c < first ? "" : said.apply(mapping.columns().get(columnOf.get(c)));
                says |= !text.isEmpty();
                row.add(text);
            }
            if (says) {
                add(row, mapping.titleRows());
            }
        }

        private void taxa(List<Integer> taxon, int first) {
            List<String> above = new ArrayList<>();
            for (int r = mapping.titleRows() + mapping.headingRows(); r < from.rows(); r++) {
                List<String> names = new ArrayList<>();
                if (from.row(r).stream().allMatch(String::isEmpty)) {
                    continue;
                }
                for (int i = 0; i < taxon.size(); i++) {
                    String name = from.cell(r, taxon.get(i));
                    // Only what stands left of a name of its own is taken from above: a genus, not an epithet.
                    boolean later = names(r, taxon, i + 1);
                    names.add(
                            name.isEmpty() && mapping.fillDown() && (later || taxon.size() == 1) && i < above.size()
                                    ? above.get(i)
                                    : name);
                }
                above = names;
                String name = String.join(" ", names).replaceAll("\\s+", " ").strip();
                if (name.isEmpty()) {
                    leftOut(r, taxon.get(0));
                    continue;
                }
                List<String> row = new ArrayList<>(List.of(name));
                for (int c = 1; c < columnOf.size(); c++) {
                    String text = from.cell(r, columnOf.get(c));
                    row.add(c < first ? text : score(text, r, columnOf.get(c)));
                }
                add(row, r);
            }
        }

        private void leftOut(int r, int column) {
            Sheet.Place place = from.place(r, column);
            problems.add(new Problem(
                    place.line(),
                    place.column(),
                    mapping.columns().get(column).label(),
                    "This line names no taxon, so it was left out. If it belongs to the taxon above it, choose that an"
                            + " empty name is that of the row above.",
                    false));
        }

        private boolean names(int r, List<Integer> taxon, int from) {
            return taxon.subList(from, taxon.size()).stream()
                    .anyMatch(c -> !this.from.cell(r, c).isEmpty());
        }

        private String score(String original, int r, int column) {
            String text = original.strip();
            if (mapping.columns().get(column).role() == ColumnRole.PRESENCE) {
                return Presence.read(text);
            }
            Matcher remark = REMARK.matcher(text);
            if (remark.find() && remark.start() > 0) {
                remark(r, column, text.substring(remark.start()).strip(), false);
                text = text.substring(0, remark.start()).strip();
            }
            if (text.length() > 1 && text.endsWith("?")) {
                remark(r, column, "", true);
                text = text.substring(0, text.length() - 1).strip();
            }
            if (mapping.blanks().contains(text)) {
                return "";
            }
            return mapping.decimalComma() ? DECIMAL_COMMA.matcher(text).replaceAll(".") : text;
        }

        private void remark(int r, int column, String note, boolean doubtful) {
            Sheet.Place place = from.place(r, column);
            Sheet.Remark old = remarks.getOrDefault(place, Sheet.Remark.note(""));
            remarks.put(place, old.with((old.note() + " " + note).strip(), old.doubtful() || doubtful));
        }
    }

    /** A unit tells the type; without one it is guessed from the scores. */
    private static String typeOf(MappedColumn column) {
        return Units.typeOf(column.unit().strip())
                .map(type -> type.name().toLowerCase(Locale.ROOT))
                .orElse("");
    }
}
