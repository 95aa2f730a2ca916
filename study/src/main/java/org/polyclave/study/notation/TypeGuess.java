package org.polyclave.study.notation;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;

/** Proposes the type and the states of a column that does not name them. */
public final class TypeGuess {
    private static final Pattern WORD = Pattern.compile("(?i)^(always|usually|sometimes|rarely|mistaken( for)?)\\s+");

    private static final Pattern DATE = Pattern.compile("\\d{4}-\\d{2}-\\d{2}");

    private TypeGuess() {}

    /** Dates are what spreadsheet programs make of ranges, so they tell nothing of the type. */
    public static CharacterType type(List<String> all) {
        List<String> texts =
                all.stream().filter(t -> !DATE.matcher(t).matches()).toList();
        if (texts.isEmpty()) {
            return CharacterType.STATES;
        }
        if (all(texts, CharacterType.MONTHS)) {
            return CharacterType.MONTHS;
        }
        if (all(texts, CharacterType.COUNT)) {
            return CharacterType.COUNT;
        }
        for (CharacterType type :
                List.of(CharacterType.LENGTH, CharacterType.MASS, CharacterType.ANGLE, CharacterType.PERCENT)) {
            if (all(texts, type) && texts.stream().anyMatch(TypeGuess::hasUnit)) {
                return type;
            }
        }
        return all(texts, CharacterType.RATIO) ? CharacterType.RATIO : CharacterType.STATES;
    }

    private static boolean hasUnit(String text) {
        return text.strip().matches(".*\\d\\s*\\)?\\s*[a-zA-Zµμ°%]+$");
    }

    private static boolean all(List<String> texts, CharacterType type) {
        StudyCharacter trial = StudyCharacter.of("trial", type, List.of());
        return texts.stream().allMatch(t -> CellNotation.parse(t, trial) instanceof CellNotation.Parsed);
    }

    /** States in the order in which they first appear. */
    public static List<StudyState> states(List<String> texts) {
        Map<String, StudyState> found = new LinkedHashMap<>();
        for (String text : texts) {
            for (String part : text.split("[,;+/]")) {
                String name = WORD.matcher(part.strip()).replaceFirst("").strip();
                if (!name.isEmpty()) {
                    found.putIfAbsent(name.toLowerCase(Locale.ROOT), StudyState.of(name));
                }
            }
        }
        return new ArrayList<>(found.values());
    }
}
