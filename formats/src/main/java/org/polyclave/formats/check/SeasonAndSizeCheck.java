package org.polyclave.formats.check;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.matrix.Cell;
import org.polyclave.formats.notation.MonthNotation;
import org.polyclave.formats.notation.NotationPrinter;
import org.polyclave.formats.study.CompiledStudy;
import org.polyclave.formats.study.ScoreValue;
import org.polyclave.formats.study.StudyCharacter;
import org.polyclave.formats.study.StudyRow;
import org.polyclave.formats.study.StudyScore;

/** Finds months in which a taxon is not there, and ratios that their parts cannot have. */
final class SeasonAndSizeCheck {
    private SeasonAndSizeCheck() {}

    static List<StudyFinding> of(CompiledStudy compiled) {
        List<StudyFinding> found = new ArrayList<>();
        months(compiled, found);
        for (int c = 0; c < compiled.characters().size(); c++) {
            if (compiled.characters().get(c).ratioOf().size() == 2) {
                ratio(compiled, c, found);
            }
        }
        return found;
    }

    private static void months(CompiledStudy compiled, List<StudyFinding> found) {
        Map<String, StudyRow> rows = new HashMap<>();
        compiled.study().rows().forEach(r -> rows.put(r.id(), r));
        for (StudyScore score : compiled.study().scores()) {
            StudyRow row = rows.get(score.row());
            List<Integer> present = row == null ? List.of() : row.occurrence().months();
            List<Integer> scored = new ArrayList<>(score.months());
            if (score.value() instanceof ScoreValue.Months months) {
                scored.addAll(months.months());
            }
            scored.removeAll(present);
            if (row != null && !present.isEmpty() && !scored.isEmpty()) {
                List<Integer> out = scored.stream().distinct().sorted().toList();
                found.add(new StudyFinding(
                        "out-of-season",
                        row.id(),
                        score.character(),
                        "",
                        "'" + row.name() + "' is scored for " + MonthNotation.print(out)
                                + ", when it is not present (" + MonthNotation.print(present)
                                + "). Correct the score, or when the taxon is present."));
            }
        }
    }

    private static void ratio(CompiledStudy compiled, int c, List<StudyFinding> found) {
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
                found.add(new StudyFinding(
                        "ratio-out-of-line",
                        row.id(),
                        character.id(),
                        "",
                        "'" + character.label() + "' of '" + row.name() + "' cannot be "
                                + NotationPrinter.number(ratio.low()) + "–" + NotationPrinter.number(ratio.high())
                                + ": by its parts it lies between " + rounded(least) + " and " + rounded(most)
                                + ". Look at the three cells again."));
            }
        }
    }

    private static String rounded(double number) {
        return Double.isInfinite(number) ? "any size" : NotationPrinter.number(Math.round(number * 100) / 100.0);
    }
}
