package org.polyclave.files.sheet;

import java.util.List;
import java.util.Locale;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.files.source.TextDecoder;
import org.polyclave.study.rules.Limits;
import org.polyclave.study.rules.Problem;

/** The cells of a CSV, TSV or XLSX file. */
public final class SheetFile {
    private SheetFile() {}

    /**
     * Empty if the file cannot be read; the problems say why.
     *
     * @param fileName its ending tells the format
     * @param sheetName sheet of a workbook; empty: the first that holds something
     */
    public static Sheet read(
            byte[] bytes, String fileName, String sheetName, List<Problem> problems, ReadingWatch watch) {
        if (bytes.length > Limits.TABLE_BYTES) {
            problems.add(Problem.file("The table is larger than 25 MB. Split it, or import a study file."));
            return Sheet.empty();
        }
        if (fileName.toLowerCase(Locale.ROOT).endsWith(".xlsx") || Workbook.isZip(bytes)) {
            return Workbook.read(bytes, sheetName, problems, watch);
        }
        return TextTable.read(TextDecoder.decode(bytes, problems), fileName, problems, watch);
    }
}
