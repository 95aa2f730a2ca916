package org.polyclave.server.importing;

import io.swagger.v3.oas.annotations.media.Schema;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.table.SheetMapping;
import org.polyclave.files.table.TableChoices;
import org.polyclave.files.table.TableChoices.CellCorrection;
import org.polyclave.study.change.Coverings;
import org.polyclave.study.change.Retype;

/**
 * What shall become of a file, and how it is to be read.
 *
 * @param upload the file, as sending it answered
 * @param types by label of the character, types chosen in place of the proposed ones
 * @param mapping what its columns hold, for a table that nobody prepared
 * @param sheet sheet of a workbook; empty: the first that holds something
 * @param transposed whether taxa stand across; null: as it looks
 * @param coverings whether what stands below its taxa is all there is of them, where somebody has said so
 * @param corrections what texts mean that could not be read; without a row wherever the text stands in the column, with a null
 *     {@code as} unknown
 * @param characters which characters of a NEXUS file are read, as it writes sets of them ({@code 1-300, mouthparts});
 *     empty: all
 * @param title of the new study; empty: as the file says
 * @param baseRevision revision of the study that the preview was made of, where a file joins one
 */
public record ImportRequest(
        @NotNull Step step,
        @NotNull UUID upload,
        @Size(max = 1_000) Map<String, Retype.Choice> types,
        @Schema(nullable = true) @Nullable SheetMapping mapping,
        String sheet,
        @Schema(nullable = true) @Nullable Boolean transposed,
        @Size(max = 1_000) List<Coverings.Answer> coverings,
        @Size(max = 10_000) List<CellCorrection> corrections,
        @Size(max = 10_000) String characters,
        String title,
        @Schema(nullable = true) @Nullable Long baseRevision) {
    public ImportRequest {
        types = Objects.requireNonNullElseGet(types, Map::of);
        sheet = Objects.requireNonNullElse(sheet, "");
        coverings = Objects.requireNonNullElseGet(coverings, List::of);
        corrections = Objects.requireNonNullElseGet(corrections, List::of);
        characters = Objects.requireNonNullElse(characters, "");
        title = Objects.requireNonNullElse(title, "");
        baseRevision = Objects.requireNonNullElse(baseRevision, 0L);
    }

    /** How far an import goes. */
    public enum Step {
        /** The first rows of a table as they stand, and how it may be read. */
        LOOK,
        /** What the file becomes; nothing is changed. */
        PREVIEW,
        /** The study, or the change of one. */
        IMPORT
    }

    TableChoices choices() {
        return new TableChoices(types, corrections, characters);
    }
}
