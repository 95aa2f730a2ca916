package org.polyclave.files.table;

import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.sheet.Sheet;
import org.polyclave.files.table.SheetMapping.ColumnRole;
import org.polyclave.files.table.SheetMapping.MarkMeaning;
import org.polyclave.files.table.SheetMapping.Meaning;

/** Reads the scores of a table that nobody prepared into the notation of cells; what stands beside them becomes remarks. */
final class MappedScores {
    private static final Pattern DECIMAL_COMMA = Pattern.compile("(?<=\\d),(?=\\d)");

    private final Sheet from;
    private final SheetMapping mapping;
    private final Map<Sheet.Place, Sheet.Remark> remarks;

    /** @param remarks to which those of the scores are added */
    MappedScores(Sheet from, SheetMapping mapping, Map<Sheet.Place, Sheet.Remark> remarks) {
        this.from = from;
        this.mapping = mapping;
        this.remarks = remarks;
    }

    /** @param source of the scores of the row; empty if none is named */
    String text(int r, int c, String source) {
        String original = from.cell(r, c).strip();
        if (original.isEmpty() || mapping.blanks().contains(original)) {
            return "";
        }
        boolean presence = mapping.columns().get(c).role() == ColumnRole.PRESENCE;
        CellRemarks read = presence ? Presence.read(original) : CellRemarks.of(original);
        remark(from.place(r, c), read, source);
        if (mapping.blanks().contains(read.text())) {
            return "";
        }
        return mapping.decimalComma() ? DECIMAL_COMMA.matcher(read.text()).replaceAll(".") : read.text();
    }

    private void remark(Sheet.Place place, CellRemarks read, String source) {
        String note = read.note();
        boolean doubtful = read.doubtful();
        for (MarkMeaning meant : mapping.marks()) {
            if (meant.meaning() != Meaning.NOTHING && has(from.marks().get(place), meant.mark())) {
                note = (note + " " + meant.note()).strip();
                doubtful |= meant.meaning() == Meaning.DOUBT;
            }
        }
        if (!note.isEmpty() || doubtful || !source.isEmpty()) {
            String basis = source.isEmpty() ? "" : "reference";
            remarks.merge(place, new Sheet.Remark(basis, source, doubtful, note, "", "", "", ""), Sheet.Remark::and);
        }
    }

    private static boolean has(Sheet.@Nullable Mark look, String mark) {
        return look != null
                && (mark.equals(MarkMeaning.STRUCK)
                        ? look.struck()
                        : look.colour().equals(mark));
    }
}
