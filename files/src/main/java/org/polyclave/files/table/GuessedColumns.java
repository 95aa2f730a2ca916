package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;
import java.util.regex.Pattern;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.source.ReadingWatch;
import org.polyclave.study.notation.TypeGuess;

/**
 * Columns of a prepared table of which it does not say what they hold, in the notation of cells: plus and minus signs are present
 * and absent, decimal commas are points where the file writes numbers so.
 */
final class GuessedColumns {
    private static final Pattern DECIMAL_COMMA = Pattern.compile("(?<=\\d),(?=\\d)");
    /** Texts that cannot be the name of a state. */
    private static final Pattern SIGN = Pattern.compile("\\(?[+±]\\)?");

    private final Sheet sheet;
    private final List<Integer> taxonRows;
    private final IntPredicate guessed;
    private final List<List<String>> cells = new ArrayList<>();
    private final Map<Sheet.Place, Sheet.Remark> remarks = new HashMap<>();
    private boolean changed;

    GuessedColumns(Sheet sheet, List<Integer> taxonRows, IntPredicate guessed) {
        this.sheet = sheet;
        this.taxonRows = taxonRows;
        this.guessed = guessed;
    }

    /** The sheet itself if there is nothing to change. */
    Sheet asMeant(ReadingWatch watch) {
        boolean commas = MappingProposal.usesCommas(sheet, taxonRows.isEmpty() ? 0 : taxonRows.get(0));
        for (int c = 1; c < sheet.columns(); c++) {
            watch.at(c, sheet.columns());
            if (guessed.test(c)) {
                column(c, commas);
            }
        }
        return changed ? new Sheet(cells, sheet::place, remarks, sheet.marks()) : sheet;
    }

    private void column(int c, boolean commas) {
        List<String> texts = taxonRows.stream()
                .map(r -> sheet.cell(r, c))
                .filter(t -> !t.isEmpty())
                .toList();
        if (texts.stream().anyMatch(t -> SIGN.matcher(t).matches()) && Presence.isAll(texts)) {
            for (int r : taxonRows) {
                if (!sheet.cell(r, c).isEmpty()) {
                    presence(r, c, Presence.read(sheet.cell(r, c)));
                }
            }
        } else if (commas && areNumbers(sheet.cell(0, c), texts)) {
            for (int r : taxonRows) {
                set(r, c, withPoint(sheet.cell(r, c)));
            }
        }
    }

    private static boolean areNumbers(String heading, List<String> texts) {
        List<String> points = texts.stream().map(GuessedColumns::withPoint).toList();
        return TypeGuess.of(heading, points).type() != CharacterType.STATES;
    }

    private static String withPoint(String text) {
        return DECIMAL_COMMA.matcher(text).replaceAll(".");
    }

    private void presence(int r, int c, CellRemarks read) {
        set(r, c, read.text());
        if (!read.note().isEmpty() || read.doubtful()) {
            remarks.merge(
                    sheet.place(r, c),
                    new Sheet.Remark("", "", read.doubtful(), read.note(), "", "", "", ""),
                    Sheet.Remark::and);
        }
    }

    private void set(int r, int c, String text) {
        if (!changed) {
            changed = true;
            for (int row = 0; row < sheet.rows(); row++) {
                cells.add(new ArrayList<>(sheet.row(row)));
            }
            remarks.putAll(sheet.remarks());
        }
        if (c < cells.get(r).size()) {
            cells.get(r).set(c, text);
        }
    }
}
