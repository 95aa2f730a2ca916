package org.polyclave.study.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.CellNotation;
import org.polyclave.study.notation.StatesFromTexts;
import org.polyclave.study.rules.Problem;

/** Reads characters of an import as other types than were proposed: their scores are parsed again from their texts. */
public final class Retype {
    private Retype() {}

    /** @param unit empty: the usual unit of the type */
    public record Choice(CharacterType type, String unit) {}

    /** @param problems texts that are not scores of the chosen types */
    public record Retyped(Study study, List<Problem> problems) {}

    /** @param choices by label of the character */
    public static Retyped of(Study study, Map<String, Choice> choices) {
        List<Problem> problems = new ArrayList<>();
        Map<String, StudyCharacter> changed = new HashMap<>();
        List<StudyCharacter> characters = new ArrayList<>();
        for (StudyCharacter character : study.characters()) {
            Choice choice = choices.get(character.label());
            boolean other = choice != null
                    && (choice.type() != character.type()
                            || (!choice.unit().isEmpty() && !choice.unit().equals(character.unit())));
            if (choice == null || !other) {
                characters.add(character);
                continue;
            }
            StudyCharacter now = retyped(study, character, choice);
            characters.add(now);
            changed.put(character.id(), now);
        }
        List<StudyScore> scores = new ArrayList<>();
        for (StudyScore score : study.scores()) {
            StudyCharacter character = changed.get(score.character());
            if (character == null) {
                scores.add(score);
                continue;
            }
            CellNotation.ParseResult reading = CellNotation.parse(score.typed(), character);
            if (reading instanceof CellNotation.Parsed parsed) {
                scores.add(score.withValue(parsed.value(), score.typed()));
            } else {
                problems.add(Problem.file("'" + score.row() + "' × '" + character.label() + "': "
                        + ((CellNotation.Rejected) reading).reason()));
            }
        }
        return new Retyped(study.withCharacters(characters).withScores(scores), problems);
    }

    /** The character with another type; one that had no states gets those that its texts name. */
    static StudyCharacter retyped(Study study, StudyCharacter character, Choice choice) {
        String unit = choice.unit().isEmpty() ? Units.defaultUnit(choice.type()) : choice.unit();
        StudyCharacter now = character.withType(choice.type(), unit);
        boolean states = choice.type() == CharacterType.STATES || choice.type() == CharacterType.ORDERED;
        if (!states) {
            return now.withStates(List.of());
        }
        List<String> texts = study.scores().stream()
                .filter(s -> s.character().equals(character.id()))
                .map(StudyScore::typed)
                .toList();
        return character.states().isEmpty() ? now.withStates(StatesFromTexts.of(texts)) : now;
    }
}
