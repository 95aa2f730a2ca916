package org.polyclave.study.compile;

import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.polyclave.core.matrix.CharacterType;
import org.polyclave.study.model.StudyCharacter;

/**
 * Which characters are one feature: what they say is not independent, so they count as one piece of evidence. As the author
 * says; else each character is its own, except that
 *
 * <ul>
 *   <li>the lengths and masses of one part are one, for a large individual is large in all;
 *   <li>so is what is seen in the same way at several positions of one part;
 *   <li>of a ratio and two measures of different features at most two count: it goes with the first.
 * </ul>
 */
public final class Features {
    private final Map<String, StudyCharacter> byId = new HashMap<>();
    private final Map<String, Integer> atPositions = new HashMap<>();

    public Features(List<StudyCharacter> characters) {
        for (StudyCharacter character : characters) {
            byId.put(character.id(), character);
            atPositions.merge(withoutPosition(character), 1, Integer::sum);
        }
    }

    /** A name of its feature. */
    public String of(StudyCharacter character) {
        if (!character.group().isBlank()) {
            return "joined " + folded(character.group());
        }
        if (character.type() == CharacterType.LENGTH || character.type() == CharacterType.MASS) {
            return "sizes of " + folded(character.organ());
        }
        if (character.ratioOf().size() == 2) {
            StudyCharacter first = byId.get(character.ratioOf().get(0));
            StudyCharacter second = byId.get(character.ratioOf().get(1));
            if (first != null && second != null && !of(first).equals(of(second))) {
                return of(first);
            }
        }
        String shared = withoutPosition(character);
        return atPositions.getOrDefault(shared, 0) > 1 ? shared : "own " + character.id();
    }

    /** What is left of part, kind and label without the words for where exactly; alike for one thing at two positions. */
    private static String withoutPosition(StudyCharacter character) {
        StudyCharacter.Where where = character.where();
        String label = " " + folded(character.label()) + " ";
        for (String at : List.of(where.position(), where.side())) {
            if (!at.isBlank()) {
                label = label.replace(" " + folded(at) + " ", " ");
            }
        }
        return "at " + folded(character.organ()) + " " + character.type() + label;
    }

    private static String folded(String text) {
        return text.strip().toLowerCase(Locale.ROOT).replaceAll("\\s+", " ");
    }
}
