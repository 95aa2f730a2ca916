package org.polyclave.study.change;

import org.polyclave.study.model.Reading;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;

/** Two states become one; scores, readings and dependencies follow. */
public record MergeStates(String character, String from, String into) implements StudyOperation {
    @Override
    public Study apply(Study study) {
        StudyCharacter old = Parts.character(study, character);
        Parts.state(old, from);
        Parts.state(old, into);
        if (from.equals(into)) {
            throw new Refused("Choose two different states of '" + old.label() + "'.");
        }
        StateMerge merge = new StateMerge(character, from, into);
        StudyCharacter merged = merge.merged(old);
        return study.withCharacters(Parts.mapped(
                        study.characters(),
                        c -> c.id().equals(character)
                                ? merged
                                : merge.dependent(c).orElse(c)))
                .withScores(
                        Parts.mapped(study.scores(), s -> merge.score(s, merged).orElse(s)))
                .withReadings(Parts.mapped(study.readings(), this::moved));
    }

    private Reading moved(Reading reading) {
        return reading.character().equals(character)
                ? reading.of(
                        reading.specimen(),
                        character,
                        reading.states().stream()
                                .map(s -> s.equals(from) ? into : s)
                                .distinct()
                                .toList())
                : reading;
    }
}
