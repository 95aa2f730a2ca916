package org.polyclave.study.change;

import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.notation.CellNotation;

/** Parts of a study that an operation names. */
final class Parts {
    private Parts() {}

    static StudyCharacter character(Study study, String id) {
        return study.character(id)
                .orElseThrow(() -> new Refused("The character '" + id + "' does not exist. Load the study again."));
    }

    static StudyRow row(Study study, String id) {
        return study.row(id)
                .orElseThrow(() -> new Refused("The taxon '" + id + "' does not exist. Load the study again."));
    }

    static StudyCharacter.StudyState state(StudyCharacter character, String id) {
        return character
                .state(id)
                .orElseThrow(() ->
                        new Refused("'" + character.label() + "' has no state '" + id + "'. Load the study again."));
    }

    static ScoreValue value(String text, StudyCharacter character) {
        CellNotation.ParseResult reading = CellNotation.parse(text, character);
        if (reading instanceof CellNotation.Rejected rejected) {
            throw new Refused("'" + text + "': " + rejected.reason());
        }
        return ((CellNotation.Parsed) reading).value();
    }

    static <T> List<T> mapped(List<T> all, UnaryOperator<T> change) {
        return all.stream().map(change).toList();
    }

    /** A label that is there, without spaces around it. */
    static String label(String text, String what) {
        return Optional.of(text.strip())
                .filter(t -> !t.isEmpty())
                .orElseThrow(() -> new Refused(what + " needs a name."));
    }
}
