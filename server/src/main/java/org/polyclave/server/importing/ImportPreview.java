package org.polyclave.server.importing;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.polyclave.files.source.CharacterSelection;
import org.polyclave.files.source.ImportAccount;
import org.polyclave.files.source.ImportedStudy;
import org.polyclave.files.source.UnreadCell;
import org.polyclave.study.change.Coverings;
import org.polyclave.study.rules.Problem;

/**
 * What a file was understood as.
 *
 * @param usable whether it can be made into a study: nothing is wrong, and no unit is to be asked for
 * @param title empty where the file has none but its name
 * @param sheets names of the sheets of a workbook, of which one may be chosen
 * @param coverings what may be asked of the taxa with others, or with sexes and stages, below them
 * @param unread cells that could not be read, the first of them; what is said of them is not among the problems
 * @param account what became of every cell; null where the file is not a table of taxa and characters
 * @param selection which of the file's characters were read; null where all are
 */
public record ImportPreview(
        boolean usable,
        String title,
        int rows,
        int characters,
        int scores,
        int specimens,
        List<ImportedStudy.Column> columns,
        List<String> rowNames,
        List<Problem> problems,
        List<String> sheets,
        List<Coverings.Asked> coverings,
        List<UnreadCell> unread,
        int unreadCount,
        @Schema(nullable = true) @Nullable ImportAccount account,
        @Schema(nullable = true) @Nullable CharacterSelection selection) {}
