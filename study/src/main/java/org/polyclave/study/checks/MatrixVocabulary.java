package org.polyclave.study.checks;

import java.util.Locale;
import org.polyclave.core.check.Finding;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.StudyCharacter;

/** Puts findings of the compiled matrix in words. */
final class MatrixVocabulary {
    private final CompiledStudy compiled;

    MatrixVocabulary(CompiledStudy compiled) {
        this.compiled = compiled;
    }

    StudyFinding tell(Finding finding) {
        String kind = finding.kind().name().toLowerCase(Locale.ROOT).replace('_', '-');
        String row = finding.row() < 0 ? "" : compiled.rows().get(finding.row()).id();
        String character = finding.character() < 0 ? "" : character(finding).id();
        return new StudyFinding(kind, row, character, other(finding), reason(finding));
    }

    private String other(Finding finding) {
        return switch (finding.kind()) {
            case UNUSED_STATE ->
                character(finding).states().get(finding.state()).id();
            case SAME_ROWS, RANGES_TOUCH ->
                compiled.rows().get(finding.otherRow()).id();
            case IMPLIED, NEARLY_IMPLIED ->
                compiled.characters().get(finding.otherCharacter()).id();
            default -> "";
        };
    }

    private StudyCharacter character(Finding finding) {
        return compiled.characters().get(finding.character());
    }

    private String name(int row) {
        return "'" + compiled.rows().get(row).name() + "'";
    }

    private String reason(Finding finding) {
        String label = finding.character() < 0 ? "" : "'" + character(finding).label() + "'";
        String other = finding.otherCharacter() < 0
                ? ""
                : "'" + compiled.characters().get(finding.otherCharacter()).label() + "'";
        return switch (finding.kind()) {
            case UNUSED_STATE ->
                "No row shows the state '"
                        + character(finding).states().get(finding.state()).label() + "' of " + label
                        + ". Score the row that it was made for, or remove it.";
            case NEVER_VARIES ->
                "All rows show the same for " + label + ". It separates nothing here; move it to the descriptions.";
            case SEPARATES_NOTHING ->
                "No two rows are apart in " + label
                        + ": they overlap in every pair. Score it more narrowly, or do not rely on it.";
            case SAME_ROWS ->
                name(finding.row()) + " and " + name(finding.otherRow())
                        + " are scored alike throughout. Score what separates them, or merge them.";
            case IMPLIED ->
                label + " and " + other + " go together in all " + (int) finding.figure()
                        + " rows that show one state of each: the one says nothing that the other does not. "
                        + "Check that they were scored independently.";
            case NEARLY_IMPLIED ->
                label + " and " + other + " go together in all but a few of " + (int) finding.figure() + " rows; "
                        + name(finding.row()) + " is an exception. Look at both cells again.";
            case RANGES_TOUCH ->
                "In " + label + " the range of " + name(finding.row()) + " ends exactly where that of "
                        + name(finding.otherRow()) + " begins"
                        + (finding.figure() > 1 ? " (" + (int) finding.figure() + " such pairs)" : "")
                        + ". Limits that just touch were often taken from a key; measure them.";
            case NOT_APPLICABLE_BUT_APPLIES ->
                label + " is scored as not applicable for " + name(finding.row())
                        + ", although what it depends on says that it applies. Correct one of the two.";
            case SCORED_BUT_NOT_APPLICABLE ->
                label + " is scored for " + name(finding.row())
                        + ", although what it depends on says that it does not apply. Correct one of the two.";
            case UNKNOWN_ROW ->
                name(finding.row()) + " is unknown in " + percent(finding) + " of the characters. Score it further.";
            case UNKNOWN_CHARACTER ->
                label + " is unknown in " + percent(finding) + " of the rows. Score it further, or leave it out.";
        };
    }

    private static String percent(Finding finding) {
        return Math.round(100 * finding.figure()) + " %";
    }
}
