package org.polyclave.files.table;

import java.util.ArrayList;
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
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.table.SheetMapping.ColumnRole;
import org.polyclave.files.table.SheetMapping.MappedColumn;
import org.polyclave.study.model.Units;
import org.polyclave.study.rules.Problem;

/** A table of taxa and characters that nobody prepared, in the wide form. */
final class MappedMatrix {
    /** Another name behind a name: "(= Tarnella minor)", "[syn. T. parva]". */
    private static final Pattern SYNONYM =
            Pattern.compile("(?iu)(.*\\S)\\s*[(\\[]\\s*(?:=|syn(?:onyms?)?\\b[.:]?|formerly)\\s*([^)\\]]+)[)\\]]");

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

    /** A column of the wide form that holds scores: of a column with two measures there are two. */
    private record ScoreColumn(int original, String label, Function<String, String> part) {}

    private final Sheet from;
    private final SheetMapping mapping;
    private final List<Problem> problems;
    private final CellLedger ledger;
    private final MappedTable table;
    private final MappedScores scores;
    private final List<ScoreColumn> characters = new ArrayList<>();

    private MappedMatrix(Sheet from, SheetMapping mapping, List<Problem> problems, CellLedger ledger) {
        this.from = from;
        this.mapping = mapping;
        this.problems = problems;
        this.ledger = ledger;
        table = new MappedTable(from, mapping);
        scores = new MappedScores(from, mapping, table.remarks());
    }

    static Sheet of(Sheet from, SheetMapping mapping, List<Problem> problems, CellLedger ledger, ReadingWatch watch) {
        return new MappedMatrix(from, mapping, problems, ledger).sheet(watch);
    }

    private Sheet sheet(ReadingWatch watch) {
        for (int r = 0; r < Math.min(table.first(), from.rows()); r++) {
            ledger.markLine(from, r, Fate.HEADING);
        }
        List<ColumnRole> told = OF_ROWS.keySet().stream()
                .filter(role -> !table.columns(role).isEmpty())
                .toList();
        headings(told);
        List<String> above = List.of();
        for (int r = table.first(); r < from.rows(); r++) {
            watch.at(r, from.rows());
            if (from.row(r).stream().allMatch(String::isEmpty)) {
                continue;
            }
            Optional<Reason> remark = mapping.footnotes() ? Footnotes.reason(from, r) : Optional.empty();
            if (remark.isPresent()) {
                ledger.leaveOut(from, r, remark.get());
                continue;
            }
            above = names(r, above);
            String name = String.join(" ", above).replaceAll("\\s+", " ").strip();
            if (name.isEmpty()) {
                nameless(r);
            } else {
                table.addRow(row(r, name, told), r);
                fates(r);
            }
        }
        return table.sheet();
    }

    private void headings(List<ColumnRole> told) {
        List<String> heading = new ArrayList<>(List.of("taxon", "#stage", "#synonyms"));
        int taxon = table.columns(ColumnRole.TAXON).get(0);
        table.addColumn(taxon);
        table.addColumn(firstOf(ColumnRole.STAGE, taxon));
        table.addColumn(firstOf(ColumnRole.SYNONYM, taxon));
        for (ColumnRole role : told) {
            table.addColumn(firstOf(role, taxon));
            heading.add(OF_ROWS.getOrDefault(role, ""));
        }
        int facts = table.columns();
        for (int c = 0; c < mapping.columns().size(); c++) {
            characters.addAll(scoresOf(c));
        }
        for (ScoreColumn one : characters) {
            table.addColumn(one.original());
            heading.add(one.label());
        }
        table.addRow(heading, mapping.titleRows());
        describe("#organ", facts, c -> c.organ().strip());
        describe("#unit", facts, c -> c.unit().strip());
        describe("#type", facts, MappedMatrix::typeOf);
        describe("#states", facts, c -> c.role() == ColumnRole.PRESENCE ? Presence.STATES : "");
    }

    private int firstOf(ColumnRole role, int otherwise) {
        return table.columns(role).isEmpty() ? otherwise : table.columns(role).get(0);
    }

    private List<ScoreColumn> scoresOf(int c) {
        String label = table.column(c).label().strip();
        if (table.column(c).role() != ColumnRole.SIZE) {
            return isCharacter(c) ? List.of(new ScoreColumn(c, label, Function.identity())) : List.of();
        }
        List<ScoreColumn> both = new ArrayList<>();
        for (String one : TwoMeasures.labels(label)) {
            int which = both.size();
            both.add(new ScoreColumn(
                    c, one, text -> TwoMeasures.of(text).map(m -> m.get(which)).orElse(text)));
        }
        return both;
    }

    private boolean isCharacter(int c) {
        return switch (table.column(c).role()) {
            case CHARACTER, PRESENCE, SIZE -> true;
            default -> false;
        };
    }

    private void describe(String name, int facts, Function<MappedColumn, String> said) {
        List<String> row = new ArrayList<>(List.of(name));
        while (row.size() < facts) {
            row.add("");
        }
        characters.forEach(c -> row.add(said.apply(table.column(c.original()))));
        if (row.stream().skip(1).anyMatch(t -> !t.isEmpty())) {
            table.addRow(row, mapping.titleRows());
        }
    }

    /** A unit tells the type; without one it is guessed from the scores. */
    private static String typeOf(MappedColumn column) {
        return Units.typeOf(column.unit().strip())
                .map(type -> type.name().toLowerCase(Locale.ROOT))
                .orElse("");
    }

    /** The parts of the name of a row; where it may be, an empty one is that of the row above. */
    private List<String> names(int r, List<String> above) {
        List<Integer> columns = table.columns(ColumnRole.TAXON);
        List<String> names = new ArrayList<>();
        for (int i = 0; i < columns.size(); i++) {
            String name = from.cell(r, columns.get(i));
            // Only what stands left of a name of its own is taken from above: a genus, not an epithet.
            boolean later =
                    columns.stream().skip(i + 1L).anyMatch(c -> !from.cell(r, c).isEmpty());
            boolean carried =
                    name.isEmpty() && mapping.fillDown() && (later || columns.size() == 1) && i < above.size();
            names.add(carried ? above.get(i) : name);
        }
        return names;
    }

    private List<String> row(int r, String name, List<ColumnRole> told) {
        List<String> synonyms = new ArrayList<>();
        String label = name;
        Matcher synonym = SYNONYM.matcher(name);
        if (synonym.matches()) {
            label = synonym.group(1).strip();
            synonyms.add(synonym.group(2).strip());
        }
        synonyms.addAll(table.texts(r, ColumnRole.SYNONYM));
        String stage = table.texts(r, ColumnRole.STAGE).stream()
                .map(StageWords::full)
                .filter(t -> !t.isEmpty())
                .collect(Collectors.joining(" "));
        if (table.columns(ColumnRole.STAGE).isEmpty()) {
            Optional<StageWords.StagedName> staged = StageWords.inName(label);
            label = staged.map(StageWords.StagedName::taxon).orElse(label);
            stage = staged.map(StageWords.StagedName::stage).orElse("");
        }
        List<String> row = new ArrayList<>(List.of(label, stage, String.join("|", synonyms)));
        for (ColumnRole role : told) {
            String text = table.joined(r, role);
            row.add(role == ColumnRole.COMMONNESS ? WEIGHTS.getOrDefault(text.toLowerCase(Locale.ROOT), text) : text);
        }
        String source = table.joined(r, ColumnRole.SOURCE);
        for (ScoreColumn one : characters) {
            row.add(one.part().apply(scores.text(r, one.original(), source)));
        }
        return row;
    }

    /** What the cells of a line that is a taxon become, unless they are scores: those are told by whoever reads them. */
    private void fates(int r) {
        for (int c = 0; c < from.row(r).size(); c++) {
            boolean taken = table.column(c).role() != ColumnRole.IGNORED;
            ledger.mark(
                    from.place(r, c), isCharacter(c) ? Fate.NOTHING_SEEN : taken ? Fate.NAME : Fate.COLUMN_LEFT_OUT);
        }
    }

    private void nameless(int r) {
        int taxon = table.columns(ColumnRole.TAXON).get(0);
        Sheet.Place place = from.place(r, taxon);
        problems.add(new Problem(
                place.line(),
                place.column(),
                table.column(taxon).label(),
                "This line names no taxon, so it was left out. If it belongs to the taxon above it, choose that an"
                        + " empty name is that of the row above.",
                false));
        ledger.leaveOut(from, r, Reason.NO_NAME);
    }
}
