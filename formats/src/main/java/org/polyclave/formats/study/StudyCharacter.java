package org.polyclave.formats.study;

import com.fasterxml.jackson.annotation.JsonIgnore;
import java.util.List;
import java.util.Optional;
import org.polyclave.core.matrix.CharacterType;

/**
 * A character with its texts.
 *
 * @param unit unit in which numbers are shown; stored values are in the base unit
 * @param note how and where to look
 * @param months numbers 1 to 12 in which it can be seen; empty: all year
 * @param effort minutes
 * @param harms whether the specimen is harmed
 * @param hazardousToObserve whether it takes smelling, crushing, cutting or touching
 * @param tentative odour, behaviour and the like: never helps to rule out a dangerous row
 * @param misreading rate for a trained observer
 * @param group correlation group; empty: the organ
 * @param uncertainty reading uncertainty in the base unit
 */
public record StudyCharacter(
        String id,
        String label,
        String question,
        String plainQuestion,
        CharacterType type,
        String unit,
        String organ,
        String method,
        String note,
        List<StudyState> states,
        List<AppliesWhen> appliesWhen,
        List<Integer> months,
        double effort,
        boolean harms,
        boolean hazardousToObserve,
        boolean tentative,
        double misreading,
        String group,
        double uncertainty) {
    public static final double DEFAULT_MISREADING = 0.05;

    public StudyCharacter {
        states = List.copyOf(states);
        appliesWhen = List.copyOf(appliesWhen);
        months = List.copyOf(months);
    }

    /** A character with a name, a type and states, and everything else at its default. */
    public static StudyCharacter of(String label, CharacterType type, List<StudyState> states) {
        return new StudyCharacter(
                Slug.of(label),
                label,
                "",
                "",
                type,
                Units.defaultUnit(type),
                "",
                "",
                "",
                states,
                List.of(),
                List.of(),
                1,
                false,
                false,
                false,
                DEFAULT_MISREADING,
                "",
                0);
    }

    public StudyCharacter withId(String newId) {
        return with(newId, states, appliesWhen);
    }

    public StudyCharacter withStates(List<StudyState> newStates) {
        return with(id, newStates, appliesWhen);
    }

    public StudyCharacter withConditions(List<AppliesWhen> conditions) {
        return with(id, states, conditions);
    }

    private StudyCharacter with(String newId, List<StudyState> newStates, List<AppliesWhen> conditions) {
        return new StudyCharacter(
                newId,
                label,
                question,
                plainQuestion,
                type,
                unit,
                organ,
                method,
                note,
                newStates,
                conditions,
                months,
                effort,
                harms,
                hazardousToObserve,
                tentative,
                misreading,
                group,
                uncertainty);
    }

    @JsonIgnore
    public Optional<StudyState> state(String id) {
        return states.stream().filter(s -> s.id().equals(id)).findFirst();
    }

    /** Index of a state, -1 if there is none. */
    public int indexOf(String stateId) {
        for (int s = 0; s < states.size(); s++) {
            if (states.get(s).id().equals(stateId)) {
                return s;
            }
        }
        return -1;
    }

    /** A character's alternative. */
    public record StudyState(String id, String label, String plain, String definition) {
        public static StudyState of(String label) {
            return new StudyState(Slug.of(label), label, "", "");
        }
    }

    /** The character applies only where another has one of some states. */
    public record AppliesWhen(String character, List<String> states) {
        public AppliesWhen {
            states = List.copyOf(states);
        }
    }
}
