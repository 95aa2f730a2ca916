package org.polyclave.formats.study;

import java.util.List;

/**
 * The accepted score of a cell.
 *
 * @param typed the notation as it was typed
 * @param basis where it comes from
 * @param source citation or other origin; the id of a reference of the study where it is one
 * @param months numbers 1 to 12 in which the row shows the character, where they differ from the character's; else empty
 * @param scorer who scored it; empty if not known
 * @param date day of scoring as ISO 8601; empty if not known
 * @param concept the concept that the source used: "sensu Orrin", "s.l."
 */
public record StudyScore(
        String row,
        String character,
        ScoreValue value,
        String typed,
        Basis basis,
        String source,
        boolean doubtful,
        String note,
        List<Integer> months,
        String scorer,
        String date,
        String concept) {
    public StudyScore {
        months = Missing.list(months);
        scorer = Missing.or(scorer, "");
        date = Missing.or(date, "");
        concept = Missing.or(concept, "");
    }

    public StudyScore(
            String row,
            String character,
            ScoreValue value,
            String typed,
            Basis basis,
            String source,
            boolean doubtful,
            String note) {
        this(row, character, value, typed, basis, source, doubtful, note, List.of(), "", "", "");
    }

    public StudyScore withValue(ScoreValue newValue, String newTyped) {
        return new StudyScore(
                row, character, newValue, newTyped, basis, source, doubtful, note, months, scorer, date, concept);
    }

    public StudyScore withRow(String newRow) {
        return new StudyScore(
                newRow, character, value, typed, basis, source, doubtful, note, months, scorer, date, concept);
    }

    public StudyScore withDoubt(boolean newDoubt) {
        return new StudyScore(
                row, character, value, typed, basis, source, newDoubt, note, months, scorer, date, concept);
    }

    public StudyScore withSource(String newSource) {
        return new StudyScore(
                row, character, value, typed, basis, newSource, doubtful, note, months, scorer, date, concept);
    }

    public StudyScore withMonths(List<Integer> newMonths) {
        return new StudyScore(
                row, character, value, typed, basis, source, doubtful, note, newMonths, scorer, date, concept);
    }

    /** Where a score comes from. */
    public enum Basis {
        SPECIMENS,
        REFERENCE,
        JUDGEMENT,
        IMPORT
    }
}
