package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.polyclave.core.matrix.Cell;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.compile.CompiledStudy;
import org.polyclave.study.compile.Inheritance;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.MonthNotation;
import org.polyclave.study.notation.NotationPrinter;

/**
 * Finds what is wrong with the scores of one character: against the parent, the season, the parts of a
 * ratio, or in where they come from. Time linear in the rows of the study.
 */
final class ColumnCheck {
    /** Fewer individuals than these give no range (Measuring, proposed cells). */
    private static final int FEWEST_INDIVIDUALS = 5;

    private final CompiledStudy compiled;
    private final Study study;
    private final Inheritance inheritance;
    private final SpecimenCheck specimens;

    ColumnCheck(CompiledStudy compiled) {
        this.compiled = compiled;
        study = compiled.study();
        inheritance = new Inheritance(study.rows(), compiled.scores());
        specimens = new SpecimenCheck(compiled);
    }

    List<StudyFinding> of(int c) {
        StudyCharacter character = compiled.characters().get(c);
        List<StudyFinding> found = new ArrayList<>();
        for (StudyRow row : study.rows()) {
            StudyScore score =
                    compiled.scores().getOrDefault(row.id(), Map.of()).get(character.id());
            if (score != null) {
                outsideItsParent(row, character, score, found);
                origin(row, character, score, found);
                season(row, score, found);
                if (score.sample() != null && !score.sample().specimens().isEmpty()) {
                    specimens.of(row, character, score.sample().specimens(), found);
                }
            }
        }
        ClaimCheck.of(compiled, c, found);
        if (character.ratioOf().size() == 2) {
            ratio(c, found);
        }
        return List.copyOf(found);
    }

    private static StudyFinding finding(FindingKind kind, StudyRow row, StudyCharacter character) {
        return StudyFinding.of(kind, row.id(), character.id())
                .with("row", row.name())
                .with("character", character.label());
    }

    /**
     * What a taxon says must lie within what its parent says, if the parent speaks for the whole of it. A sex or stage differs
     * from its taxon by its nature, so it is not compared unless the author says that the taxon's scores describe it, too.
     */
    private void outsideItsParent(StudyRow row, StudyCharacter character, StudyScore score, List<StudyFinding> found) {
        if (row.parent() == null || !isHeldToItsParent(row)) {
            return;
        }
        inheritance
                .effective(row.parent(), character.id())
                .filter(parent -> !isWithin(score.value(), parent.score().value()))
                .ifPresent(parent -> found.add(finding(FindingKind.CHILD_OUTSIDE_PARENT, row, character)
                        .with("value", NotationPrinter.print(score.value(), character))
                        .with(
                                "parentValue",
                                NotationPrinter.print(parent.score().value(), character))));
    }

    private boolean isHeldToItsParent(StudyRow row) {
        StudyRow parent = study.row(row.parent() == null ? "" : row.parent()).orElse(row);
        return switch (parent.coverage().describes()) {
            case WHOLE -> true;
            case REST -> false;
            case BY_KIND -> !row.isSemaphoront();
        };
    }

    /** Whether a parent's value admits a child's; unknown, any and not applicable contradict nothing. */
    private static boolean isWithin(ScoreValue child, ScoreValue parent) {
        if (child instanceof ScoreValue.States shown && parent instanceof ScoreValue.States admitted) {
            return shown.shown().stream()
                    .filter(s -> s.frequency() != ScoreValue.Frequency.MISTAKEN)
                    .allMatch(s -> admitted.shown().stream()
                            .anyMatch(a ->
                                    a.state().equals(s.state()) && a.frequency() != ScoreValue.Frequency.MISTAKEN));
        }
        if (child instanceof ScoreValue.Range inner && parent instanceof ScoreValue.Range outer) {
            return inner.min() >= outer.min() && end(inner) <= end(outer);
        }
        return !(child instanceof ScoreValue.Months inner && parent instanceof ScoreValue.Months outer)
                || outer.months().containsAll(inner.months());
    }

    private static double end(ScoreValue.Range range) {
        return range.max() == null ? Double.POSITIVE_INFINITY : range.max();
    }

    private static void origin(StudyRow row, StudyCharacter character, StudyScore score, List<StudyFinding> found) {
        if (score.basis() == StudyScore.Basis.REFERENCE && score.source().isBlank()) {
            found.add(finding(FindingKind.NO_SOURCE, row, character));
        }
        if (!(score.value() instanceof ScoreValue.Range range)) {
            return;
        }
        boolean isMeasured = character.type().isNumeric() && character.type() != CharacterType.COUNT;
        if (isMeasured
                && score.basis() == StudyScore.Basis.SPECIMENS
                && range.max() != null
                && range.min() == range.max()) {
            found.add(finding(FindingKind.SINGLE_VALUE, row, character));
        }
        int individuals = score.sample() == null ? 0 : score.sample().knownIndividuals();
        if (individuals > 0 && individuals < FEWEST_INDIVIDUALS) {
            found.add(finding(FindingKind.FEW_INDIVIDUALS, row, character)
                    .with("individuals", individuals)
                    .with("least", FEWEST_INDIVIDUALS));
        }
    }

    private static void season(StudyRow row, StudyScore score, List<StudyFinding> found) {
        List<Integer> present = row.occurrence().months();
        List<Integer> scored = new ArrayList<>(score.months());
        if (score.value() instanceof ScoreValue.Months months) {
            scored.addAll(months.months());
        }
        scored.removeAll(present);
        if (!present.isEmpty() && !scored.isEmpty()) {
            List<Integer> out = scored.stream().distinct().sorted().toList();
            found.add(StudyFinding.of(FindingKind.OUT_OF_SEASON, row.id(), score.character())
                    .with("row", row.name())
                    .with("scored", MonthNotation.print(out))
                    .with("present", MonthNotation.print(present)));
        }
    }

    private void ratio(int c, List<StudyFinding> found) {
        StudyCharacter character = compiled.characters().get(c);
        int above = compiled.characterIndex(character.ratioOf().get(0));
        int below = compiled.characterIndex(character.ratioOf().get(1));
        if (above < 0 || below < 0) {
            return;
        }
        for (int i = 0; i < compiled.rows().size(); i++) {
            boolean known = compiled.matrix().cell(i, c) instanceof Cell.Numeric
                    && compiled.matrix().cell(i, above) instanceof Cell.Numeric
                    && compiled.matrix().cell(i, below) instanceof Cell.Numeric;
            if (!known) {
                continue;
            }
            Cell.Numeric ratio = (Cell.Numeric) compiled.matrix().cell(i, c);
            Cell.Numeric upper = (Cell.Numeric) compiled.matrix().cell(i, above);
            Cell.Numeric lower = (Cell.Numeric) compiled.matrix().cell(i, below);
            double least = lower.max() > 0 ? upper.min() / lower.max() : 0;
            double most = lower.min() > 0 ? upper.max() / lower.min() : Double.POSITIVE_INFINITY;
            if (ratio.high() < least || ratio.low() > most) {
                StudyRow row = compiled.rows().get(i);
                found.add(finding(FindingKind.RATIO_OUT_OF_LINE, row, character)
                        .with("low", NotationPrinter.number(ratio.low()))
                        .with("high", NotationPrinter.number(ratio.high()))
                        .with("least", rounded(least))
                        .with("most", Double.isInfinite(most) ? "" : rounded(most)));
            }
        }
    }

    private static String rounded(double number) {
        return NotationPrinter.number(Math.round(number * 100) / 100.0);
    }
}
