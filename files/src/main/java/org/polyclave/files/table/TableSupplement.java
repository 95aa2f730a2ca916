package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.List;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.study.rules.Problem;

/**
 * Text that travels with a table: rows at its end that begin with {@code #supplement}. Each holds its number, how many there
 * are, and a piece of the text, short enough for a cell of a spreadsheet and closed by a mark, since programs cut spaces.
 */
final class TableSupplement {
    static final String ROW = "#supplement";
    private static final int PIECE = 30_000;
    private static final String END = ";";

    private TableSupplement() {}

    /** @param sheet the table without these rows */
    record SplitSheet(Sheet sheet, String text) {}

    static List<List<String>> rows(String text) {
        List<List<String>> rows = new ArrayList<>();
        int count = (text.length() + PIECE - 1) / PIECE;
        for (int i = 0; i < count; i++) {
            String piece = text.substring(i * PIECE, Math.min(text.length(), (i + 1) * PIECE));
            rows.add(List.of(ROW, (i + 1) + "/" + count + " " + piece + END));
        }
        return rows;
    }

    static SplitSheet of(Sheet sheet, List<Problem> problems) {
        List<List<String>> kept = new ArrayList<>();
        List<Integer> at = new ArrayList<>();
        List<String> pieces = new ArrayList<>();
        for (int r = 0; r < sheet.rows(); r++) {
            if (sheet.cell(r, 0).equals(ROW)) {
                pieces.add(sheet.cell(r, 1));
            } else {
                kept.add(sheet.row(r));
                at.add(r);
            }
        }
        if (pieces.isEmpty()) {
            return new SplitSheet(sheet, "");
        }
        String text = joined(pieces);
        if (text.isEmpty()) {
            problems.add(new Problem(
                    0, 0, "", "Rows '" + ROW + "' are missing or damaged, so only the table was read.", false));
        }
        return new SplitSheet(
                new Sheet(kept, (row, column) -> sheet.place(at.get(row), column), sheet.remarks(), sheet.marks()),
                text);
    }

    /** The text; empty unless every piece is there, in order and to its end. */
    private static String joined(List<String> pieces) {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < pieces.size(); i++) {
            String piece = pieces.get(i);
            String number = (i + 1) + "/" + pieces.size() + " ";
            if (!piece.startsWith(number) || !piece.endsWith(END)) {
                return "";
            }
            text.append(piece, number.length(), piece.length() - END.length());
        }
        return text.toString();
    }
}
