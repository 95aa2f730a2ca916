package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.files.darwincore.DarwinCoreTaxa;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.sheet.SheetFile;
import org.polyclave.files.sheet.Workbook;
import org.polyclave.files.source.ImportAccount.Fate;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.source.UnreadCell;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.CellNotation;
import org.polyclave.study.rules.Limits;
import org.polyclave.study.rules.NeverAsked;
import org.polyclave.study.rules.Problem;
import org.polyclave.study.rules.StudyRules;
import org.polyclave.wording.rule.RuleWording;

/**
 * Reads a table of scores, from CSV, TSV or XLSX. Wide: taxa down, characters across, the first column {@code taxon}; rows
 * that begin with {@code #} describe characters, columns that begin with {@code #} describe rows. Long: one score a line,
 * see {@link LongTable}. Headed by Darwin Core terms: taxa without scores, see {@link DarwinCoreTaxa}. Beginning with a column
 * {@code specimen}: specimens, see {@link SpecimenTable}. Every problem is collected with its place.
 */
public final class TableReader {
    /** Part of the work that is done when a file is opened. */
    static final double OPENED = 0.4;

    private static final double GUESSED = 0.1;
    private static final double CHARACTERS_READ = 0.3;
    private static final double SCORES_READ = 0.8;

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
    private final List<UnreadCell> unread = new ArrayList<>();
    private final TableChoices choices;
    private final CellLedger ledger;
    private final ReadingWatch watch;
    private boolean mapped;

    private TableReader(String title, TableChoices choices, CellLedger ledger, ReadingWatch watch) {
        this.title = title;
        this.choices = choices;
        this.ledger = ledger;
        this.watch = watch;
    }

    /** Reads CSV, TSV or XLSX; {@code fileName} tells which, and the title. */
    public static ImportedStudy read(byte[] bytes, String fileName) {
        return read(bytes, fileName, "");
    }

    /** @param sheetName sheet of a workbook; empty: the first that holds something */
    public static ImportedStudy read(byte[] bytes, String fileName, String sheetName) {
        return read(bytes, fileName, sheetName, TableChoices.NONE, ReadingWatch.NONE);
    }

    /** @param choices what people decided when they saw it read before */
    public static ImportedStudy read(
            byte[] bytes, String fileName, String sheetName, TableChoices choices, ReadingWatch watch) {
        List<Problem> problems = new ArrayList<>();
        TableSupplement.SplitSheet found = opened(bytes, fileName, sheetName, problems, watch.part(0, OPENED));
        CellLedger ledger = new CellLedger(found.sheet());
        return read(found.sheet(), titleOf(fileName), problems, choices, ledger, watch.part(OPENED, 1))
                .withSupplement(found.text());
    }

    /** What a table that has no title is called: its file without the ending. */
    public static String titleOf(String fileName) {
        String title = fileName.replaceAll("^.*[/\\\\]", "").replaceAll("\\.[^.]*$", "");
        return title.isBlank() ? "Imported matrix" : title;
    }

    /** The table as it stands in a file, and the text that travels with it; what could not be read is told. */
    static TableSupplement.SplitSheet opened(
            byte[] bytes, String fileName, String sheetName, List<Problem> problems, ReadingWatch watch) {
        return TableSupplement.of(SheetFile.read(bytes, fileName, sheetName, problems, watch), problems);
    }

    /** Names of the sheets of a workbook, in order; none for other files. */
    public static List<String> sheetNames(byte[] bytes) {
        return bytes.length > Limits.TABLE_BYTES ? List.of() : Workbook.names(bytes);
    }

    /**
     * @param problems what was already found; the list is the result's
     * @param ledger of the cells of the file, which {@code sheet} may only be a view of
     */
    static ImportedStudy read(
            Sheet sheet,
            String title,
            List<Problem> problems,
            TableChoices choices,
            CellLedger ledger,
            ReadingWatch watch) {
        TableReader reader = new TableReader(title, choices, ledger, watch);
        if (DarwinCoreTaxa.isSuch(sheet)) {
            return DarwinCoreTaxa.read(sheet, reader.title, problems);
        }
        if (SpecimenTable.isSuch(sheet)) {
            return SpecimenTable.read(sheet, reader.title, problems);
        }
        reader.problems.addAll(problems);
        reader.sheet = sheet;
        reader.mapped = ledger.isOfAnother(sheet);
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
        boolean isLong = LongTable.isLong(sheet);
        if (isLong) {
            sheet = LongTable.widen(sheet, problems);
        }
        if (!sheet.cell(0, 0).equalsIgnoreCase("taxon")) {
            problem(0, 0, "the first column must be headed 'taxon', but says '" + sheet.cell(0, 0) + "'.");
            return result(List.of());
        }
        sheet = Corrections.apply(sheet, choices);
        divideRows();
        if (isWithinLimits()) {
            sheet = new GuessedColumns(sheet, taxonRows, this::isGuessed).asMeant(watch.part(0, GUESSED));
            readRows();
            readCharacters();
            applyRules();
            List<StudyScore> scores = new ScoreCells(sheet, report)
                    .read(taxonRows, rowAt, characterAt, watch.part(CHARACTERS_READ, SCORES_READ));
            return isLong ? result(scores) : accounted(scores);
        }
        return result(List.of());
    }

    /** What became of every cell; one of which nobody can say it is told, so that nothing passes silently. */
    private ImportedStudy accounted(List<StudyScore> scores) {
        ReadingWatch counting = watch.part(SCORES_READ, 1);
        for (int c = 0; c < sheet.columns(); c++) {
            counting.at(c, sheet.columns());
            boolean describes = c == 0 || sheet.cell(0, c).startsWith("#");
            boolean scored = characterAt.containsKey(c);
            boolean out = setAside.contains(heading(c));
            for (int r = 0; r < sheet.rows() && (describes || scored || out); r++) {
                boolean about = r == 0 || sheet.cell(r, 0).startsWith("#");
                if (out) {
                    ledger.mark(sheet.place(r, c), Fate.COLUMN_LEFT_OUT);
                } else if (!sheet.cell(r, c).isEmpty()) {
                    ledger.mark(sheet.place(r, c), about ? Fate.HEADING : describes ? Fate.NAME : Fate.SCORE);
                }
            }
        }
        marks();
        unread.forEach(u -> ledger.mark(new Sheet.Place(u.line(), u.column()), Fate.UNREAD));
        if (problems.stream().noneMatch(Problem::blocking)) {
            for (Sheet.Place place : ledger.unaccounted()) {
                problems.add(new Problem(
                        place.line(), place.column(), "", "'" + ledger.text(place) + "' was not read.", false));
            }
        }
        ImportedStudy read = result(scores);
        return new ImportedStudy(
                read.study(),
                read.problems(),
                columns,
                setAside,
                "",
                unread,
                ledger.account((int) rowAt.keySet().stream().filter(r -> r >= 0).count()),
                null);
    }

    /** A prepared table says nothing by colours and lines; where there are some, their author is told that they were not read. */
    private void marks() {
        if (mapped || sheet.marks().isEmpty()) {
            return;
        }
        int struck = 0;
        int filled = 0;
        for (int r : taxonRows) {
            for (int c : characterAt.keySet()) {
                Sheet.Mark mark = sheet.marks().get(sheet.place(r, c));
                struck += mark != null && mark.struck() ? 1 : 0;
                filled += mark != null && !mark.colour().isEmpty() ? 1 : 0;
            }
        }
        if (struck + filled > 0) {
            problems.add(new Problem(
                    0,
                    0,
                    "",
                    "Scores with a line through them: " + struck + "; with a colour behind them: " + filled
                            + ". What that means was not read. Choose how the columns are read to take it as doubt or as a note.",
                    false));
        }
    }

    private ImportedStudy result(List<StudyScore> scores) {
        List<StudyRow> rows = new ArrayList<>(rowAt.values());
        List<StudyCharacter> characters = new ArrayList<>(characterAt.values());
        Study study = new Study(Slug.of(title, "matrix"), title, StudyScope.EMPTY, rows, List.of(), characters, scores);
        List<Problem> all = new ArrayList<>(problems);
        unread.forEach(u -> all.add(u.problem()));
        return new ImportedStudy(study, all, columns, setAside, "", unread, null, null);
    }

    private final TableReport report = new TableReport() {
        @Override
        public void problem(int row, int column, String sentence) {
            TableReader.this.problem(row, column, sentence);
        }

        @Override
        public void notice(int row, int column, String sentence) {
            TableReader.this.notice(row, column, sentence);
        }

        @Override
        public void unread(int row, int column, String reason, List<String> nearest) {
            Sheet.Place place = sheet.place(row, column);
            unread.add(new UnreadCell(
                    place.line(),
                    place.column(),
                    heading(column),
                    Corrections.name(sheet, row),
                    sheet.cell(row, column),
                    reason,
                    nearest));
        }
    };

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
                "misreading",
                "role",
                "seen",
                "lead",
                "plain lead");
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
                problem(r, 0, "'" + first + "' occurs twice. Keep one of the rows.");
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
        List<String> known = RowColumns.KNOWN;
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
        RowColumns reading = new RowColumns(sheet, columnOf, rowAt, report);
        for (int r : taxonRows) {
            reading.read(r);
        }
        reading.addTaxaOfStages();
        reading.resolveParents();
        reading.chooseRanks();
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
            problem(row == null ? 0 : row, column, RuleWording.sentence(violation));
        }
    }

    private void readCharacters() {
        CharacterColumns reading = new CharacterColumns(about, aboutRow, choices, report);
        Map<String, Integer> byId = new HashMap<>();
        ReadingWatch reported = watch.part(GUESSED, CHARACTERS_READ);
        for (int c = 1; c < sheet.columns(); c++) {
            reported.at(c, sheet.columns());
            String label = sheet.cell(0, c);
            if (label.startsWith("#") || isEmpty(c)) {
                continue;
            }
            if (NeverAsked.isHeading(label)) {
                setAside.add(label);
                notice(0, c, "'" + label + "' was set aside: taste and edibility are never asked or shown.");
                continue;
            }
            String id = Slug.of(label);
            if (id.isEmpty()) {
                problem(0, c, "the character has no name. Write one in the first row, or remove the column.");
            } else if (byId.putIfAbsent(id, c) != null) {
                int other = byId.getOrDefault(id, 0);
                problem(
                        0,
                        c,
                        "'" + label + "' is called like "
                                + (label.equals(sheet.cell(0, other)) ? "" : "'" + sheet.cell(0, other) + "' in ")
                                + "column " + sheet.place(0, other).column()
                                + (label.equals(sheet.cell(0, other))
                                        ? ""
                                        : ": names need letters or digits that differ")
                                + ". Rename one of them.");
            } else {
                List<String> texts = textsOf(c);
                StudyCharacter character = reading.read(c, label, texts);
                characterAt.put(c, character);
                List<String> states = character.states().stream()
                        .map(StudyCharacter.StudyState::label)
                        .toList();
                boolean guessed = reading.text(c, "type").isEmpty();
                if (guessed && TwoMeasures.areMost(texts)) {
                    report.notice(
                            0,
                            c,
                            "Most cells of '" + label
                                    + "' hold two measures. 'Choose what each column holds' (length × width in one cell) makes two"
                                    + " characters of them; or write two columns.");
                }
                boolean open = guessed
                        && reading.text(c, "unit").isEmpty()
                        && !choices.types().containsKey(label)
                        && reading.guess(c, label, texts).open();
                columns.add(new ImportedStudy.Column(
                        sheet.place(0, c).column(),
                        label,
                        character.type(),
                        character.unit(),
                        character.organ(),
                        states,
                        texts.size(),
                        guessed,
                        open));
            }
        }
        characterAt.replaceAll((c, character) -> reading.withConditions(c, character, characterAt.values()));
    }

    /** Programs leave such columns at the right of what people typed. */
    private boolean isEmpty(int c) {
        for (int r = 0; r < sheet.rows(); r++) {
            if (!sheet.cell(r, c).isEmpty()) {
                return false;
            }
        }
        return true;
    }

    private boolean isGuessed(int c) {
        boolean named = Stream.of("type", "states", "unit")
                .map(about::get)
                .anyMatch(row -> row != null && c < row.size() && !row.get(c).isEmpty());
        return !named && !sheet.cell(0, c).startsWith("#");
    }

    /** The cells of a column that say something of their own. */
    private List<String> textsOf(int c) {
        List<String> texts = new ArrayList<>();
        for (int r : taxonRows) {
            String text = sheet.cell(r, c);
            if (!text.isEmpty() && !CellNotation.isSpecial(text)) {
                texts.add(text);
            }
        }
        return texts;
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
