package org.polyclave.files.table;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.change.Retype;
import org.polyclave.study.model.Slug;
import org.polyclave.study.model.Study;

/**
 * What people decided about a table that they saw read before. It names columns, taxa and texts, never places, so that it holds
 * for a corrected file, too.
 *
 * @param types by heading
 * @param characters which characters of a NEXUS file are wanted, as it writes sets of them; empty: all
 * @param known types of the characters of the study that the table is to join, by name: they hold where the table says nothing
 */
public record TableChoices(
        Map<String, Retype.Choice> types,
        List<CellCorrection> corrections,
        String characters,
        Map<String, Retype.Choice> known) {
    public static final TableChoices NONE = new TableChoices(Map.of(), List.of(), "");

    public TableChoices {
        types = Map.copyOf(types);
        corrections = List.copyOf(corrections);
        known = Map.copyOf(known);
    }

    public TableChoices(Map<String, Retype.Choice> types, List<CellCorrection> corrections, String characters) {
        this(types, corrections, characters, Map.of());
    }

    /** The same of some characters of a NEXUS file. */
    public TableChoices of(String some) {
        return new TableChoices(types, corrections, some, known);
    }

    /** The same for a table that is to join a study. */
    public TableChoices joining(Study study) {
        Map<String, Retype.Choice> joined = new HashMap<>();
        study.characters().forEach(c -> joined.put(Slug.of(c.label()), new Retype.Choice(c.type(), c.unit())));
        return new TableChoices(types, corrections, characters, joined);
    }

    /** The type that a column has in the study that it is to join; null if it has none. */
    Retype.@Nullable Choice knownOf(String heading) {
        return known.get(Slug.of(heading));
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
