package org.polyclave.study.change;

import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.CellNotation;

/**
 * Gives a character another type. Each score becomes what its text says in the new type; one whose text says nothing there
 * becomes unknown, and keeps the text as a note.
 *
 * @param unit in which its texts are written; empty: the usual unit of the type
 */
public record ChangeType(String character, CharacterType type, String unit) implements StudyOperation {
    @Override
    public Study apply(Study study) {
        StudyCharacter before = Parts.character(study, character);
        if (before.type() == type) {
            throw new Refused("'" + before.label() + "' has this type already.");
        }
        if (study.readings().stream().anyMatch(r -> r.character().equals(character))) {
            throw new Refused("'" + before.label()
                    + "' was measured on specimens. Its readings would mean nothing in another type: remove them first, or"
                    + " add another character.");
        }
        StudyCharacter now = Retype.retyped(study, before, new Retype.Choice(type, unit));
        return study.withCharacters(study.characters().stream()
                        .map(c -> c.id().equals(character) ? now : c)
                        .toList())
                .withScores(study.scores().stream()
                        .map(s -> s.character().equals(character) ? retyped(s, now) : s)
                        .toList());
    }

    private static StudyScore retyped(StudyScore score, StudyCharacter now) {
        StudyScore plain = now.type().isNumeric() ? score : score.withSample(null);
        if (CellNotation.parse(score.typed(), now) instanceof CellNotation.Parsed parsed) {
            return plain.withValue(parsed.value(), score.typed());
        }
        String was = "It said: " + score.typed();
        return plain.withValue(new ScoreValue.Unknown(), "?")
                .withNote(score.note().isEmpty() ? was : score.note() + " " + was);
    }
}
