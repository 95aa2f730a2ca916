package org.polyclave.wording.lead;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import org.polyclave.core.key.Atoms;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.Units;

/**
 * How a character would read in leads, for who writes its clause.
 *
 * @param technical the pattern in use: its author's, or the one that is made
 * @param plain the same for plain words
 * @param examples what leads would say
 */
public record ClausePreview(String technical, String plain, List<Example> examples) {
    private static final int LOW = 2;
    private static final int HIGH = 5;
    private static final int SUMMER = 0b11100000;

    public record Example(String technical, String plain) {}

    public static ClausePreview of(StudyCharacter character) {
        Clause technical = Clause.of(character, false);
        Clause plain = Clause.of(character, true);
        List<Example> examples = new ArrayList<>();
        for (Atoms atoms : shown(character)) {
            examples.add(new Example(say(technical, atoms, character, false), say(plain, atoms, character, false)));
        }
        Atoms last = shown(character).get(shown(character).size() - 1);
        examples.add(new Example(say(technical, last, character, true), say(plain, last, character, true)));
        return new ClausePreview(technical.pattern(), plain.pattern(), examples);
    }

    /** Each state, and two together; or a size, a single number, some months. */
    private static List<Atoms> shown(StudyCharacter character) {
        double factor = Units.factor(character.type(), character.unit()).orElse(1.0);
        if (character.type() == CharacterType.MONTHS) {
            return List.of(new Atoms.States(SUMMER));
        }
        if (character.type().isNumeric()) {
            List<Atoms> numbers = new ArrayList<>();
            if (character.type() == CharacterType.COUNT) {
                numbers.add(Atoms.Interval.closed(1, 1));
            }
            numbers.add(Atoms.Interval.closed(LOW * factor, HIGH * factor));
            return numbers;
        }
        int states = character.states().size();
        List<Atoms> shown = new ArrayList<>(IntStream.range(0, states)
                .mapToObj(s -> (Atoms) new Atoms.States(1 << s))
                .toList());
        shown.add(new Atoms.States(states > 1 ? 0b11 : 1));
        return shown;
    }

    private static String say(Clause clause, Atoms atoms, StudyCharacter character, boolean usually) {
        Seen seen = Seen.of(character, clause, atoms);
        return clause.fill(seen.words(), seen.count(), usually);
    }
}
