package org.polyclave.study.change;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.polyclave.study.model.ScoreValue;
import org.polyclave.study.model.Study;
import org.polyclave.study.model.StudyCharacter;
import org.polyclave.study.model.StudyRow;
import org.polyclave.study.model.StudyScore;
import org.polyclave.study.notation.CellNotation;
import org.polyclave.study.notation.NotationPrinter;

/**
 * Finds scores by what they mean and changes them: "all <i>entire</i> with doubt". Only scores of the rows themselves are
 * found, not what they inherit.
 *
 * @param rows ids of the rows to look at; empty: all
 * @param characters ids of the characters to look at; empty: all
 * @param saying a score in notation that a found score must equal in meaning; empty: any score
 * @param contains whether it is enough that a found score shows one of the states of {@code saying}
 * @param doubtful whether found scores must be doubtful, or must not be; null: either
 * @param withoutSource whether found scores must have no source
 * @param replacement new score in notation; empty: the score stays as it is
 * @param becomeDoubtful new doubt; null: it stays
 * @param source new source; null: it stays
 */
public record ReplaceScores(
        List<String> rows,
        List<String> characters,
        String saying,
        boolean contains,
        @Nullable Boolean doubtful,
        boolean withoutSource,
        String replacement,
        @Nullable Boolean becomeDoubtful,
        @Nullable String source)
        implements StudyOperation {
    public ReplaceScores {
        rows = List.copyOf(rows);
        characters = List.copyOf(characters);
    }

    @Override
    public Study apply(Study study) {
        Map<String, StudyCharacter> byId = new HashMap<>();
        for (StudyCharacter character : study.characters()) {
            if (characters.isEmpty() || characters.contains(character.id())) {
                byId.put(character.id(), character);
            }
        }
        Map<String, ScoreValue> wanted = saying.isBlank() ? Map.of() : readings(saying, byId.values());
        Map<String, ScoreValue> given = replacement.isBlank() ? Map.of() : readings(replacement, byId.values());
        Set<String> among = new HashSet<>(
                rows.isEmpty() ? study.rows().stream().map(StudyRow::id).toList() : rows);
        List<StudyScore> scores = new ArrayList<>();
        for (StudyScore score : study.scores()) {
            StudyCharacter character = byId.get(score.character());
            boolean found = character != null && among.contains(score.row()) && matches(score, wanted);
            if (!found || character == null) {
                scores.add(score);
            } else if (!replacement.isBlank() && !given.containsKey(character.id())) {
                throw new Refused("'" + replacement + "' cannot be a score of '" + character.label() + "'.");
            } else {
                scores.add(changed(score, character, given));
            }
        }
        return study.withScores(scores);
    }

    /** What a text means for each character that can be scored so. */
    private static Map<String, ScoreValue> readings(String text, Iterable<StudyCharacter> characters) {
        Map<String, ScoreValue> readings = new HashMap<>();
        for (StudyCharacter character : characters) {
            if (CellNotation.parse(text, character) instanceof CellNotation.Parsed parsed) {
                readings.put(character.id(), parsed.value());
            }
        }
        if (readings.isEmpty()) {
            throw new Refused("'" + text + "' is not a score of any of these characters.");
        }
        return readings;
    }

    private boolean matches(StudyScore score, Map<String, ScoreValue> wanted) {
        boolean doubt = doubtful == null || doubtful == score.doubtful();
        boolean source = !withoutSource || score.source().isBlank();
        if (!doubt || !source || saying.isBlank()) {
            return doubt && source;
        }
        ScoreValue value = wanted.get(score.character());
        return value != null
                && (contains
                        ? shares(score.value(), value)
                        : means(score.value()).equals(means(value)));
    }

    /** The order in which states are named, and the way the notation was typed, mean nothing. */
    private static Object means(ScoreValue value) {
        return value instanceof ScoreValue.States states
                ? List.of(Set.copyOf(states.shown()), states.combination())
                : value;
    }

    private static boolean shares(ScoreValue value, ScoreValue wanted) {
        if (value instanceof ScoreValue.States shown && wanted instanceof ScoreValue.States any) {
            return shown.shown().stream()
                    .anyMatch(s -> any.shown().stream().anyMatch(w -> w.state().equals(s.state())));
        }
        if (value instanceof ScoreValue.Months in && wanted instanceof ScoreValue.Months any) {
            return in.months().stream().anyMatch(any.months()::contains);
        }
        return value.equals(wanted);
    }

    private StudyScore changed(StudyScore score, StudyCharacter character, Map<String, ScoreValue> given) {
        StudyScore changed = Optional.ofNullable(given.get(character.id()))
                .map(v -> score.withValue(v, NotationPrinter.print(v, character)))
                .orElse(score);
        changed = becomeDoubtful == null ? changed : changed.withDoubt(becomeDoubtful);
        return source == null ? changed : changed.withSource(source);
    }
}
