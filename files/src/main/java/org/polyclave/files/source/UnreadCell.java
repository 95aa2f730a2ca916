package org.polyclave.files.source;

import java.util.List;
import org.polyclave.study.rules.Problem;

/**
 * A cell that could not be read, so that people can correct it where it stands.
 *
 * @param line of the file, counted from 1
 * @param column of the file, counted from 1
 * @param row name of the taxon, with its sex or stage, that the line is of
 * @param text what stands there
 * @param reason why it is not a score, with the remedy
 * @param nearest texts that it may have meant
 */
public record UnreadCell(
        int line, int column, String heading, String row, String text, String reason, List<String> nearest) {
    public UnreadCell {
        nearest = List.copyOf(nearest);
    }

    public Problem problem() {
        return Problem.at(line, column, heading, reason);
    }
}
