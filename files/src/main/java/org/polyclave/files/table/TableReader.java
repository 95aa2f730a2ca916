package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.files.darwincore.DarwinCoreTaxa;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.sheet.SheetFile;
import org.polyclave.files.sheet.Workbook;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyScope;
import org.polyclave.study.rules.Limits;
import org.polyclave.study.rules.Problem;

/**
 * Reads a table of scores, from CSV, TSV or XLSX. Wide: taxa down, characters across, the first column {@code taxon}; rows
 * that begin with {@code #} describe characters, columns that begin with {@code #} describe rows. Long: one score a line,
 * see {@link LongTable}. Headed by Darwin Core terms: taxa without scores, see {@link DarwinCoreTaxa}. Beginning with a column
 * {@code specimen}: specimens, see {@link SpecimenTable}. Every problem is collected with its place.
 */
public final class TableReader {
    /** Part of the work that is done when a file is opened. */
    private static final double OPENED = 0.4;

    private TableReader() {}

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
     * @param problems what was already found
     * @param ledger of the cells of the file, which {@code sheet} may only be a view of
     */
    static ImportedStudy read(
            Sheet sheet,
            String title,
            List<Problem> problems,
            TableChoices choices,
            CellLedger ledger,
            ReadingWatch watch) {
        if (DarwinCoreTaxa.isSuch(sheet)) {
            return DarwinCoreTaxa.read(sheet, title, problems);
        }
        if (SpecimenTable.isSuch(sheet)) {
            return SpecimenTable.read(sheet, title, problems);
        }
        List<Problem> found = new ArrayList<>(problems);
        boolean isLong = sheet.rows() > 0 && LongTable.isLong(sheet);
        Sheet wide = isLong ? LongTable.widen(sheet, found) : sheet;
        if (!isWide(wide, found)) {
            Study none = new Study(
                    Slug.of(title, "matrix"), title, StudyScope.EMPTY, List.of(), List.of(), List.of(), List.of());
            return new ImportedStudy(none, found, List.of(), List.of());
        }
        return new WideTable(Corrections.apply(wide, choices), title, found, choices, watch)
                .read(isLong ? null : ledger, !ledger.isOfAnother(sheet));
    }

    private static boolean isWide(Sheet sheet, List<Problem> problems) {
        String first = sheet.rows() == 0 ? "" : sheet.cell(0, 0);
        if (sheet.rows() == 0 && problems.stream().noneMatch(Problem::blocking)) {
            problems.add(
                    Problem.file("The table is empty. Its first row must name the columns, beginning with 'taxon'."));
        } else if (sheet.rows() > 0 && !first.equalsIgnoreCase("taxon")) {
            new TableReport(sheet, problems)
                    .problem(0, 0, "the first column must be headed 'taxon', but says '" + first + "'.");
        }
        return first.equalsIgnoreCase("taxon");
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
