package org.polyclave.study.change;

import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;
import org.polyclave.study.notation.NotationPrinter;

/** A character is shown in another unit. What was measured stays as it is; the texts of its scores are written in the new unit. */
public record ChangeUnit(String character, String unit) implements StudyOperation {
    @Override
    public Study apply(Study study) {
        StudyCharacter old = Parts.character(study, character);
        if (unit.isBlank() || Units.factor(old.type(), unit).isEmpty()) {
            throw new Refused("'" + unit + "' is not a unit of '" + old.label() + "'. Write for example '"
                    + Units.defaultUnit(old.type()) + "'.");
        }
        StudyCharacter now = old.withType(old.type(), unit.strip());
        return study.withCharacters(Parts.mapped(study.characters(), c -> c.id().equals(character) ? now : c))
                .withScores(Parts.mapped(
                        study.scores(),
                        s -> s.character().equals(character)
                                ? s.withValue(s.value(), NotationPrinter.print(s.value(), now))
                                : s));
    }
}
