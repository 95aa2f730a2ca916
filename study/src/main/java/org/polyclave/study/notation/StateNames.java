package org.polyclave.study.notation;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Collectors;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyCharacter.StudyState;

/** Finds states by label, plain label or an unambiguous beginning, without regard to case. */
final class StateNames {
    private static final int NEAREST = 3;

    private StateNames() {}

    /** The states meant by a name: one when it is clear, none or several when it is not. */
    static List<StudyState> match(String name, StudyCharacter character) {
        String wanted = name.strip().toLowerCase(Locale.ROOT);
        List<StudyState> beginnings = new ArrayList<>();
        for (StudyState state : character.states()) {
            String label = state.label().toLowerCase(Locale.ROOT);
            String plain = state.plain().toLowerCase(Locale.ROOT);
            if (label.equals(wanted) || plain.equals(wanted) || state.id().equals(wanted)) {
                return List.of(state);
            }
            if (!wanted.isEmpty() && (label.startsWith(wanted) || plain.startsWith(wanted))) {
                beginnings.add(state);
            }
        }
        return beginnings;
    }

    static CellNotation.Rejected reject(String name, StudyCharacter character, List<StudyState> matches) {
        if (name.isEmpty()) {
            return new CellNotation.Rejected(
                    "A state is missing next to a separator. Remove it or add the state.", List.of());
        }
        if (matches.size() > 1) {
            List<String> labels = matches.stream().map(StudyState::label).toList();
            return new CellNotation.Rejected(
                    "'" + name + "' may be " + String.join(" or ", labels) + ". Write more of the name.", labels);
        }
        List<String> nearest = character.states().stream()
                .sorted(Comparator.comparingInt(s -> EditDistance.between(
                        name.toLowerCase(Locale.ROOT), s.label().toLowerCase(Locale.ROOT))))
                .limit(NEAREST)
                .map(StudyState::label)
                .toList();
        String known = character.states().isEmpty()
                ? "It has no states yet."
                : "Nearest: " + nearest.stream().map(l -> "'" + l + "'").collect(Collectors.joining(", ")) + ".";
        return new CellNotation.Rejected(
                "'" + name + "' is not a state of '" + character.label() + "'. " + known, nearest);
    }
}
