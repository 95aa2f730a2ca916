package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.table.SheetMapping.ColumnRole;
import org.polyclave.study.rules.Problem;

/**
 * Tables that nobody prepared: titles above, several rows of headings, merged cells, units in headings, remarks in cells,
 * decimal commas. They are brought into the wide form by a {@link SheetMapping} and then read like every other table;
 * problems are told at their place in the original.
 */
public final class UnpreparedTable {
    private static final int SAMPLE = 14;
    private static final int LONGEST = 80;
    private static final double OPENED = 0.35;
    private static final double MAPPED = 0.55;

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
        return look(bytes, fileName, "", ReadingWatch.NONE);
    }

    /** @param sheetName sheet of a workbook; empty: the first that holds something */
    public static TableSample look(byte[] bytes, String fileName, String sheetName, ReadingWatch watch) {
        Sheet file = opened(bytes, fileName, sheetName, watch);
        return sample(file, MappingProposal.of(file));
    }

    /** The same with taxa down or across, as people chose. */
    public static TableSample look(
            byte[] bytes, String fileName, String sheetName, boolean transposed, ReadingWatch watch) {
        Sheet file = opened(bytes, fileName, sheetName, watch);
        return sample(file, MappingProposal.of(file, transposed));
    }

    private static Sheet opened(byte[] bytes, String fileName, String sheetName, ReadingWatch watch) {
        return TableReader.opened(bytes, fileName, sheetName, new ArrayList<>(), watch)
                .sheet();
    }

    private static TableSample sample(Sheet file, SheetMapping proposal) {
        Sheet sheet = proposal.transposed() ? file.turned(proposal.titleRows()) : file;
        List<List<String>> rows = new ArrayList<>();
        int width = sheet.width();
        for (int r = 0; r < Math.min(SAMPLE, sheet.rows()); r++) {
            List<String> row = new ArrayList<>();
            for (int c = 0; c < width; c++) {
                String text = sheet.cell(r, c);
                row.add(text.length() > LONGEST ? text.substring(0, LONGEST) + "…" : text);
            }
            rows.add(row);
        }
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
        return read(bytes, fileName, "", mapping, TableChoices.NONE, ReadingWatch.NONE);
    }

    /**
     * @param sheetName sheet of a workbook; empty: the first that holds something
     * @param choices what people decided when they saw it read before
     */
    public static ImportedStudy read(
            byte[] bytes,
            String fileName,
            String sheetName,
            SheetMapping mapping,
            TableChoices choices,
            ReadingWatch watch) {
        List<Problem> problems = new ArrayList<>();
        Sheet file = TableReader.opened(bytes, fileName, sheetName, problems, watch.part(0, OPENED))
                .sheet();
        Sheet sheet = mapping.transposed() ? file.turned(Math.max(0, mapping.titleRows())) : file;
        CellLedger ledger = new CellLedger(file);
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
                fits && named ? wide(sheet, mapping, problems, ledger, watch.part(OPENED, MAPPED)) : Sheet.empty(),
                title(file, mapping, fileName),
                problems,
                choices,
                ledger,
                watch.part(MAPPED, 1));
    }

    private static Sheet wide(
            Sheet sheet, SheetMapping mapping, List<Problem> problems, CellLedger ledger, ReadingWatch watch) {
        return mapping.listsSpecimens()
                ? MappedSpecimens.of(sheet, mapping)
                : MappedMatrix.of(sheet, mapping, problems, ledger, watch);
    }

    /** What stands above the headings is what its author calls the table. */
    private static String title(Sheet file, SheetMapping mapping, String fileName) {
        boolean titled =
                mapping.titleRows() > 0 && file.rows() > 0 && !file.cell(0, 0).isEmpty();
        return titled ? file.cell(0, 0) : TableReader.titleOf(fileName);
    }
}
