package org.polyclave.formats.study;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/** One group of lookalikes with its scope, rows, characters and accepted scores. */
public record Study(
        String slug,
        String title,
        StudyScope scope,
        List<StudyRow> rows,
        List<OutsideTaxon> nearButOutside,
        List<StudyCharacter> characters,
        List<StudyScore> scores) {
    public Study {
        rows = List.copyOf(rows);
        nearButOutside = List.copyOf(nearButOutside);
        characters = List.copyOf(characters);
        scores = List.copyOf(scores);
    }

    public Optional<StudyRow> row(String id) {
        return rows.stream().filter(r -> r.id().equals(id)).findFirst();
    }

    public Optional<StudyCharacter> character(String id) {
        return characters.stream().filter(c -> c.id().equals(id)).findFirst();
    }

    /** Scores by row, then by character. */
    public Map<String, Map<String, StudyScore>> scoresByRow() {
        Map<String, Map<String, StudyScore>> byRow = new LinkedHashMap<>();
        for (StudyScore score : scores) {
            byRow.computeIfAbsent(score.row(), r -> new LinkedHashMap<>()).put(score.character(), score);
        }
        return byRow;
    }

    public Study withRows(List<StudyRow> newRows) {
        return new Study(slug, title, scope, newRows, nearButOutside, characters, scores);
    }

    public Study withCharacters(List<StudyCharacter> newCharacters) {
        return new Study(slug, title, scope, rows, nearButOutside, newCharacters, scores);
    }

    public Study withScores(List<StudyScore> newScores) {
        return new Study(slug, title, scope, rows, nearButOutside, characters, newScores);
    }

    /** The study with one cell scored anew, or emptied. */
    public Study withScore(String row, String character, Optional<StudyScore> score) {
        List<StudyScore> changed = new ArrayList<>();
        for (StudyScore old : scores) {
            if (!(old.row().equals(row) && old.character().equals(character))) {
                changed.add(old);
            }
        }
        score.ifPresent(changed::add);
        return new Study(slug, title, scope, rows, nearButOutside, characters, changed);
    }
}
