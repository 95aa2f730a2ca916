package org.polyclave.files.table;

import java.util.List;
import java.util.Optional;
import java.util.regex.Pattern;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.notation.CellNotation;
import org.polyclave.study.notation.TrailingUnit;

/** Cells that hold a length and a width: "7-9 x 4-5", "6-10 x 1-1.5 cm". */
final class TwoMeasures {
    private static final Pattern TIMES = Pattern.compile("(?<=[\\d)\\s\\p{L}])\\s*[x×✕*]\\s*(?=[\\d(.~c])");
    private static final Pattern SIZE = Pattern.compile("(?i)\\s*\\b(size|dimensions?|measurements?|measures)\\b");
    private static final StudyCharacter TRIAL = StudyCharacter.of("trial", CharacterType.LENGTH, List.of());

    private TwoMeasures() {}

    /** Both, the unit behind the second with the first; empty if a text is not two measures. */
    static Optional<List<String>> of(String text) {
        if (text.indexOf('x') < 0 && text.indexOf('×') < 0 && text.indexOf('✕') < 0 && text.indexOf('*') < 0) {
            return Optional.empty();
        }
        String[] halves = TIMES.split(text.strip(), -1);
        if (halves.length != 2) {
            return Optional.empty();
        }
        String first = halves[0].strip();
        String second = halves[1].strip();
        String whole = TrailingUnit.of(first).isPresent()
                ? first
                : TrailingUnit.of(second).map(u -> first + " " + u).orElse(first);
        boolean measures = isMeasure(whole) && isMeasure(second);
        return measures ? Optional.of(List.of(whole, second)) : Optional.empty();
    }

    private static boolean isMeasure(String text) {
        return !text.isEmpty() && CellNotation.parse(text, TRIAL) instanceof CellNotation.Parsed;
    }

    /** Whether most of the cells of a column that say something hold two. */
    static boolean areMost(List<String> texts) {
        List<String> told = texts.stream()
                .filter(t -> !t.isEmpty() && !CellNotation.isSpecial(t))
                .toList();
        long two = told.stream()
                .filter(t -> of(CellRemarks.of(t).text()).isPresent())
                .count();
        return two > 0 && 2 * two > told.size();
    }

    /** What the two are called: "spore size" is "spore length" and "spore width". */
    static List<String> labels(String heading) {
        String part = SIZE.matcher(heading).replaceAll("").strip();
        return List.of((part + " length").strip(), (part + " width").strip());
    }
}
