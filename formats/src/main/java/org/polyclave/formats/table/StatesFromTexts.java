package org.polyclave.formats.table;

import java.util.List;
import java.util.Locale;
import org.polyclave.formats.study.StudyCharacter.StudyState;

/** The states that cells of a column name, in the order in which they first appear. */
public final class StatesFromTexts {
    private static final List<String> SPECIAL = List.of("?", "n/a", "na", "any");

    private StatesFromTexts() {}

    public static List<StudyState> of(List<String> texts) {
        return TypeGuess.states(texts.stream()
                .filter(t -> !SPECIAL.contains(t.strip().toLowerCase(Locale.ROOT)))
                .toList());
    }
}
