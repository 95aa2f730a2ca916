package org.polyclave.server.study;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.formats.study.OutsideTaxon;
import org.polyclave.formats.study.StudyCharacter;
import org.polyclave.formats.study.StudyRow;
import org.polyclave.formats.study.StudyScope;

/**
 * A study as its members' screens show it.
 *
 * @param revisions by key (row/ID, character/ID, scope, outside), the revision at which an object got its content; a
 *     writer sends it back as what was seen. What was never changed is not listed and counts as 0.
 */
public record StudyView(
        String slug,
        String title,
        long revision,
        Role role,
        StudyScope scope,
        List<StudyRow> rows,
        List<OutsideTaxon> nearButOutside,
        List<StudyCharacter> characters,
        List<CellView> cells,
        Map<String, Long> revisions,
        Gauges gauges,
        NextStep nextStep) {

    /**
     * What a cell shows, inheritance resolved.
     *
     * @param text the cell in notation
     * @param kind unknown, not-applicable, any, states, range, months, or empty
     * @param parts states or months with how often they are shown
     * @param range the range in the base unit, for numbers
     * @param from id of the row the cell is inherited from, null if it is the row's own
     * @param revision when the row's own cell was last changed
     */
    public record CellView(
            String row,
            String character,
            String text,
            String kind,
            List<PartView> parts,
            @Schema(nullable = true) @Nullable RangeView range,
            @Schema(nullable = true) @Nullable String from,
            boolean doubtful,
            String basis,
            String source,
            long revision) {}

    /** @param share 0 to 1; 0 for a state that readers only take it for */
    public record PartView(String label, double share, boolean mistaken) {}

    public record RangeView(double min, double low, double high, double max) {}

    /** Honest numbers for the stage path. */
    public record Gauges(
            int taxa,
            int notAssessed,
            int characters,
            int withoutQuestion,
            int scored,
            int cells,
            int rowsInKeys,
            int editions) {}

    /**
     * What would help most now.
     *
     * @param code what to do; the interface words it
     * @param stage the stage where it is done
     * @param subject what it is about, or empty
     * @param count how many
     */
    public record NextStep(String code, String stage, String subject, int count) {}
}
