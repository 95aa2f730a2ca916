package org.polyclave.files.table;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.change.Retype;

/**
 * What people decided about a table that they saw read before. It names columns, taxa and texts, never places, so that it holds
 * for a corrected file, too.
 *
 * @param types by heading
 */
public record TableChoices(Map<String, Retype.Choice> types, List<CellCorrection> corrections) {
    public static final TableChoices NONE = new TableChoices(Map.of(), List.of());

    public TableChoices {
        types = Map.copyOf(types);
        corrections = List.copyOf(corrections);
    }

    /**
     * What a text means.
     *
     * @param column heading
     * @param row name of the taxon with its sex or stage; empty: wherever the text stands in the column
     * @param as text in its place; null: it is unknown, and the text is kept as a note
     */
    public record CellCorrection(
            String column,
            String row,
            String text,
            @Nullable String as) {}

    /** Corrections by what they are of; those of one taxon go before those of a whole column. */
    Map<List<String>, CellCorrection> byCell() {
        Map<List<String>, CellCorrection> found = new HashMap<>();
        corrections.forEach(c -> found.put(List.of(c.column(), c.row(), c.text()), c));
        return found;
    }
}
