package org.polyclave.study.notation;

import java.util.List;
import org.polyclave.study.model.StudyCharacter.StudyState;

/** The states that cells of a column name, in the order in which they first appear. */
public final class StatesFromTexts {
    private StatesFromTexts() {}

    public static List<StudyState> of(List<String> texts) {
        return TypeGuess.states(
                texts.stream().filter(t -> !CellNotation.isSpecial(t)).toList());
    }
}
