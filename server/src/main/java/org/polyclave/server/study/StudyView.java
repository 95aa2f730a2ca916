package org.polyclave.server.study;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.polyclave.server.access.Role;
import org.polyclave.server.matrix.ScoreService;
import org.polyclave.study.advice.StudyProgress;
import org.polyclave.study.model.Claim;
import org.polyclave.study.model.GlossaryTerm;
import org.polyclave.study.model.OutsideTaxon;
import org.polyclave.study.model.Picture;
import org.polyclave.study.model.Reference;
import org.polyclave.study.model.Specimen;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScope;

/**
 * A study as its members' screens show it.
 *
 * @param rows as they are recorded
 * @param standing those of them that count as worse than what is recorded of them, with the hazards that stand for them
 * @param nearButOutside what the author lists
 * @param outside the same with all else that no key names
 * @param revisions by key (row/ID, character/ID, scope, outside), the revision at which an object got its content; a
 *     writer sends it back as what was seen. What was never changed is not listed and counts as 0.
 */
public record StudyView(
        String slug,
        String title,
        long revision,
        Role role,
        boolean blind,
        StudyScope scope,
        List<StudyRow> rows,
        List<StudyRow> standing,
        List<OutsideTaxon> nearButOutside,
        List<OutsideTaxon> outside,
        List<StudyCharacter> characters,
        List<GlossaryTerm> glossary,
        List<Reference> references,
        List<Claim> claims,
        List<Picture> pictures,
        List<Specimen> specimens,
        Map<String, Long> revisions,
        StudyProgress progress,
        Counts counts) {

    /**
     * How many scores of their own rows and characters have.
     *
     * @param rows in the order of the study's rows
     * @param characters in the order of its characters
     * @param specimens by specimen, how many scores rest on it; those on which none does are not listed
     */
    public record Counts(int[] rows, int[] characters, Map<String, Integer> specimens) {}

    /**
     * What the rows show for one character, inheritance resolved. Cells that say the same share a face.
     *
     * @param face by row of the study, index of its face; -1: nothing is known
     * @param from by row, index of the row that the score is inherited from; -1: it is the row's own
     * @param revision by row, when the row's own cell was last changed; 0: never
     */
    public record ColumnView(String character, List<FaceView> faces, int[] face, int[] from, long[] revision) {}

    /**
     * What a cell says and where it comes from.
     *
     * @param text the cell in notation
     * @param kind unknown, not-applicable, any, states, range or months
     * @param parts states or months with how often they are shown
     * @param range the range in the base unit, for numbers
     * @param months numbers of the score's own months
     */
    public record FaceView(
            String text,
            String kind,
            List<PartView> parts,
            @Schema(nullable = true) @Nullable RangeView range,
            boolean doubtful,
            String basis,
            String source,
            String note,
            List<Integer> months,
            String scorer,
            String date,
            String concept,
            ScoreService.SampleView sample) {}

    /** @param share 0 to 1; 0 for a state that readers only take it for */
    public record PartView(String label, double share, boolean mistaken) {}

    public record RangeView(double min, double low, double high, double max) {}
}
