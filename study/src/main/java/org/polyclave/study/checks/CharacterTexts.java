package org.polyclave.study.checks;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.UnaryOperator;
import org.polyclave.study.model.RecordFields;
import org.polyclave.study.model.StudyCharacter;

/** The texts of a character that readers read: of itself, of how to look, and of its states. */
final class CharacterTexts {
    /** Names of fields that hold text in words, of the character as of its parts. */
    private static final Set<String> FIELDS =
            Set.of("label", "question", "plainQuestion", "note", "pitfalls", "plain", "definition");

    private CharacterTexts() {}

    static List<String> of(StudyCharacter character) {
        List<String> texts = new ArrayList<>();
        changed(character, text -> {
            texts.add(text);
            return text;
        });
        return texts;
    }

    static StudyCharacter changed(StudyCharacter character, UnaryOperator<String> change) {
        return texts(character, change)
                .withLooking(texts(character.looking(), change))
                .withStates(
                        character.states().stream().map(s -> texts(s, change)).toList());
    }

    private static <T extends Record> T texts(T record, UnaryOperator<String> change) {
        Map<String, Object> changed = new HashMap<>();
        RecordFields.of(record).forEach((name, value) -> {
            if (FIELDS.contains(name) && value instanceof String text) {
                changed.put(name, change.apply(text));
            }
        });
        return RecordFields.with(record, changed);
    }
}
