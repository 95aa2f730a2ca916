package org.polyclave.study.checks;

import org.polyclave.core.check.Finding;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.model.StudyCharacter;

/** Names rows, characters and states of findings of the compiled matrix, which knows them by index. */
final class MatrixNames {
    private final CompiledStudy compiled;

    MatrixNames(CompiledStudy compiled) {
        this.compiled = compiled;
    }

    StudyFinding named(Finding finding) {
        StudyFinding named = StudyFinding.of(
                FindingKind.valueOf(finding.kind().name()),
                finding.row() < 0 ? "" : compiled.rows().get(finding.row()).id(),
                finding.character() < 0 ? "" : character(finding).id(),
                other(finding));
        if (finding.row() >= 0) {
            named = named.with("row", compiled.rows().get(finding.row()).name());
        }
        if (finding.character() >= 0) {
            named = named.with("character", character(finding).label());
        }
        return switch (finding.kind()) {
            case UNUSED_STATE ->
                named.with(
                        "state",
                        character(finding).states().get(finding.state()).label());
            case SAME_ROWS ->
                named.with("otherRow", compiled.rows().get(finding.otherRow()).name());
            case IMPLIED, NEARLY_IMPLIED ->
                named.with(
                                "otherCharacter",
                                compiled.characters()
                                        .get(finding.otherCharacter())
                                        .label())
                        .with("rows", finding.figure());
            case RANGES_TOUCH ->
                named.with("otherRow", compiled.rows().get(finding.otherRow()).name())
                        .with("pairs", finding.figure());
            case UNKNOWN_ROW, UNKNOWN_CHARACTER -> named.with("percent", Math.rint(100 * finding.figure()));
            case NEVER_VARIES, SEPARATES_NOTHING, NOT_APPLICABLE_BUT_APPLIES, SCORED_BUT_NOT_APPLICABLE -> named;
        };
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
}
