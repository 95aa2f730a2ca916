package org.polyclave.study.rules;

import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.notation.CellNotation;

/** Which scores a character can have. */
public final class ScoreRules {
    private ScoreRules() {}

    /** Whether a score is of the character's type, and its states are there. */
    public static boolean fits(ScoreValue value, StudyCharacter character) {
        if (value instanceof ScoreValue.States states) {
            return states.shown().stream().allMatch(s -> character.indexOf(s.state()) >= 0);
        }
        if (value instanceof ScoreValue.Range range) {
            double high = range.high() == null ? Double.POSITIVE_INFINITY : range.high();
            double max = range.max() == null ? Double.POSITIVE_INFINITY : range.max();
            return character.type().isNumeric()
                    && range.min() <= range.low()
                    && range.low() <= high
                    && high <= max
                    && (range.counts().isEmpty()
                            || (character.type() == CharacterType.COUNT && CellNotation.isConsistent(range)));
        }
        return !(value instanceof ScoreValue.Months) || character.type() == CharacterType.MONTHS;
    }
}
