package org.polyclave.files.table;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.IntPredicate;
import java.util.regex.Pattern;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.files.sheet.Sheet;
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

    GuessedColumns(Sheet sheet, List<Integer> taxonRows, IntPredicate guessed) {
        this.sheet = sheet;
        this.taxonRows = taxonRows;
        this.guessed = guessed;
    }

    Sheet asMeant() {
        List<List<String>> cells = new ArrayList<>();
        for (int r = 0; r < sheet.rows(); r++) {
            cells.add(new ArrayList<>(sheet.row(r)));
        }
        Map<Sheet.Place, Sheet.Remark> remarks = new HashMap<>(sheet.remarks());
        boolean commas = MappingProposal.usesCommas(sheet, taxonRows.isEmpty() ? 0 : taxonRows.get(0));
        for (int c = 1; c < sheet.columns(); c++) {
            if (guessed.test(c)) {
                column(c, commas, cells, remarks);
            }
        }
        return new Sheet(cells, sheet::place, remarks, sheet.marks());
    }

    private void column(int c, boolean commas, List<List<String>> cells, Map<Sheet.Place, Sheet.Remark> remarks) {
        List<String> texts = new ArrayList<>();
        for (int r : taxonRows) {
            if (!sheet.cell(r, c).isEmpty()) {
                texts.add(sheet.cell(r, c));
            }
        }
        boolean signs = texts.stream().anyMatch(t -> SIGN.matcher(t).matches()) && Presence.isAll(texts);
        boolean numbers = commas
                && TypeGuess.of(
                                        sheet.cell(0, c),
                                        texts.stream()
                                                .map(t ->
                                                        DECIMAL_COMMA.matcher(t).replaceAll("."))
                                                .toList())
                                .type()
                        != CharacterType.STATES;
        for (int r : taxonRows) {
            String text = sheet.cell(r, c);
            if (signs && !text.isEmpty()) {
                CellRemarks read = Presence.read(text);
                cells.get(r).set(c, read.text());
                if (!read.note().isEmpty() || read.doubtful()) {
                    Sheet.Place place = sheet.place(r, c);
                    Sheet.Remark old = remarks.getOrDefault(place, Sheet.Remark.note(""));
                    remarks.put(
                            place,
                            old.with((old.note() + " " + read.note()).strip(), old.doubtful() || read.doubtful()));
                }
            } else if (numbers && !text.isEmpty()) {
                cells.get(r).set(c, DECIMAL_COMMA.matcher(text).replaceAll("."));
            }
        }
    }
}
