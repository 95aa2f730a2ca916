package org.polyclave.formats.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.core.matrix.Hazard;
import org.polyclave.formats.notation.CellNotation;
import org.polyclave.formats.study.Ranks;
import org.polyclave.formats.study.ScoreValue;
import org.polyclave.formats.study.Slug;
import org.polyclave.formats.study.Study;
import org.polyclave.formats.study.StudyCharacter;
import org.polyclave.formats.study.StudyRow;
import org.polyclave.formats.study.StudyRules;
import org.polyclave.formats.study.StudyScope;
import org.polyclave.formats.study.StudyScore;

/**
 * Reads a table of scores, from CSV, TSV or XLSX. Wide: taxa down, characters across, the first column {@code taxon}; rows
 * that begin with {@code #} describe characters, columns that begin with {@code #} describe rows. Long: one score a line,
 * see {@link LongTable}. Every problem is collected with its place.
 */
public final class TableReader {
    private static final Pattern NEVER_ASKED =
            Pattern.compile("(?i).*\\b(taste|tasting|edib\\w*|edible|palatab\\w*|flavou?r|medicinal\\w*)\\b.*");

    private static final String SPECIES = "species";

    private final String title;
    private final List<Problem> problems = new ArrayList<>();
    private final List<String> setAside = new ArrayList<>();
    private Sheet sheet = Sheet.empty();
    private final Map<String, List<String>> about = new HashMap<>();
    private final Map<String, Integer> aboutRow = new HashMap<>();
    private final List<Integer> taxonRows = new ArrayList<>();
    private final Map<Integer, StudyRow> rowAt = new LinkedHashMap<>();
    private final Map<Integer, StudyCharacter> characterAt = new LinkedHashMap<>();
    private final List<ImportedStudy.Column> columns = new ArrayList<>();

    private TableReader(String title) {
        this.title = title;
    }

    /** Reads CSV, TSV or XLSX; {@code fileName} tells which, and the title. */
    public static ImportedStudy read(byte[] bytes, String fileName) {
        List<Problem> problems = new ArrayList<>();
        return read(open(bytes, fileName, problems), fileName, problems);
    }

    /** The table as it stands in a file; what could not be read is told. */
    static Sheet open(byte[] bytes, String fileName, List<Problem> problems) {
        if (bytes.length > Limits.TABLE_BYTES) {
            problems.add(Problem.file("The table is larger than 25 MB. Split it, or import a study file."));
            return Sheet.empty();
        }
        if (fileName.toLowerCase(Locale.ROOT).endsWith(".xlsx") || Workbook.isZip(bytes)) {
            return Workbook.read(bytes, problems);
        }
        return TextTable.read(TextDecoder.decode(bytes, problems), fileName, problems);
    }

    /** @param problems what was already found; the list is the result's */
    static ImportedStudy read(Sheet sheet, String fileName, List<Problem> problems) {
        String title = fileName.replaceAll("^.*[/\\\\]", "").replaceAll("\\.[^.]*$", "");
        TableReader reader = new TableReader(title.isBlank() ? "Imported matrix" : title);
        reader.problems.addAll(problems);
        reader.sheet = sheet;
        return reader.run();
    }

    private ImportedStudy run() {
        if (sheet.rows() == 0) {
            if (problems.stream().noneMatch(Problem::blocking)) {
                problems.add(Problem.file(
                        "The table is empty. Its first row must name the columns, beginning with 'taxon'."));
            }
            return result(List.of());
        }
        if (LongTable.isLong(sheet)) {
            sheet = LongTable.widen(sheet, problems);
        }
        if (!sheet.cell(0, 0).equalsIgnoreCase("taxon")) {
            problem(0, 0, "the first column must be headed 'taxon', but says '" + sheet.cell(0, 0) + "'.");
            return result(List.of());
        }
        divideRows();
        if (isWithinLimits()) {
            readRows();
            readCharacters();
            applyRules();
            return result(readScores());
        }
        return result(List.of());
    }

    private ImportedStudy result(List<StudyScore> scores) {
        List<StudyRow> rows = new ArrayList<>(rowAt.values());
        List<StudyCharacter> characters = new ArrayList<>(characterAt.values());
        String slug = Slug.of(title).isEmpty() ? "matrix" : Slug.of(title);
        Study study = new Study(slug, title, StudyScope.EMPTY, rows, List.of(), characters, scores);
        return new ImportedStudy(study, problems, columns, setAside);
    }

    /** @param row index in the sheet */
    private void problem(int row, int column, String text) {
        String capital = text.substring(0, 1).toUpperCase(Locale.ROOT) + text.substring(1);
        Sheet.Place place = sheet.place(row, column);
        problems.add(Problem.at(place.line(), place.column(), heading(column), capital));
    }

    private void notice(int row, int column, String text) {
        Sheet.Place place = sheet.place(row, column);
        problems.add(new Problem(place.line(), place.column(), heading(column), text, false));
    }

    private String heading(int column) {
        return column == 0 ? "" : sheet.cell(0, column);
    }

    private void divideRows() {
        List<String> known = List.of(
                "type",
                "unit",
                "organ",
                "method",
                "states",
                "applies",
                "months",
                "effort",
                "harm",
                "group",
                "uncertainty",
                "note",
                "question",
                "misreading");
        for (int r = 1; r < sheet.rows(); r++) {
            String first = sheet.cell(r, 0);
            if (!first.startsWith("#")) {
                taxonRows.add(r);
                continue;
            }
            String name = first.substring(1).strip().toLowerCase(Locale.ROOT);
            if (!known.contains(name)) {
                problem(
                        r,
                        0,
                        "'" + first + "' describes nothing known. Use one of #" + String.join(", #", known) + ".");
            } else if (about.putIfAbsent(name, sheet.row(r)) != null) {
                problem(r, 0, "'" + first + "' stands twice. Keep one of the rows.");
            } else {
                aboutRow.put(name, r);
            }
        }
        for (int r : taxonRows) {
            if (sheet.row(r).size() > sheet.columns()) {
                problem(
                        r,
                        sheet.columns(),
                        "the row has more cells than the table has headings. Quote cells that hold the separator.");
            }
        }
    }

    private boolean isWithinLimits() {
        int characters = 0;
        for (String heading : sheet.row(0)) {
            characters += heading.startsWith("#") ? 0 : 1;
        }
        if (taxonRows.size() > Limits.TAXA) {
            problems.add(Problem.file(
                    "The table has " + taxonRows.size() + " taxa; at most " + Limits.TAXA + " can be read."));
        }
        if (characters - 1 > Limits.CHARACTERS) {
            problems.add(Problem.file("The table has " + (characters - 1) + " characters; at most " + Limits.CHARACTERS
                    + " can be read."));
        }
        if (taxonRows.isEmpty()) {
            problems.add(Problem.file("The table has no taxa. Add a row for each, with its name in the first column."));
        }
        return problems.stream().noneMatch(p -> p.row() == 0 && p.blocking());
    }

    private void readRows() {
        List<String> known = List.of("rank", "parent", "stage", "hazard", "weight");
        Map<String, Integer> columnOf = new HashMap<>();
        for (int c = 1; c < sheet.columns(); c++) {
            String heading = sheet.cell(0, c);
            if (heading.startsWith("#")) {
                String name = heading.substring(1).strip().toLowerCase(Locale.ROOT);
                if (known.contains(name)) {
                    columnOf.put(name, c);
                } else {
                    problem(
                            0,
                            c,
                            "'" + heading + "' describes nothing known. Use one of #" + String.join(", #", known)
                                    + ".");
                }
            }
        }
        RowColumns reading = new RowColumns(columnOf);
        for (int r : taxonRows) {
            reading.read(r);
        }
        reading.addTaxaOfStages();
        reading.resolveParents();
        reading.chooseRanks();
    }

    /** Reads the columns that describe rows. */
    private final class RowColumns {
        private final Map<String, Integer> columnOf;
        private final Map<String, Integer> byId = new HashMap<>();

        RowColumns(Map<String, Integer> columnOf) {
            this.columnOf = columnOf;
        }

        private String cell(int r, String name) {
            Integer column = columnOf.get(name);
            return column == null ? "" : sheet.cell(r, column);
        }

        void read(int r) {
            String label = sheet.cell(r, 0);
            String stage = cell(r, "stage");
            String id = Slug.of(stage.isEmpty() ? label : label + " " + stage);
            if (label.isEmpty() || id.isEmpty()) {
                problem(r, 0, "the taxon has no name. Write it in the first column, or remove the row.");
                return;
            }
            Integer other = byId.putIfAbsent(id, r);
            if (other != null) {
                problem(
                        r,
                        0,
                        "'" + label + (stage.isEmpty() ? "" : ", " + stage) + "' stands in row "
                                + sheet.place(other, 0).line() + " already. Rename one, or tell them apart by #stage.");
                return;
            }
            String rank = cell(r, "rank");
            StudyRow row = new StudyRow(
                    id,
                    label,
                    "",
                    rank,
                    null,
                    stage,
                    hazard(r),
                    List.of(),
                    List.of(),
                    weight(r),
                    rank.equalsIgnoreCase("aggregate"),
                    List.of(),
                    "");
            rowAt.put(r, row);
        }

        private Hazard hazard(int r) {
            return switch (cell(r, "hazard").toLowerCase(Locale.ROOT).replace('-', ' ')) {
                case "" -> Hazard.NOT_ASSESSED;
                case "none known" -> Hazard.NONE_KNOWN;
                case "caution" -> Hazard.CAUTION;
                case "serious" -> Hazard.SERIOUS;
                case "life threatening" -> Hazard.LIFE_THREATENING;
                default -> {
                    problem(
                            r,
                            column("hazard"),
                            "'" + cell(r, "hazard")
                                    + "' is no severity. Use 'none known', 'caution', 'serious' or 'life-threatening', or leave it empty.");
                    yield Hazard.NOT_ASSESSED;
                }
            };
        }

        private int column(String name) {
            return columnOf.getOrDefault(name, 0);
        }

        private double weight(int r) {
            String text = cell(r, "weight");
            Optional<Double> weight = text.isEmpty() ? Optional.of(1.0) : number(text);
            if (weight.isEmpty() || !(weight.get() > 0) || weight.get() > 1e9) {
                problem(r, column("weight"), "'" + text + "' is no weight. Write a number above 0.");
                return 1;
            }
            return weight.get();
        }

        /** Sexes and stages belong to their taxon, which is added where the table has no row for it. */
        void addTaxaOfStages() {
            Map<String, StudyRow> added = new LinkedHashMap<>();
            for (Map.Entry<Integer, StudyRow> entry : rowAt.entrySet()) {
                StudyRow row = entry.getValue();
                String taxon = Slug.of(row.label());
                if (row.isSemaphoront()) {
                    if (!byId.containsKey(taxon) && !taxon.isEmpty()) {
                        added.putIfAbsent(taxon, taxonOf(row).withParent(parentOf(entry.getKey())));
                    }
                    entry.setValue(row.withParent(taxon));
                }
            }
            int next = -1;
            for (StudyRow taxon : added.values()) {
                rowAt.put(next, taxon);
                byId.put(taxon.id(), next--);
            }
        }

        private StudyRow taxonOf(StudyRow stage) {
            return new StudyRow(
                    Slug.of(stage.label()),
                    stage.label(),
                    "",
                    stage.rank(),
                    null,
                    "",
                    stage.hazard(),
                    List.of(),
                    List.of(),
                    1,
                    false,
                    List.of(),
                    "");
        }

        private @Nullable String parentOf(int r) {
            String parent = Slug.of(cell(r, "parent"));
            return parent.isEmpty() ? null : parent;
        }

        void resolveParents() {
            for (Map.Entry<Integer, StudyRow> entry : rowAt.entrySet()) {
                int r = entry.getKey();
                if (r >= 0
                        && !entry.getValue().isSemaphoront()
                        && !cell(r, "parent").isEmpty()) {
                    String parent = Slug.of(cell(r, "parent"));
                    if (!byId.containsKey(parent)) {
                        problem(
                                r,
                                column("parent"),
                                "the parent '" + cell(r, "parent") + "' has no row. Add it, or correct its name.");
                    } else {
                        entry.setValue(entry.getValue().withParent(parent));
                    }
                }
            }
        }

        /**
         * Ranks where the table gives none: a species, unless that would not stand above its parts or below its parent;
         * then none.
         */
        void chooseRanks() {
            Map<String, StudyRow> rows = new HashMap<>();
            rowAt.values().forEach(row -> rows.put(row.id(), row));
            Set<String> above = new HashSet<>();
            for (StudyRow row : rowAt.values()) {
                String rank = row.rank().isEmpty() ? SPECIES : row.rank();
                if (row.parent() != null && !row.isSemaphoront() && !Ranks.mayContain(SPECIES, rank)) {
                    above.add(row.parent());
                }
            }
            for (Map.Entry<Integer, StudyRow> entry : rowAt.entrySet()) {
                StudyRow row = entry.getValue();
                StudyRow parent = row.parent() == null ? null : rows.get(row.parent());
                boolean below = parent != null && !Ranks.mayContain(parent.rank(), SPECIES);
                if (row.rank().isEmpty() && !above.contains(row.id()) && (row.isSemaphoront() || !below)) {
                    entry.setValue(row.withRank(SPECIES));
                }
            }
        }
    }

    /** What holds in every study must hold here; each violation is told at its place in the table. */
    private void applyRules() {
        Map<String, Integer> rowOf = new HashMap<>();
        rowAt.forEach((r, row) -> rowOf.put("row/" + row.id(), Math.max(0, r)));
        Map<String, Integer> columnOf = new HashMap<>();
        characterAt.forEach((c, character) -> columnOf.put("character/" + character.id(), c));
        for (StudyRules.Violation violation : StudyRules.check(result(List.of()).study())) {
            Integer row = rowOf.get(violation.place());
            int column = row == null
                    ? columnOf.getOrDefault(violation.place(), 0)
                    : Math.max(0, sheet.row(0).indexOf("#" + violation.field()));
            problem(row == null ? 0 : row, column, violation.sentence());
        }
    }

    private static Optional<Double> number(String text) {
        try {
            return Optional.of(Double.parseDouble(text.replace(',', '.')));
        } catch (NumberFormatException noNumber) {
            return Optional.empty();
        }
    }

    private void readCharacters() {
        CharacterColumns reading = new CharacterColumns(about, aboutRow, this::problem);
        Map<String, Integer> byId = new HashMap<>();
        for (int c = 1; c < sheet.columns(); c++) {
            String label = sheet.cell(0, c);
            if (label.startsWith("#")) {
                continue;
            }
            if (NEVER_ASKED.matcher(label).matches()) {
                setAside.add(label);
                notice(0, c, "'" + label + "' was set aside: taste and edibility are never asked or shown.");
                continue;
            }
            String id = Slug.of(label);
            if (id.isEmpty()) {
                problem(0, c, "the character has no name. Write one in the first row, or remove the column.");
            } else if (byId.putIfAbsent(id, c) != null) {
                problem(
                        0,
                        c,
                        "'" + label + "' stands in column " + (byId.get(id) + 1) + " already. Rename one of them.");
            } else {
                List<String> texts = textsOf(c);
                StudyCharacter character = reading.read(c, label, texts);
                characterAt.put(c, character);
                List<String> states = character.states().stream()
                        .map(StudyCharacter.StudyState::label)
                        .toList();
                boolean guessed = reading.text(c, "type").isEmpty();
                columns.add(new ImportedStudy.Column(
                        c + 1,
                        label,
                        character.type(),
                        character.unit(),
                        character.organ(),
                        states,
                        texts.size(),
                        guessed));
            }
        }
        characterAt.replaceAll((c, character) -> reading.withConditions(c, character, characterAt.values()));
    }

    /** The cells of a column that say something of their own. */
    private List<String> textsOf(int c) {
        List<String> texts = new ArrayList<>();
        for (int r : taxonRows) {
            String text = sheet.cell(r, c);
            if (!text.isEmpty() && !List.of("?", "n/a", "na", "any").contains(text.toLowerCase(Locale.ROOT))) {
                texts.add(text);
            }
        }
        return texts;
    }

    private List<StudyScore> readScores() {
        List<StudyScore> scores = new ArrayList<>();
        for (int r : taxonRows) {
            StudyRow row = rowAt.get(r);
            for (Map.Entry<Integer, StudyCharacter> column : characterAt.entrySet()) {
                String text = sheet.cell(r, column.getKey());
                if (text.isEmpty() || row == null) {
                    continue;
                }
                CellNotation.Reading reading = CellNotation.parse(text, column.getValue());
                if (reading instanceof CellNotation.Rejected rejected) {
                    problem(r, column.getKey(), rejected.reason());
                } else {
                    ScoreValue value = ((CellNotation.Parsed) reading).value();
                    scores.add(score(row, column.getValue(), value, r, column.getKey()));
                }
            }
        }
        return scores;
    }

    private StudyScore score(StudyRow row, StudyCharacter character, ScoreValue value, int r, int c) {
        Sheet.Remark remark = sheet.remark(r, c);
        if (remark == null) {
            remark = Sheet.Remark.note("");
        }
        return new StudyScore(
                row.id(),
                character.id(),
                value,
                sheet.cell(r, c),
                basis(remark.basis(), r, c),
                remark.source(),
                remark.doubtful(),
                remark.note(),
                months(remark.months(), r, c),
                remark.scorer(),
                date(remark.date(), r, c),
                remark.concept());
    }

    /** What a table does not say was not checked by anybody here. */
    private StudyScore.Basis basis(String text, int r, int c) {
        for (StudyScore.Basis basis : StudyScore.Basis.values()) {
            if (basis.name().equalsIgnoreCase(text)) {
                return basis;
            }
        }
        if (!text.isEmpty()) {
            problem(r, c, "'" + text + "' is no basis. Use specimens, reference, judgement or import.");
        }
        return StudyScore.Basis.IMPORT;
    }

    private List<Integer> months(String text, int r, int c) {
        if (text.isEmpty()) {
            return List.of();
        }
        Optional<List<Integer>> months = CharacterColumns.months(text);
        if (months.isEmpty()) {
            problem(r, c, "'" + text + "' is no span of months. Write for example 'May–Jul'.");
        }
        return months.orElse(List.of());
    }

    private String date(String text, int r, int c) {
        if (text.isEmpty() || text.matches("\\d{4}(-\\d{2}(-\\d{2})?)?")) {
            return text;
        }
        problem(r, c, "'" + text + "' is no date. Write it as 2031-05-04.");
        return "";
    }

    static Optional<CharacterType> type(String text) {
        for (CharacterType type : CharacterType.values()) {
            if (type.name().equalsIgnoreCase(text)) {
                return Optional.of(type);
            }
        }
        return Optional.empty();
    }
}
