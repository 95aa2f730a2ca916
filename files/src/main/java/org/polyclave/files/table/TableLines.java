package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.study.rules.Limits;
import org.polyclave.study.rules.Problem;

/**
 * The lines of a wide table, told apart: those of taxa, and those that describe characters.
 *
 * @param taxa lines of taxa
 * @param about lines that describe characters, by what they say
 * @param aboutRow where those stand
 */
record TableLines(List<Integer> taxa, Map<String, List<String>> about, Map<String, Integer> aboutRow) {
    private static final List<String> DESCRIPTIONS = List.of(
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

    static TableLines of(Sheet sheet, TableReport report) {
        TableLines lines = new TableLines(new ArrayList<>(), new HashMap<>(), new HashMap<>());
        for (int r = 1; r < sheet.rows(); r++) {
            if (sheet.cell(r, 0).startsWith("#")) {
                lines.description(r, sheet, report);
            } else {
                lines.taxa.add(r);
            }
        }
        for (int r : lines.taxa) {
            if (sheet.row(r).size() > sheet.columns()) {
                report.problem(
                        r,
                        sheet.columns(),
                        "the row has more cells than the table has headings. Quote cells that hold the separator.");
            }
        }
        return lines;
    }

    private void description(int r, Sheet sheet, TableReport report) {
        String first = sheet.cell(r, 0);
        String name = first.substring(1).strip().toLowerCase(Locale.ROOT);
        if (!DESCRIPTIONS.contains(name)) {
            report.problem(
                    r,
                    0,
                    "'" + first + "' describes nothing known. Use one of #" + String.join(", #", DESCRIPTIONS) + ".");
        } else if (about.putIfAbsent(name, sheet.row(r)) != null) {
            report.problem(r, 0, "'" + first + "' occurs twice. Keep one of the rows.");
        } else {
            aboutRow.put(name, r);
        }
    }

    /** Whether there is something to read, and not too much; what is wrong is told. */
    boolean areWithinLimits(Sheet sheet, TableReport report) {
        long characters = sheet.row(0).stream().filter(h -> !h.startsWith("#")).count() - 1;
        if (taxa.size() > Limits.TAXA) {
            report.add(
                    Problem.file("The table has " + taxa.size() + " taxa; at most " + Limits.TAXA + " can be read."));
        }
        if (characters > Limits.CHARACTERS) {
            report.add(Problem.file(
                    "The table has " + characters + " characters; at most " + Limits.CHARACTERS + " can be read."));
        }
        if (taxa.isEmpty()) {
            report.add(Problem.file("The table has no taxa. Add a row for each, with its name in the first column."));
        }
        return report.problems().stream().noneMatch(p -> p.row() == 0 && p.blocking());
    }
}
