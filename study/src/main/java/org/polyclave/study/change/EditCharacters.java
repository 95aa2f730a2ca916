package org.polyclave.study.change;

import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;

/**
 * Says the same of several characters: when they can be seen, by what means, on which part, how long it takes, and which
 * feature they are of. What is null stays with each as it is.
 *
 * @param characters ids of the characters
 * @param months numbers 1 to 12; empty: all year
 * @param method means of looking, in words; empty: the naked eye
 * @param organ the part that they are of
 * @param effort minutes
 * @param group the feature that they are of together; empty: each by itself
 */
public record EditCharacters(
        List<String> characters,
        @Nullable List<Integer> months,
        @Nullable String method,
        @Nullable String organ,
        @Nullable Double effort,
        @Nullable String group)
        implements StudyOperation {
    private static final int MONTHS = 12;
    private static final double LONGEST = 24 * 60;

    public EditCharacters {
        characters = List.copyOf(characters);
        months = months == null ? null : List.copyOf(new TreeSet<>(months));
    }

    @Override
    public Study apply(Study study) {
        if (months != null && months.stream().anyMatch(m -> m < 1 || m > MONTHS)) {
            throw new Refused("Months have the numbers 1 to 12.");
        }
        if (effort != null && !(effort >= 0 && effort <= LONGEST)) {
            throw new Refused("Give the effort in minutes, from 0 to " + (int) LONGEST + ".");
        }
        Set<String> chosen = new HashSet<>(characters);
        characters.forEach(id -> Parts.character(study, id));
        return study.withCharacters(study.characters().stream()
                .map(c -> chosen.contains(c.id()) ? edited(c) : c)
                .toList());
    }

    private StudyCharacter edited(StudyCharacter character) {
        StudyCharacter now = character;
        if (months != null) {
            now = now.withMonths(months.size() == MONTHS ? List.of() : months);
        }
        now = method == null ? now : now.withMethod(method.strip());
        now = organ == null ? now : now.withOrgan(organ.strip());
        now = effort == null ? now : now.withEffort(effort);
        return group == null ? now : now.withGroup(group.strip());
    }
}
