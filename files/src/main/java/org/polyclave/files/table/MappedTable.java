package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportAccount.Fate;
import org.polyclave.files.source.ImportAccount.Reason;
import org.polyclave.files.table.SheetMapping.ColumnRole;
import org.polyclave.files.table.SheetMapping.MappedColumn;
import org.polyclave.study.model.Units;
import org.polyclave.study.rules.Problem;

/** The work of one table that nobody prepared: its wide form, each cell with its place in the original. */
final class MappedTable {
    private static final Pattern DECIMAL_COMMA = Pattern.compile("(?<=\\d),(?=\\d)");
    /** Another name behind a name: "(= Tarnella minor)", "[syn. T. parva]". */
    private static final Pattern SYNONYM =
            Pattern.compile("(?iu)(.*\\S)\\s*[(\\[]\\s*(?:=|syn(?:onyms?)?\\b[.:]?|formerly)\\s*([^)\\]]+)[)\\]]");

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

    private static final Map<ColumnRole, String> JOINED = Map.of(
            ColumnRole.TAXON, " ",
            ColumnRole.PLACE, ", ",
            ColumnRole.COORDINATES, ", ",
            ColumnRole.NOTE, "; ",
            ColumnRole.SYNONYM, "|",
            ColumnRole.VERNACULAR, "|",
            ColumnRole.STATUS, "|",
            ColumnRole.HABITAT, "; ",
            ColumnRole.SOURCE, "; ");

    /** What describes a row of a matrix, by the name of its column in a prepared table. */
    private static final Map<ColumnRole, String> OF_ROWS = new LinkedHashMap<>();

    static {
        OF_ROWS.put(ColumnRole.RANK, "#rank");
        OF_ROWS.put(ColumnRole.PARENT, "#parent");
        OF_ROWS.put(ColumnRole.HAZARD, "#hazard");
        OF_ROWS.put(ColumnRole.COMMONNESS, "#weight");
        OF_ROWS.put(ColumnRole.AUTHORSHIP, "#authorship");
        OF_ROWS.put(ColumnRole.VERNACULAR, "#vernacular");
        OF_ROWS.put(ColumnRole.STATUS, "#status");
        OF_ROWS.put(ColumnRole.MONTHS_PRESENT, "#present");
        OF_ROWS.put(ColumnRole.HABITAT, "#habitat");
        OF_ROWS.put(ColumnRole.NOTE, "#description");
    }

    private static final Map<String, String> WEIGHTS = Map.of(
            "abundant", "8",
            "very common", "8",
            "common", "4",
            "frequent", "2",
            "occasional", "1",
            "local", "1",
            "uncommon", "0.5",
            "scarce", "0.5",
            "rare", "0.25",
            "very rare", "0.1");

    private final Sheet from;
    private final SheetMapping mapping;
    private final List<Problem> problems;
    private final CellLedger ledger;
    private final int first;
    private final List<List<String>> cells = new ArrayList<>();
    /** Original row of each row. */
    private final List<Integer> rowOf = new ArrayList<>();
    /** Original column of each column. */
    private final List<Integer> columnOf = new ArrayList<>();

    private final Map<Sheet.Place, Sheet.Remark> remarks;

    MappedTable(Sheet from, SheetMapping mapping, List<Problem> problems, CellLedger ledger) {
        this.from = from;
        this.mapping = mapping;
        this.problems = problems;
        this.ledger = ledger;
        first = mapping.titleRows() + mapping.headingRows();
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
        for (int r = first; r < from.rows(); r++) {
            List<String> row = new ArrayList<>();
            for (Map.Entry<ColumnRole, List<Integer>> one : used.entrySet()) {
                String text = joined(r, one.getKey(), one.getValue());
                boolean day = one.getKey() == ColumnRole.DATE || one.getKey() == ColumnRole.DETERMINED_ON;
                row.add(day ? TypedDate.iso(text) : text);
            }
            if (row.stream().anyMatch(t -> !t.isEmpty())) {
                add(row, r);
            }
        }
        return placed();
    }

    private String joined(int r, ColumnRole role, List<Integer> columns) {
        return columns.stream()
                .map(c -> from.cell(r, c).strip())
                .filter(t -> !t.isEmpty() && !mapping.blanks().contains(t))
                .collect(Collectors.joining(JOINED.getOrDefault(role, " ")));
    }

    private Sheet placed() {
        return new Sheet(
                cells,
                (row, column) -> from.place(
                        Math.max(0, rowOf.get(row)), column < columnOf.size() ? columnOf.get(column) : column),
                remarks,
                from.marks());
    }

    private Sheet matrix() {
        for (int r = 0; r < Math.min(first, from.rows()); r++) {
            ledger.markLine(from, r, Fate.HEADING);
        }
        List<Integer> taxon = columns(ColumnRole.TAXON);
        List<Integer> stage = columns(ColumnRole.STAGE);
        columnOf.add(taxon.get(0));
        columnOf.add(stage.isEmpty() ? taxon.get(0) : stage.get(0));
        List<Integer> synonyms = columns(ColumnRole.SYNONYM);
        columnOf.add(synonyms.isEmpty() ? taxon.get(0) : synonyms.get(0));
        List<String> heading = new ArrayList<>(List.of("taxon", "#stage", "#synonyms"));
        Map<ColumnRole, List<Integer>> told = new LinkedHashMap<>();
        OF_ROWS.forEach((role, name) -> {
            List<Integer> found = columns(role);
            if (!found.isEmpty()) {
                told.put(role, JOINED.containsKey(role) ? found : found.subList(0, 1));
                columnOf.add(found.get(0));
                heading.add(name);
            }
        });
        int characters = columnOf.size();
        List<Function<String, String>> halves = new ArrayList<>();
        List<MappedColumn> meant = new ArrayList<>();
        for (int c = 0; c < from.width(); c++) {
            MappedColumn column = mapping.columns().get(c);
            if (column.role() == ColumnRole.SIZE) {
                List<String> labels = TwoMeasures.labels(column.label().strip());
                for (int half = 0; half < labels.size(); half++) {
                    int which = half;
                    columnOf.add(c);
                    heading.add(labels.get(half));
                    meant.add(column);
                    halves.add(text ->
                            TwoMeasures.of(text).map(both -> both.get(which)).orElse(text));
                }
            } else if (column.role() == ColumnRole.CHARACTER || column.role() == ColumnRole.PRESENCE) {
                columnOf.add(c);
                heading.add(column.label().strip());
                meant.add(column);
                halves.add(Function.identity());
            }
        }
        add(heading, mapping.titleRows());
        describe("#organ", characters, meant, c -> c.organ().strip());
        describe("#unit", characters, meant, c -> c.unit().strip());
        describe("#type", characters, meant, MappedTable::typeOf);
        describe("#states", characters, meant, c -> c.role() == ColumnRole.PRESENCE ? Presence.STATES : "");
        taxa(taxon, stage, synonyms, told, characters, halves);
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

    private void add(List<String> row, int original) {
        cells.add(row);
        rowOf.add(original);
    }

    private void describe(String name, int first, List<MappedColumn> meant, Function<MappedColumn, String> said) {
        List<String> row = new ArrayList<>(List.of(name));
        boolean says = false;
        for (int c = 1; c < columnOf.size(); c++) {
            String text = c < first ? "" : said.apply(meant.get(c - first));
            says |= !text.isEmpty();
            row.add(text);
        }
        if (says) {
            add(row, mapping.titleRows());
        }
    }

    /** A unit tells the type; without one it is guessed from the scores. */
    private static String typeOf(MappedColumn column) {
        return Units.typeOf(column.unit().strip())
                .map(type -> type.name().toLowerCase(Locale.ROOT))
                .orElse("");
    }

    private void taxa(
            List<Integer> taxon,
            List<Integer> stage,
            List<Integer> synonyms,
            Map<ColumnRole, List<Integer>> told,
            int characters,
            List<Function<String, String>> halves) {
        List<String> above = new ArrayList<>();
        for (int r = first; r < from.rows(); r++) {
            if (from.row(r).stream().allMatch(String::isEmpty)) {
                continue;
            }
            Optional<Reason> remark = mapping.footnotes() ? Footnotes.reason(from, r, taxon) : Optional.empty();
            if (remark.isPresent()) {
                ledger.leaveOut(from, r, remark.get());
                continue;
            }
            List<String> names = new ArrayList<>();
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
                nameless(r, taxon.get(0));
                continue;
            }
            add(row(r, name, stage, synonyms, told, characters, halves), r);
            fates(r);
        }
    }

    private List<String> row(
            int r,
            String name,
            List<Integer> stage,
            List<Integer> synonyms,
            Map<ColumnRole, List<Integer>> told,
            int characters,
            List<Function<String, String>> halves) {
        Matcher synonym = SYNONYM.matcher(name);
        String others = joined(r, ColumnRole.SYNONYM, synonyms);
        String label = name;
        if (synonym.matches()) {
            label = synonym.group(1).strip();
            others = others.isEmpty()
                    ? synonym.group(2).strip()
                    : synonym.group(2).strip() + "|" + others;
        }
        String sex = StageWords.full(joined(r, ColumnRole.STAGE, stage));
        Optional<List<String>> inName = stage.isEmpty() ? StageWords.inName(label) : Optional.empty();
        if (inName.isPresent()) {
            label = inName.get().get(0);
            sex = inName.get().get(1);
        }
        List<String> row = new ArrayList<>(List.of(label, sex, others));
        told.forEach((role, columns) -> {
            String text = joined(r, role, columns);
            row.add(role == ColumnRole.COMMONNESS ? WEIGHTS.getOrDefault(text.toLowerCase(Locale.ROOT), text) : text);
        });
        String source = joined(r, ColumnRole.SOURCE, columns(ColumnRole.SOURCE));
        for (int c = characters; c < columnOf.size(); c++) {
            row.add(score(halves.get(c - characters), r, columnOf.get(c), source));
        }
        return row;
    }

    /** What the cells of a line that is a taxon become, unless they are scores: those are told by whoever reads them. */
    private void fates(int r) {
        for (int c = 0; c < from.row(r).size(); c++) {
            boolean taken = mapping.columns().get(c).role() != ColumnRole.IGNORED;
            boolean score = columnOf.contains(c) && isCharacter(c);
            ledger.mark(from.place(r, c), score ? Fate.NOTHING_SEEN : taken ? Fate.NAME : Fate.COLUMN_LEFT_OUT);
        }
    }

    private boolean isCharacter(int c) {
        return switch (mapping.columns().get(c).role()) {
            case CHARACTER, PRESENCE, SIZE -> true;
            default -> false;
        };
    }

    private void nameless(int r, int column) {
        Sheet.Place place = from.place(r, column);
        problems.add(new Problem(
                place.line(),
                place.column(),
                mapping.columns().get(column).label(),
                "This line names no taxon, so it was left out. If it belongs to the taxon above it, choose that an"
                        + " empty name is that of the row above.",
                false));
        ledger.leaveOut(from, r, Reason.NO_NAME);
    }

    private boolean names(int r, List<Integer> taxon, int start) {
        return taxon.subList(start, taxon.size()).stream()
                .anyMatch(c -> !from.cell(r, c).isEmpty());
    }

    private String score(Function<String, String> half, int r, int column, String source) {
        String original = from.cell(r, column).strip();
        if (original.isEmpty() || mapping.blanks().contains(original)) {
            return "";
        }
        boolean presence = mapping.columns().get(column).role() == ColumnRole.PRESENCE;
        CellRemarks read = presence ? Presence.read(original) : CellRemarks.of(original);
        remark(r, column, marked(read, from.place(r, column)), source);
        String text = mapping.blanks().contains(read.text()) ? "" : read.text();
        text = mapping.decimalComma() ? DECIMAL_COMMA.matcher(text).replaceAll(".") : text;
        return half.apply(text);
    }

    /** What its colour and its line through add to a score. */
    private CellRemarks marked(CellRemarks read, Sheet.Place place) {
        Sheet.Mark mark = from.marks().get(place);
        CellRemarks marked = read;
        for (SheetMapping.MarkMeaning meant : mapping.marks()) {
            boolean has = mark != null
                    && (meant.mark().equals(SheetMapping.MarkMeaning.STRUCK)
                            ? mark.struck()
                            : mark.colour().equals(meant.mark()));
            if (has && meant.meaning() != SheetMapping.Meaning.NOTHING) {
                marked = new CellRemarks(
                        marked.text(),
                        (marked.note() + " " + meant.note()).strip(),
                        marked.doubtful() || meant.meaning() == SheetMapping.Meaning.DOUBT);
            }
        }
        return marked;
    }

    private void remark(int r, int column, CellRemarks read, String source) {
        if (read.note().isEmpty() && !read.doubtful() && source.isEmpty()) {
            return;
        }
        Sheet.Place place = from.place(r, column);
        Sheet.Remark old = remarks.getOrDefault(place, Sheet.Remark.note(""));
        // Both halves of a cell with two measures have one note.
        String note = old.note().contains(read.note()) ? old.note() : (old.note() + " " + read.note()).strip();
        remarks.put(
                place,
                new Sheet.Remark(
                        source.isEmpty() ? old.basis() : "reference",
                        source.isEmpty() ? old.source() : source,
                        old.doubtful() || read.doubtful(),
                        note,
                        old.months(),
                        old.scorer(),
                        old.date(),
                        old.concept()));
    }
}
